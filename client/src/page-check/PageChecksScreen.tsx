import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'wouter';
import { addresses, api, type PageCheck, take } from '../api/client';
import { usePageChecks } from '../api/queries';
import { Button } from '../design/Button';
import { weight } from '../design/figures';
import { ScreensDrawing } from '../design/Drawings';
import { EmptyState } from '../design/EmptyState';
import { Notice } from '../design/Notice';
import { AddPage } from './AddPage';
import { type CheckOrder, gainOf, inOrder } from './checkOrder';
import { progressWords } from './progress';
import type { usePageIntake } from './usePageIntake';
import { list } from '../texts/numbers';
import { t } from '../texts/texts';

/** The pages that were measured; another one is the next step. */
export function PageChecksScreen({ intake }: { intake: ReturnType<typeof usePageIntake> }) {
  const checks = usePageChecks();
  const cache = useQueryClient();
  const [order, setOrder] = useState<CheckOrder>('newest');
  const remove = useMutation({
    mutationFn: (id: string) => take(api.DELETE('/api/page-checks/{id}', { params: { path: { id } } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['page-checks'] }),
  });
  if (checks.isPending) return <Notice>{t('pageCheck.loadingThePages')}</Notice>;
  if (checks.isError)
    return (
      <Notice action={<Button onClick={() => void checks.refetch()}>{t('pageCheck.tryAgain')}</Button>}>
        {checks.error.message}
      </Notice>
    );
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-head">{t('pageCheck.pageChecks')}</h1>
        <span className="text-ink-2">{t('pageCheck.aPageCheckOpensAPage')}</span>
        {checks.data.length > 1 && (
          <select
            value={order}
            onChange={(event) => setOrder(event.target.value as CheckOrder)}
            aria-label={t('pageCheck.order')}
            className="ml-auto h-8 rounded-md border border-line bg-sheet px-2"
          >
            <option value="newest">{t('pageCheck.newestFirst')}</option>
            <option value="gain">{t('pageCheck.mostToGainFirst')}</option>
          </select>
        )}
      </header>
      <AddPage intake={intake} />
      {checks.data.length === 0 ? (
        <EmptyState
          drawing={<ScreensDrawing />}
          title={t('pageCheck.whatAPageLoads')}
          steps={[
            t('pageCheck.firstEnterAnAddress'),
            t('pageCheck.thenItIsOpened'),
            t('pageCheck.thenMakeWhatIsEnough'),
          ]}
        />
      ) : (
        <ul className="mt-4 flex flex-col border-t border-line bg-sheet">
          {inOrder(checks.data, order).map((check) => (
            <CheckLine key={check.id} check={check} onRemove={() => remove.mutate(check.id)} />
          ))}
        </ul>
      )}
    </div>
  );
}

function CheckLine({ check, onRemove }: { check: PageCheck; onRemove: () => void }) {
  return (
    <li className="grid grid-cols-[120px_minmax(180px,1fr)_minmax(260px,360px)_auto] items-center gap-6 border-b border-line px-4 py-3 max-[900px]:grid-cols-[minmax(0,1fr)] max-[900px]:gap-2">
      {check.state === 'done' ? (
        <Link href={`/page-checks/${check.id}`} tabIndex={-1} aria-hidden>
          <img
            src={addresses.pageShot(check.id, check.viewports[0]!, check.addedAt)}
            alt=""
            loading="lazy"
            decoding="async"
            className="h-[75px] w-[120px] border border-line object-cover object-top"
          />
        </Link>
      ) : (
        <span className="h-[75px] w-[120px] border border-dashed border-line" />
      )}
      <Link href={`/page-checks/${check.id}`} className="group min-w-0">
        <span className="block wrap-anywhere text-head font-semibold group-hover:underline">
          {check.name}
        </span>
        <span className="block text-ink-2">
          {t('pageCheck.viewportsPxAtDensities', {
            viewports: check.viewports.join(', '),
            densities: list(check.densities.map((one) => `${one}x`)),
          })}
        </span>
      </Link>
      <span>
        {check.state === 'done' && check.mean != null && check.possible != null && check.images != null ? (
          <>
            <span className="block font-semibold">
              {gainOf(check) > 0
                ? t('pageCheck.toGain', { gain: weight(gainOf(check)) })
                : t('pageCheck.nothingToGain')}
            </span>
            <span className="block text-ink-2">
              {t('pageCheck.meanLoadedPerScreenPossibleWould', {
                mean: weight(check.mean),
                possible: weight(check.possible),
              })}
              {' · '}
              {t('common.pictures', { count: check.images })}
            </span>
          </>
        ) : (
          <span className={check.state === 'failed' ? 'text-breaks' : 'text-ink-2'}>
            {progressWords(check)}
          </span>
        )}
      </span>
      <Button
        needs="checkPages"
        onClick={onRemove}
        aria-label={t('pageCheck.removeName', { name: check.name })}
      >
        {t('pageCheck.remove')}
      </Button>
    </li>
  );
}
