import { RichText } from '../texts/RichText';
import type { ResponsiveView, Visitors } from '../api/client';
import { Button } from '../design/Button';
import { count, trim, weight } from '../design/figures';
import { t } from '../texts/texts';

const box = 'h-6 w-full rounded-sm border border-line bg-sheet px-1 text-right';

/** Who comes, and what they load: against one file for all. */
export function VisitorsTable({
  view,
  visitors,
  onSet,
}: {
  view: ResponsiveView;
  visitors: readonly Visitors[];
  onSet: (next: readonly Visitors[] | null) => void;
}) {
  const all = visitors.reduce((sum, one) => sum + one.share, 0);
  const put = (at: number, change: Partial<Visitors>) =>
    onSet(visitors.map((one, i) => (i === at ? { ...one, ...change } : one)));
  return (
    <section aria-label={t('responsive.visitors')}>
      <Typical
        view={view}
        onAdd={() => onSet([...visitors, { viewport: 1280, density: 1, share: 5 }])}
        onReset={() => onSet(null)}
      />
      <table className="w-full table-fixed border-collapse bg-sheet">
        <thead>
          <tr className="border-b border-line text-right text-ink-2">
            {[
              t('responsive.windowPx'),
              t('responsive.screen'),
              t('responsive.share'),
              t('responsive.ofAll'),
              t('responsive.loadsPx'),
              t('responsive.unused'),
              t('responsive.weight'),
            ].map((name) => (
              <th key={name} className="px-2 py-1 font-normal">
                {name}
              </th>
            ))}
            <th className="w-10">
              <span className="sr-only">{t('responsive.remove')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {visitors.map((one, i) => (
            <Row
              key={i}
              row={i + 1}
              one={one}
              of={all}
              load={view.visitors[i]}
              onPut={(change) => put(i, change)}
              onRemove={visitors.length === 1 ? null : () => onSet(visitors.filter((_, at) => at !== i))}
            />
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What a visitor loads on average, against one file for all. */
function Typical({ view, onAdd, onReset }: { view: ResponsiveView; onAdd: () => void; onReset: () => void }) {
  return (
    <header className="mb-1 flex items-baseline gap-3">
      <h2>{t('responsive.typicalVisitor')}</h2>
      <p className="min-w-0 flex-1" data-testid="typical">
        {view.typical == null || view.oneFile == null ? (
          <span className="text-ink-2">{t('responsive.calculatedWhenTheFilesAreMade')}</span>
        ) : (
          <>
            <RichText
              text="responsive.typicalLoads"
              values={{
                loaded: weight(Math.round(view.typical)),
                bytes: weight(view.oneFile),
                times: trim(view.oneFile / Math.max(1, view.typical), 1),
              }}
              elements={{ b: <b className="font-semibold" /> }}
            />
          </>
        )}
      </p>
      <Button className="h-6!" onClick={onAdd}>
        {t('responsive.add')}
      </Button>
      <Button className="h-6!" onClick={onReset}>
        {t('responsive.resetToTheUsualMix')}
      </Button>
    </header>
  );
}

function Row({
  row,
  one,
  of,
  load,
  onPut,
  onRemove,
}: {
  row: number;
  one: Visitors;
  /** The shares of all together. */
  of: number;
  /** What these visitors load, where it is known. */
  load: ResponsiveView['visitors'][number] | undefined;
  onPut: (change: Partial<Visitors>) => void;
  /** Null for the last one. */
  onRemove: (() => void) | null;
}) {
  return (
    <tr className="border-b border-line text-right">
      {(['viewport', 'density', 'share'] as const).map((key) => (
        <td key={key} className="px-2 py-0.5">
          <input
            className={box}
            type="number"
            aria-label={t('responsive.fieldOfRow', { field: key, row })}
            min={key === 'viewport' ? 1 : key === 'density' ? 0.5 : 0}
            max={key === 'viewport' ? 20000 : key === 'density' ? 10 : 1000}
            step={key === 'density' ? 0.05 : 1}
            value={one[key]}
            onChange={(event) => {
              const value = event.target.valueAsNumber;
              const least = key === 'share' ? 0 : key === 'viewport' ? 1 : 0.01;
              if (value >= least && value <= (key === 'density' ? 10 : 20000))
                onPut({ [key]: key === 'viewport' ? Math.round(value) : value });
            }}
          />
        </td>
      ))}
      <td className="px-2 text-ink-2">{trim((100 * one.share) / Math.max(of, 1e-9), 0)} %</td>
      <td className="px-2">{load ? count(load.width) : ''}</td>
      <td className="px-2 text-ink-2">{load ? `${trim(load.waste * 100, 0)} %` : ''}</td>
      <td className="px-2">{load?.bytes == null ? '' : weight(load.bytes)}</td>
      <td className="px-1">
        <button
          type="button"
          className="px-1 text-ink-2 hover:text-ink disabled:opacity-40"
          aria-label={t('responsive.removeRow', { row })}
          disabled={!onRemove}
          onClick={onRemove ?? undefined}
        >
          ✕
        </button>
      </td>
    </tr>
  );
}
