import type { VirtualItem } from '@tanstack/react-virtual';
import type { JobSlot } from '../api/client';
import { needs } from '../design/needs';
import { type ColumnSpan, spanWords } from '../domain/columns';
import { headWidth } from './BenchRow';
import { headHeight, sizeWords } from './layout';

/** The line that says what columns have in common. */
const lineHeight = 17;

/** The head over columns that stand together: their destination where it begins, and their group or shape. A click chooses them. */
export function SpanHead({
  span,
  left,
  width,
  onSelect,
}: {
  span: ColumnSpan;
  /** From the first column's edge, in pixels. */
  left: number;
  width: number;
  onSelect: () => void;
}) {
  const words = spanWords(span);
  return (
    <div
      role={words ? 'columnheader' : 'presentation'}
      aria-colindex={words ? span.first + 2 : undefined}
      aria-colspan={words ? span.count : undefined}
      className={`absolute top-0 border-l ${span.destination ? 'border-ink-2' : 'border-line'}`}
      style={{ left: headWidth + left, width, height: headHeight }}
    >
      {words && (
        <button
          type="button"
          tabIndex={-1}
          onClick={onSelect}
          title={words}
          className={`flex w-full items-end px-2 text-left text-note leading-[15px] text-ink-2 hover:bg-sheet-2 ${span.count > 1 ? 'border-b border-line' : ''}`}
          style={{ height: lineHeight }}
        >
          {/* It stays in view while its columns are scrolled. */}
          <span className="sticky max-h-[15px] overflow-hidden" style={{ left: headWidth + 8 }}>
            {words}
          </span>
        </button>
      )}
    </div>
  );
}

/** The head of a column: the slot and its size. A click chooses the column. */
export function SlotHead({
  slot,
  span,
  column,
  onSelect,
}: {
  slot: JobSlot;
  /** The head that it stands under. */
  span: ColumnSpan;
  column: VirtualItem;
  onSelect: () => void;
}) {
  return (
    <div
      role="columnheader"
      aria-colindex={column.index + 2}
      className={`absolute bottom-0 ${column.index > span.first ? 'border-l border-line/60' : ''}`}
      style={{ left: headWidth + column.start, width: column.size, height: headHeight - lineHeight }}
    >
      <button
        type="button"
        tabIndex={-1}
        title={`${slot.destinationName}: ${slot.slot.name}, ${needs(slot.slot)}`}
        onClick={onSelect}
        className="flex h-full w-full flex-col justify-end px-2 pb-0.5 text-left hover:bg-sheet-2"
      >
        <span className="max-h-[28px] w-full overflow-hidden leading-[14px] font-medium text-balance wrap-anywhere">
          {slot.slot.name}
        </span>
        <span className="max-h-[15px] w-full shrink-0 overflow-hidden text-note leading-[15px] text-ink-2">
          {sizeWords(slot, span)}
        </span>
      </button>
    </div>
  );
}
