import { useDrag, useGesture } from '@use-gesture/react';
import { memo, useEffect, useRef } from 'react';
import { addresses, type JobPicture, type JobSlot, type Verdict } from '../api/client';
import { Covered } from '../design/Covered';
import { windows } from '../design/needs';
import { VerdictMark } from '../design/VerdictMark';
import { around, caption } from './arranged';
import { type Box, moved, zoomed } from '../domain/box';
import { t } from '../texts/texts';

const settleAfter = 220;

interface Props {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  width: number;
  height: number;
  active: boolean;
  unlinked: boolean;
  skipped: boolean;
  verdict: Verdict;
  wants: boolean;
  /** The file as it was made, where something is drawn over the picture and no hand is on the frame. */
  made: string | null;
  onPoint: (address: string | null) => void;
  onActive: (address: string) => void;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
}

/** A slot's own window onto the picture: what will be delivered, in its shape. Dragging moves what is seen. */
export const SlotWindow = memo(function SlotWindow({
  picture,
  slot,
  box,
  width,
  height,
  active,
  unlinked,
  skipped,
  verdict,
  wants,
  made,
  onPoint,
  onActive,
  onHold,
  onCommit,
}: Props) {
  const address = slot.address;
  const scale = Math.min(width / box.width, height / box.height);
  const content = { width: box.width * scale, height: box.height * scale };
  const start = useRef(box);
  const latest = useRef(box);
  const settle = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    latest.current = box;
  });
  useEffect(() => () => clearTimeout(settle.current), []);
  const target = useRef<HTMLDivElement>(null);
  const drag = useDrag(
    ({ first, last, movement: [mx, my] }) => {
      if (first) {
        start.current = latest.current;
        onActive(address);
      }
      if (mx === 0 && my === 0) return;
      const next = moved(start.current, -mx / scale, -my / scale, picture);
      if (last) onCommit(address, next);
      else onHold(address, next);
    },
    { threshold: 0, pointer: { keys: false } },
  );
  const tighten = (factor: number, clientX: number, clientY: number) => {
    const edges = target.current!.getBoundingClientRect();
    const at = {
      x: latest.current.x + (clientX - edges.left) / scale,
      y: latest.current.y + (clientY - edges.top) / scale,
    };
    const next = zoomed(latest.current, factor, at, picture, slot.slot.ratio);
    latest.current = next;
    onHold(address, next);
    clearTimeout(settle.current);
    settle.current = setTimeout(() => onCommit(address, next), settleAfter);
  };
  useGesture(
    {
      onWheel: ({ event, delta: [, dy] }) => {
        // Without a key the wheel scrolls the list of slots; over the active slot it tightens.
        if (!active || event.ctrlKey || dy === 0) return;
        event.preventDefault();
        tighten(Math.exp(dy * 0.0012), event.clientX, event.clientY);
      },
      onPinch: ({ origin: [x, y], delta: [factor] }) => factor !== 0 && tighten(Math.exp(-factor), x, y),
    },
    { target, eventOptions: { passive: false } },
  );
  return (
    <li
      data-slot={address}
      className={`min-w-0 ${active ? 'bg-sheet-2' : ''}`}
      style={{ padding: around / 2 }}
      onPointerEnter={() => onPoint(address)}
      onPointerLeave={() => onPoint(null)}
    >
      <button
        type="button"
        onClick={() => onActive(address)}
        aria-pressed={active}
        title={[slot.slot.name, slot.destinationName, slot.slot.group != null ? windows(slot.slot) : '']
          .filter(Boolean)
          .join(', ')}
        className="flex w-full items-center gap-1 text-left text-note leading-none"
        style={{ height: caption }}
      >
        <VerdictMark verdict={skipped ? 'skipped' : verdict} />
        <span className={`min-w-0 truncate ${active ? 'font-semibold' : ''}`}>{slot.slot.name}</span>
        {(skipped || unlinked || wants) && (
          <span className="shrink-0 text-ink-2">
            {skipped ? (
              slot.slot.pair ? (
                t('framing.sideBySide')
              ) : (
                t('framing.skipped')
              )
            ) : wants ? (
              <b className="font-semibold text-concedes">{t('framing.review')}</b>
            ) : (
              t('framing.unlinked')
            )}
          </span>
        )}
      </button>
      <div
        className={`relative grid place-items-center bg-white ${active ? 'outline-2 outline-accent' : 'outline-1 outline-ink-2'} ${skipped ? 'opacity-35' : ''}`}
        style={{ width, height }}
      >
        <div
          ref={target}
          {...drag()}
          className={`relative cursor-grab touch-none overflow-hidden active:cursor-grabbing ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
          style={content}
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
