import type { ReactNode } from 'react';
import type { Destination } from '../api/client';
import { Key } from '../design/Button';
import { files, size, trim, weight } from '../design/figures';
import { typeNames } from '../design/typeNames';
import { t } from '../texts/texts';
import { summaryOf } from './ruleSummary';
import { UsesOfAll } from './SlotUses';

const percent = (share: number) => `${trim(100 * share, 1)} %`;

/** While no slot is chosen: what all rules together make of one picture, and where two could be one. */
export function RulesAsAWhole({ destinations }: { destinations: readonly Destination[] }) {
  const summary = summaryOf(destinations);
  const { smallest, largest, nearlyAlike } = summary;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-5 py-4">
      <h2 className="text-head">{t('destinations.allRules')}</h2>
      <p className="mt-1 text-ink-2">{t('destinations.chooseASlotToSeeAnd')}</p>
      {smallest && largest && (
        <dl className="mt-4 border-t border-line">
          <Line name={t('destinations.slotsInUse')}>
            {t('destinations.slotsOfDestinations', {
              slots: summary.slots,
              destinations: summary.destinations,
            })}
          </Line>
          <Line name={t('destinations.onePictureBecomes')}>
            {files(summary.files)}
            {summary.bytes > 0 && t('destinations.ofAtMost', { bytes: weight(summary.bytes) })}
            {summary.unlimited > 0 && t('destinations.withoutALimit', { unlimited: summary.unlimited })}
          </Line>
          <Line name={t('destinations.smallestSlot')}>
            {smallest.name}, {size(smallest.width, smallest.height)}
          </Line>
          <Line name={t('destinations.largestSlot')}>
            {largest.name}, {size(largest.width, largest.height)}
          </Line>
          <Line name={t('destinations.fileTypes')}>
            {summary.types
              .map(([type, count]) =>
                t('destinations.typeInSlots', {
                  type: typeNames[type],
                  count,
                }),
              )
              .join(', ')}
          </Line>
        </dl>
      )}
      {nearlyAlike.length > 0 && (
        <section className="mt-5" aria-label={t('destinations.nearlyAlike')}>
          <h3 className="font-semibold">{t('destinations.nearlyAlike')}</h3>
          <p className="text-ink-2">{t('destinations.oneCouldDoForBoth')}</p>
          <ul className="mt-1 border-t border-line">
            {nearlyAlike.slice(0, 12).map(({ one, other, shape, width }) => (
              <li key={`${one}|${other}`} className="border-b border-line py-1.5">
                {t('destinations.oneAndOther', { one, other })}
                <span className="block text-small text-ink-2">
                  {t('destinations.shapeDiffersByWidthBy', {
                    shape: percent(shape),
                    width: percent(width),
                  })}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <UsesOfAll destinations={destinations} />
      <p className="mt-5 text-ink-2">
        <span className="sr-only">{t('destinations.shortcuts')}</span> <Key>B</Key> {t('destinations.back')}
      </p>
    </div>
  );
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[140px_1fr] gap-3 border-b border-line py-1.5">
      <dt className="text-ink-2">{name}</dt>
      <dd className="wrap-anywhere">{children}</dd>
    </div>
  );
}
