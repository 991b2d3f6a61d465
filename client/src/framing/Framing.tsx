import type { Edges, JobCommand, JobPicture, JobSlot } from '../api/client';
import { CopySheet } from './CopySheet';
import { FramingPanel } from './FramingPanel';
import { MarksBar } from './MarksBar';
import { PictureStage } from './PictureStage';
import { useFraming } from './useFraming';
import { useFramingKeys } from './useFramingKeys';

/** The picture with its frames and marks, and beside it all slots. */
export function Framing({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const framing = useFraming(picture, slot);
  useFramingKeys(framing);
  const { store, decisions, send, setTool, setHeld, copying, setCopying } = framing;
  const id = picture.picture.id;
  const keep = (box: Edges, done: boolean) => {
    const kept: JobCommand[] = [{ do: 'add-keep-box', picture: id, box }];
    if (!done) return setHeld(kept);
    send(kept);
    setTool('frame');
  };
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_clamp(348px,31vw,396px)]">
      <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr]">
        <MarksBar framing={framing} />
        <PictureStage
          framing={framing}
          suggestion={decisions.suggestionRejected ? null : picture.suggestion}
          onKeep={keep}
          onFocus={(focus) => {
            send([{ do: 'set-focus', picture: id, focus }]);
            setTool('frame');
          }}
        />
      </div>
      <FramingPanel framing={framing} />
      {copying && (
        <CopySheet
          picture={{ ...picture, decisions }}
          slot={slot}
          onClose={() => setCopying(false)}
          onCopy={(pictures) => {
            setCopying(false);
            const to = pictures.map((other) => other.picture.id);
            void store.send([{ do: 'copy-framing', picture: id, to, slot: slot.address }]);
          }}
        />
      )}
    </div>
  );
}
