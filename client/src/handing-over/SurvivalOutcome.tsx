import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'wouter';
import { api, type Receiver, type ReceiverFile, type Survival, take } from '../api/client';
import { Button } from '../design/Button';
import { size } from '../design/figures';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

/** The slot's rule is made to ask for what survives. */
function useRuleThatSurvives(receiver: Receiver, file: ReceiverFile) {
  const store = useJobStore();
  const cache = useQueryClient();
  const [taken, setTaken] = useState<string | null>(null);
  const change = useMutation({
    mutationFn: async () => {
      const { slot, draft } = await take(
        api.GET('/api/jobs/{id}/deliveries/{receiver}/survival/rule', {
          params: { path: { id: store.id, receiver: receiver.id }, query: { path: file.path } },
        }),
      );
      const [destination = '', key = ''] = slot.split('/');
      await take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: { destination, slot: key } },
          body: draft,
        }),
      );
      return slot;
    },
    onSuccess: (slot) => {
      setTaken(slot);
      void cache.invalidateQueries({ queryKey: ['destinations'] });
    },
  });
  return { taken, change };
}

/** What it came to, and the step from there: the slot's rule asks for what survives. */
export function Outcome({
  view,
  receiver,
  file,
}: {
  view: Survival;
  receiver: Receiver;
  file: ReceiverFile;
}) {
  const { taken, change } = useRuleThatSurvives(receiver, file);
  if (view.best === null) return <p className="mt-3">{t('handingOver.nothingCanBeCompared')}</p>;
  const best = view.tried[view.best]!;
  const first = view.tried[0]?.shown?.likeness ?? null;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3" data-testid="survives">
      <p className="min-w-0 flex-1">
        {view.best === 0
          ? t('handingOver.theCurrentFileGivesTheBest')
          : best.shown?.isSame
            ? t('handingOver.atWidthAndQualityQualityThe', {
                width: size(best.size.width, best.size.height),
                quality: best.quality!,
              })
            : t('handingOver.everyFileIsRecompressedTheBest', {
                width: size(best.size.width, best.size.height),
                quality: best.quality!,
              })}
        {view.best > 0 &&
          first !== null &&
          best.shown?.likeness != null &&
          t('handingOver.likenessFirstBecomesLikeness', {
            first: first.toFixed(4),
            likeness: best.shown.likeness.toFixed(4),
          })}
        {!view.isThis && t('handingOver.theFileHasChangedSinceRun')}
      </p>
      {taken ? (
        <Link href={`/destinations/${taken}`} className="text-accent underline underline-offset-2">
          {t('handingOver.savedInTheSlotsRule')}
        </Link>
      ) : (
        view.best > 0 &&
        view.isThis &&
        (view.rule ? (
          <Button kind="main" onClick={() => change.mutate()} disabled={change.isPending}>
            {t('handingOver.saveThisInTheSlotsRule')}
          </Button>
        ) : (
          <p className="text-ink-2">{t('handingOver.theSlotHasSeveralSizesOr')}</p>
        ))
      )}
      {change.isError && (
        <p role="alert" className="w-full text-breaks">
          {change.error.message}
        </p>
      )}
    </div>
  );
}
