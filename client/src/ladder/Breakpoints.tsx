import type { LadderSlot } from '../api/client';
import { count } from '../design/figures';

const [from, to] = [320, 1920];
const at = (viewport: number) => `${(100 * (Math.min(to, Math.max(from, viewport)) - from)) / (to - from)}%`;

/** Windows from narrow to wide on one line: which slot of the group stands where, and where they change. */
export function Breakpoints({ slots, viewport }: { slots: readonly LadderSlot[]; viewport: number }) {
  const spans = slots
    .flatMap((slot) => slot.shownAt.map((span) => ({ slot, ...span })))
    .filter((span) => span.from <= to && span.to >= from)
    .toSorted((a, b) => a.from - b.from);
  return (
    <div
      className="relative h-11"
      role="img"
      aria-label={spans.map((span) => `${span.slot.name} from ${span.from} px`).join(', ')}
    >
      {spans.map((span, i) => (
        <div
          key={span.from}
          className={`absolute top-0 h-6 truncate border border-ink-2 px-2 leading-[22px] ${i % 2 ? 'bg-sheet-2' : 'bg-sheet'}`}
          style={{ left: at(span.from), width: `calc(${at(span.to + 1)} - ${at(span.from)})` }}
        >
          {span.slot.name}
        </div>
      ))}
      {[from, ...spans.slice(1).map((span) => span.from), to].map((mark, i, all) => (
        <span
          key={mark}
          className={`absolute top-7 text-[12px] whitespace-nowrap text-ink-2 ${i === 0 ? '' : i === all.length - 1 ? '-translate-x-full' : '-translate-x-1/2'}`}
          style={{ left: at(mark) }}
        >
          {count(mark)}
        </span>
      ))}
      <span className="absolute -top-1 h-8 w-0.5 bg-accent" style={{ left: at(viewport) }} />
    </div>
  );
}
