import { useEffect, useRef, useState } from 'react';
import { api, type JobCommand, type PreviewView } from '../api/client';
import { t } from '../texts/texts';

/** What a draft comes to, and what is wrong with it. */
export interface OverlayPreview {
  look: PreviewView | null;
  /** A sentence, while the draft cannot be drawn. */
  refusal: string | null;
  /** True while the pixels are those of an earlier draft. */
  behind: boolean;
}

/**
 * The pixels of a slot's file under a draft, drawn by the engine that will make it. One look is under way at a time, and the newest draft is
 * the next: a hand that moves is followed as fast as that goes.
 */
export function useOverlayPreview(
  path: { id: string; picture: string; destination: string; slot: string },
  commands: readonly JobCommand[],
  colours: boolean,
): OverlayPreview {
  const key = JSON.stringify([path, commands, colours]);
  const [known, setKnown] = useState<{ key: string; look: PreviewView | null; refusal: string | null }>({
    key: '',
    look: null,
    refusal: null,
  });
  const hand = useRef({ path, commands, colours, key, running: false, gone: false });
  useEffect(() => {
    const now = hand.current;
    Object.assign(now, { path, commands, colours, key, gone: false });
    const go = async (): Promise<void> => {
      if (now.running || now.gone) return;
      now.running = true;
      const mine = now.key;
      const answer = await api
        .POST('/api/jobs/{id}/cells/{picture}/{destination}/{slot}/preview', {
          params: { path: now.path },
          body: { commands: [...now.commands], colours: now.colours },
        })
        .catch(() => null);
      now.running = false;
      if (now.gone) return;
      const problem = answer?.error as { detail?: string } | undefined;
      setKnown((before) => ({
        key: mine,
        look: answer?.data
          ? { ...answer.data, colours: answer.data.colours ?? before.look?.colours ?? null }
          : before.look,
        refusal: answer?.data ? null : (problem?.detail ?? t('overlay.pantometDoesNotAnswerCheckThat')),
      }));
      if (now.key !== mine) return go();
    };
    void go();
    // The path and the commands are in the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  useEffect(() => {
    const now = hand.current;
    return () => {
      now.gone = true;
    };
  }, []);
  return { look: known.look, refusal: known.refusal, behind: known.key !== key };
}
