import type { VirtualItem } from '@tanstack/react-virtual';
import type { JobSlot } from '../api/client';
import { needs } from '../design/needs';
import { headWidth } from './BenchRow';
import { aboveName, shapeWords } from './layout';

/** The head of a column: the slot, its destination where that begins, and its shape. A click chooses the column. */
export function SlotHead({
  slot,
  before,
  column,
  onSelect,
}: {
  slot: JobSlot;
  /** The slot of the column before; undefined in the first one. */
  before: JobSlot | undefined;
  column: VirtualItem;
  onSelect: () => void;
}) {
  const first = before?.destination !== slot.destination;
  return (
    <div
      role="columnheader"
      aria-colindex={column.index + 2}
      className={`absolute top-0 h-full ${first ? 'border-l border-ink-2' : 'border-l border-line'}`}
      style={{ left: headWidth + column.start, width: column.size }}
    >
      <button
        type="button"
        tabIndex={-1}
        title={`${slot.destinationName}: ${slot.slot.name}, ${needs(slot.slot)}`}
        onClick={onSelect}
        className="flex h-full w-full flex-col justify-end px-2 pb-0.5 text-left hover:bg-sheet-2"
      >
        <span className="max-h-[15px] w-full shrink-0 overflow-hidden text-note leading-[15px] text-ink-2">
          {aboveName(slot, before) || '\u00a0'}
        </span>
        <span className="max-h-[30px] w-full overflow-hidden leading-[15px] font-medium text-balance wrap-anywhere">
          {slot.slot.name}
        </span>
        <span className="max-h-[15px] w-full shrink-0 overflow-hidden text-note leading-[15px] text-ink-2">
          {shapeWords(slot)}
        </span>
      </button>
    </div>
  );
}
