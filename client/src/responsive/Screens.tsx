import type { ResponsiveView, ViewportLoad } from '../api/client';
import { count, trim, weight } from '../design/figures';
import { densities, viewports } from './visitors';
import { t } from '../texts/texts';

/** Windows down, screens across: which file each takes, and how much of it is not used. */
export function Screens({
  view,
  at,
  onAt,
}: {
  view: ResponsiveView;
  /** The viewport that is drawn beside. */
  at: number;
  onAt: (viewport: number) => void;
}) {
  const bySlot = view.slots.length > 1;
  const name = (taken: ViewportLoad) =>
    view.slots.find((slot) => slot.slot.endsWith(`/${taken.slot}`))?.name ?? taken.slot;
  return (
    <table
      className="w-full table-fixed border-collapse bg-sheet"
      aria-label={t('responsive.whatEachScreenLoads')}
    >
      <thead>
        <tr className="border-b border-line text-left text-ink-2">
          <th className="w-28 px-3 py-1 font-normal">{t('responsive.window')}</th>
          {bySlot && <th className="px-3 py-1 font-normal">{t('responsive.slot')}</th>}
          <th className="w-24 px-3 py-1 text-right font-normal">{t('responsive.shown')}</th>
          {densities.map((density) => (
            <th key={density} className="px-3 py-1 font-normal">
              {t('responsive.screenDensityX', { density })}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {viewports.map((viewport, row) => {
          const mine = view.grid.slice(row * densities.length, (row + 1) * densities.length);
          const first = mine[0];
          if (!first) return null;
          return (
            <tr
              key={viewport}
              aria-current={viewport === at}
              className={`cursor-pointer border-b border-line ${viewport === at ? 'bg-sheet-2' : 'hover:bg-sheet-2'}`}
              onClick={() => onAt(viewport)}
            >
              <th className="px-3 py-1.5 text-left font-semibold">
                {t('responsive.viewportPx', { viewport: count(viewport) })}
              </th>
              {bySlot && <td className="wrap-anywhere px-3 text-ink-2">{name(first)}</td>}
              <td className="px-3 text-right text-ink-2">
                {t('responsive.shownPx', { shown: count(first.shown) })}
              </td>
              {mine.map((taken) => (
                <Taken key={taken.density} taken={taken} />
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The file as a bar: what is used of it, and hatched what is not. */
function Taken({ taken }: { taken: ViewportLoad }) {
  const short = taken.needed > taken.width;
  const words = short
    ? t('responsive.neededPxNeededNoLargerFile', { needed: count(taken.needed) })
    : t('responsive.neededPxNeeded', { needed: count(taken.needed) });
  return (
    <td
      className="px-3 py-1"
      title={`${words}${taken.bytes == null ? '' : `, ${weight(taken.bytes)}`}`}
      data-screen={`${taken.viewport}@${taken.density}`}
      data-takes={taken.width}
    >
      <span className="flex items-baseline justify-between gap-2">
        <span className="font-medium">{count(taken.width)}</span>
        <span className="text-small text-ink-2">
          {short
            ? t('responsive.ofNeeded', { needed: count(taken.needed) })
            : taken.waste === 0
              ? t('responsive.exact')
              : t('responsive.wasteUnused', { waste: trim(taken.waste * 100, 0) })}
        </span>
      </span>
      <span className="mt-0.5 flex h-1.5" aria-hidden>
        <span className="bg-ink-2" style={{ width: `${(1 - taken.waste) * 100}%` }} />
        <span
          className="transparent-ground flex-1 border-y border-r border-ink-2"
          hidden={taken.waste === 0}
        />
      </span>
    </td>
  );
}
