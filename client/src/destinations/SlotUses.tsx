import { Link } from 'wouter';
import type { Destination } from '../api/client';
import { useSlotUses } from '../api/queries';
import { t } from '../texts/texts';

const most = 12;

/** The jobs that have slots of the book, each with how many, and the slots that none has. */
export function UsesOfAll({ destinations }: { destinations: readonly Destination[] }) {
  const { data: uses } = useSlotUses();
  if (!uses) return null;
  const jobs = new Map<string, { name: string; count: number }>();
  for (const { job, name } of uses) jobs.set(job, { name, count: (jobs.get(job)?.count ?? 0) + 1 });
  const used = new Set(uses.map((one) => one.slot));
  const unused = destinations.flatMap((one) =>
    one.slots
      .filter((slot) => !slot.retired && !used.has(`${one.key}/${slot.key}`))
      .map((slot) => `${slot.name} (${one.name})`),
  );
  return (
    <section className="mt-5" aria-label={t('destinations.jobsUseThem')}>
      <h3 className="font-semibold">{t('destinations.jobsUseThem')}</h3>
      <ul className="mt-1 border-t border-line">
        {[...jobs].slice(0, most).map(([id, { name, count }]) => (
          <li key={id} className="flex gap-3 border-b border-line py-1.5">
            <Link
              href={`/job/${id}`}
              className="min-w-0 flex-1 wrap-anywhere text-accent underline underline-offset-2"
            >
              {name}
            </Link>
            <span className="shrink-0 text-ink-2">{t('destinations.slotsUsed', { count })}</span>
          </li>
        ))}
      </ul>
      {unused.length > 0 && (
        <p className="mt-1.5 text-ink-2">
          {t('destinations.unusedSlots', { names: unused.slice(0, most).join(', ') })}
        </p>
      )}
    </section>
  );
}

/** The jobs that have one slot. */
export function UsesOfSlot({ address }: { address: string }) {
  const { data: uses } = useSlotUses();
  const mine = uses?.filter((one) => one.slot === address) ?? [];
  if (!uses) return null;
  return (
    <p className="border-b border-line px-5 py-1.5 text-small text-ink-2" data-testid="slot-uses">
      {mine.length === 0 ? t('destinations.usedByNoJob') : t('destinations.usedBy')}{' '}
      {mine.slice(0, most).map((one, i) => (
        <span key={one.job}>
          {i > 0 && ', '}
          <Link href={`/job/${one.job}`} className="text-accent underline underline-offset-2">
            {one.name}
          </Link>
        </span>
      ))}
    </p>
  );
}
