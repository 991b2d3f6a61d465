import { count } from './figures';
import { t } from '../texts/texts';

const [from, to] = [320, 1920];
const at = (viewport: number) => `${(100 * (Math.min(to, Math.max(from, viewport)) - from)) / (to - from)}%`;

/** A slot of a group and the windows at which it is shown. */
interface Shown {
  name: string;
  shownAt: readonly { from: number; to: number }[];
}

/** What tells names apart: without the words that all of them begin with. */
function apart(names: readonly string[]): readonly string[] {
  const words = names.map((name) => name.split(' '));
  let same = 0;
  while (
    new Set(names).size > 1 &&
    words.every((one) => one.length > same + 1 && one[same] === words[0]![same])
  )
    same++;
  return words.map((one) => one.slice(same).join(' '));
}

/** Windows from narrow to wide on one line: which slot of the group stands where, and where they change. */
export function Breakpoints<T extends Shown>({
  slots,
  viewport,
  active,
  onPick,
}: {
  slots: readonly T[];
  /** The window that is looked at. */
  viewport?: number;
  /** The slot in hand. */
  active?: T;
  onPick?: (slot: T) => void;
}) {
  const spans = slots
    .flatMap((slot) => slot.shownAt.map((span) => ({ slot, ...span })))
    .filter((span) => span.from <= to && span.to >= from)
    .toSorted((a, b) => a.from - b.from);
  const short = apart(spans.map((span) => span.slot.name));
  const names = spans
    .map((span) => t('common.startsAt', { name: span.slot.name, from: span.from }))
    .join(', ');
  return (
    <div className="relative h-11" role={onPick ? 'group' : 'img'} aria-label={names}>
      {spans.map((span, i) => {
        const place = {
          title: t('common.slotStartsAt', { name: span.slot.name, from: count(span.from) }),
          className: `absolute top-0 h-6 truncate border border-ink-2 px-2 text-left leading-[22px] ${
            span.slot === active ? 'z-10 font-semibold outline-2 -outline-offset-1 outline-accent' : ''
          } ${i % 2 ? 'bg-sheet-2' : 'bg-sheet'}`,
          style: { left: at(span.from), width: `calc(${at(span.to + 1)} - ${at(span.from)})` },
          children: short[i],
        };
        return onPick ? (
          <button key={span.from} type="button" onClick={() => onPick(span.slot)} {...place} />
        ) : (
          <div key={span.from} {...place} />
        );
      })}
      {[from, ...spans.slice(1).map((span) => span.from), to].map((mark, i, all) => (
        <span
          key={mark}
          className={`absolute top-7 text-small whitespace-nowrap text-ink-2 ${i === 0 ? '' : i === all.length - 1 ? '-translate-x-full' : '-translate-x-1/2'}`}
          style={{ left: at(mark) }}
        >
          {count(mark)}
        </span>
      ))}
      {viewport != null && (
        <span className="absolute -top-1 h-8 w-0.5 bg-accent" style={{ left: at(viewport) }} />
      )}
    </div>
  );
}
