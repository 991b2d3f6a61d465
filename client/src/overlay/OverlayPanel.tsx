import type { JobPicture, JobSlot, PreviewView } from '../api/client';
import { Button, Key } from '../design/Button';
import { needs } from '../design/needs';
import { sentence } from '../design/figures';
import { Colours } from './Colours';
import { type Draft, isBare, isLikeSlot, withTitle, withWords, wordsOf } from '../domain/overlay';
import { usual } from '../domain/ruleKeys';
import { FadePart } from './FadePart';
import { TextColourPart, ReachedContrast } from './TextColourPart';
import { LogoPart } from './LogoPart';
import { SavedStyles } from './SavedStyles';
import { TitlePart } from './TitlePart';
import { t } from '../texts/texts';

interface Ways {
  onDone: () => void;
  onNext: () => void;
  onEverywhere: () => void;
  onLeave: () => void;
}

/** Everything that is drawn over the picture, in figures and words; the picture beside it follows. */
export function OverlayPanel({
  picture,
  slot,
  draft,
  look,
  behind,
  trouble,
  picking,
  onDraft,
  onPoint,
  onPick,
  ...ways
}: {
  picture: JobPicture;
  slot: JobSlot;
  draft: Draft;
  look: PreviewView | null;
  behind: boolean;
  trouble: string | null;
  picking: boolean;
  onDraft: (draft: Draft) => void;
  onPoint: (font: string | null) => void;
  onPick: () => void;
} & Ways) {
  const title = draft.dress.title;
  const like = isLikeSlot(draft, slot);
  return (
    <aside
      className="flex min-h-0 flex-col border-l border-line bg-sheet"
      aria-label={t('overlay.textAndOverlay')}
    >
      <Head slot={slot} />
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2" data-testid="over-fields">
        <TitlePart
          words={wordsOf(draft)}
          title={title}
          set={slot.slot.setWidth !== null}
          onWords={(words) => onDraft(withWords(draft, words, slot, look?.colours?.calm))}
          onTitle={(change) => onDraft(withTitle(draft, change))}
          onRemove={() => onDraft({ ...draft, dress: { ...draft.dress, title: undefined } })}
          onPoint={onPoint}
        />
        {title && (
          <TextColourPart
            ink={title.ink ?? usual<string>('dress.title.ink')}
            fades={title.fade === true}
            offers={look?.colours?.inks ?? []}
            picking={picking}
            onInk={(ink) => onDraft(withTitle(draft, { ink }))}
            onFades={(fade) => onDraft(withTitle(draft, { fade }))}
            onPick={onPick}
          />
        )}
        <FadePart draft={draft} leading={look?.colours?.leading ?? []} onDraft={onDraft} />
        <LogoPart
          mark={draft.dress.mark}
          onMark={(mark) => onDraft({ ...draft, dress: { ...draft.dress, mark } })}
        />
        <Reached look={look} behind={behind} trouble={trouble} onDraft={onDraft} draft={draft} />
        {look?.colours && <Colours colours={look.colours} />}
        <SavedStyles
          dress={draft.dress}
          bare={isBare(draft)}
          onPut={(dress) => onDraft({ ...draft, dress })}
        />
      </div>
      <Steps like={like} changed={!like || draft.words !== picture.decisions.title} {...ways} />
    </aside>
  );
}

function Head({ slot }: { slot: JobSlot }) {
  return (
    <header className="border-b border-line px-4 py-2">
      <h2 className="flex items-baseline gap-2">
        <span className="wrap-anywhere">{t('overlay.textAndOverlay')}</span>
        <span className="wrap-anywhere text-small font-normal text-ink-2">
          {slot.slot.name}, {slot.destinationName}
        </span>
      </h2>
      <p className="wrap-anywhere text-small text-ink-2">{needs(slot.slot)}</p>
    </header>
  );
}

/** The contrast that is reached, and why the rest of it is as it is. */
function Reached({
  look,
  behind,
  trouble,
  draft,
  onDraft,
}: {
  look: PreviewView | null;
  behind: boolean;
  trouble: string | null;
  draft: Draft;
  onDraft: (draft: Draft) => void;
}) {
  return (
    <>
      {look?.dress && <ReachedContrast dress={look.dress} behind={behind} outlined />}
      {!behind &&
        look?.reasons.map((reason) => (
          <p key={reason.message} className="mt-1 text-concedes">
            {sentence(reason.message)}
            {reason.code === 'title-size' && look.dress?.fits && (
              <Button
                className="ml-2 h-6! px-2!"
                onClick={() => onDraft(withTitle(draft, { size: look.dress!.fits! }))}
              >
                {t('overlay.useFitsPx', { fits: look.dress.fits })}
              </Button>
            )}
          </p>
        ))}
      {trouble && (
        <p role="alert" className="mt-1 text-breaks">
          {trouble}
        </p>
      )}
    </>
  );
}

function Steps({
  like,
  changed,
  onDone,
  onNext,
  onEverywhere,
  onLeave,
}: {
  /** True where the picture has what the slot's rule says. */
  like: boolean;
  changed: boolean;
} & Ways) {
  return (
    <footer className="border-t border-line px-4 pt-2 pb-3">
      <p className="mb-1.5 text-small text-ink-2" data-testid="over-whose">
        {like ? t('overlay.asTheSlotsRuleSays') : t('overlay.forThisPictureOnlyForEvery')}
      </p>
      <div className="grid grid-cols-2 gap-1.5">
        <Button kind="main" className="h-7! justify-between! px-2!" onClick={onDone}>
          {t('overlay.done')} <Key>Enter</Key>
        </Button>
        <Button
          className="h-7! justify-between! px-2!"
          onClick={onNext}
          title={t('overlay.saveAndGoToTheNext')}
        >
          {t('overlay.nextPicture')} <Key>Ctrl Enter</Key>
        </Button>
        <Button
          className="h-7! px-2!"
          onClick={onEverywhere}
          disabled={!changed}
          title={t('overlay.changesTheSlotsRuleForIts')}
        >
          {t('overlay.forEveryPictureOfTheSlot')}
        </Button>
        <Button className="h-7! justify-between! px-2!" onClick={onLeave}>
          {t('overlay.cancel')} <Key>Esc</Key>
        </Button>
      </div>
    </footer>
  );
}
