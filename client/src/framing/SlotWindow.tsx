import { memo } from 'react';
import { addresses } from '../api/client';
import { Covered } from '../design/Covered';
import { windows } from '../design/needs';
import { VerdictMark } from '../design/VerdictMark';
import { around, caption } from './arranged';
import type { Standing } from '../design/standing';
import { t } from '../texts/texts';
import { type FrameInHand, useWindowGestures } from './useWindowGestures';

interface Props extends FrameInHand {
  width: number;
  height: number;
  /** How high its place is without the caption, whatever is drawn in it. */
  place: number;
  unlinked: boolean;
  skipped: boolean;
  verdict: Standing;
  toReview: boolean;
  /** The file as it was made, where something is drawn over the picture and no hand is on the frame. */
  made: string | null;
  onPoint: (address: string | null) => void;
}

/** A slot's own window onto the picture: what will be delivered, in its shape. Dragging moves what is seen. */
export const SlotWindow = memo(function SlotWindow(props: Props) {
  const { slot, width, height, place, active, skipped, made, onPoint } = props;
  const address = slot.address;
  return (
    <li
      data-slot={address}
      className={`relative min-w-0 ${active ? 'bg-sheet-2' : ''}`}
      style={{ padding: around / 2, minHeight: caption + place + around }}
      onPointerEnter={() => onPoint(address)}
      onPointerLeave={() => onPoint(null)}
    >
      <Caption {...props} />
      <div
        className={`relative z-10 grid place-items-center bg-white ${active ? 'outline-2 outline-accent' : 'outline-1 outline-ink-2'} ${skipped ? 'opacity-35' : ''}`}
        style={{ width, height }}
      >
        <View {...props} />
        {made && (
          <img
            src={addresses.small(made)}
            alt=""
            draggable={false}
            data-testid="dressed"
            className="pointer-events-none absolute inset-0 h-full w-full object-fill select-none"
          />
        )}
        <Covered clear={slot.slot.clear} />
      </div>
    </li>
  );
}, same);

function Caption({ slot, active, skipped, unlinked, toReview, verdict, onActive }: Props) {
  return (
    <button
      type="button"
      onClick={() => onActive(slot.address)}
      aria-pressed={active}
      title={[slot.slot.name, slot.destinationName, slot.slot.group != null ? windows(slot.slot) : '']
        .filter(Boolean)
        .join(', ')}
      // The place is larger than the window in it: a click beside the window means the same as one on the name.
      className="flex w-full items-center gap-1 text-left text-small leading-none after:absolute after:inset-0"
      style={{ height: caption }}
    >
      <VerdictMark verdict={skipped ? 'skipped' : verdict} />
      <span className={`min-w-0 wrap-anywhere ${active ? 'font-semibold' : ''}`}>{slot.slot.name}</span>
      {(skipped || unlinked || toReview) && (
        <span className="shrink-0 text-ink-2">
          {skipped ? (
            slot.slot.pair ? (
              t('framing.sideBySide')
            ) : (
              t('framing.skipped')
            )
          ) : toReview ? (
            <b className="font-semibold text-concedes">{t('framing.review')}</b>
          ) : (
            t('framing.unlinked')
          )}
        </span>
      )}
    </button>
  );
}

/** The part of the picture that the frame holds. */
function View({ picture, slot, box, width, height, active, onActive, onHold, onCommit }: Props) {
  const scale = Math.min(width / box.width, height / box.height);
  const { target, drag } = useWindowGestures({
    picture,
    slot,
    box,
    scale,
    active,
    onActive,
    onHold,
    onCommit,
  });
  return (
    <div
      ref={target}
      {...drag()}
      className={`relative cursor-grab touch-none overflow-hidden active:cursor-grabbing ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
      style={{ width: box.width * scale, height: box.height * scale }}
      data-testid={active ? 'slot-window' : undefined}
    >
      <img
        src={addresses.preview(picture.picture.id, picture.shown, 1800)}
        alt=""
        draggable={false}
        className="absolute top-0 left-0 max-w-none origin-top-left bg-cover select-none"
        style={{
          backgroundImage: picture.picture.hasAlpha
            ? undefined
            : `url(${addresses.preview(picture.picture.id, picture.shown, 480)})`,
          width: picture.width * scale,
          height: picture.height * scale,
          transform: `translate(${-box.x * scale}px, ${-box.y * scale}px)`,
        }}
      />
    </div>
  );
}

/** Boxes are made again with every frame of a drag; only what moved is drawn again. */
function same(before: Props, after: Props): boolean {
  return (Object.keys(after) as (keyof Props)[]).every((key) =>
    key === 'box'
      ? before.box.x === after.box.x &&
        before.box.y === after.box.y &&
        before.box.width === after.box.width &&
        before.box.height === after.box.height
      : before[key] === after[key],
  );
}
