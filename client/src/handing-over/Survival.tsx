import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, type Receiver, type ReceiverFile, type Survival, take } from '../api/client';
import { useSurvival } from '../api/queries';
import { Button } from '../design/Button';
import { sentence, size, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { Sheet } from '../design/Sheet';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { alikeWords } from './deliveries';
import { Outcome } from './SurvivalOutcome';

// About so many are tried: the file, its size, and the qualities by halving.
const about = 8;

/** Which file a receiver that makes its own copies shows best, found by trying on its test receiver. */
export function SurvivalSheet({ receiver, file }: { receiver: Receiver; file: ReceiverFile }) {
  return (
    <Sheet
      title={t('handingOver.whatSurvivesRecompression')}
      width="wide"
      trigger={<Button>{t('handingOver.whatSurvives')}</Button>}
    >
      <Inside receiver={receiver} file={file} />
    </Sheet>
  );
}

function Inside({ receiver, file }: { receiver: Receiver; file: ReceiverFile }) {
  const store = useJobStore();
  const cache = useQueryClient();
  const found = useSurvival(store.id, receiver.id, file.path);
  const asked = { params: { path: { id: store.id, receiver: receiver.id }, query: { path: file.path } } };
  const ask = useMutation({
    mutationFn: () => take(api.POST('/api/jobs/{id}/deliveries/{receiver}/survival', asked)),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['survival'] }),
  });
  const view = found.data;
  return (
    <div className="mt-2">
      <p className="max-w-[70ch] text-ink-2">
        {t('handingOver.nameMakesItsOwnCopiesOf', { name: receiver.rule.name })}
      </p>
      {found.isError && (
        <p role="alert" className="mt-3 text-breaks">
          {found.error.message}
        </p>
      )}
      {ask.isError && (
        <p role="alert" className="mt-3 text-breaks">
          {ask.error.message}
        </p>
      )}
      {view?.trouble && (
        <p role="alert" className="mt-3 text-breaks">
          {sentence(view.trouble)}
        </p>
      )}
      {view && view.tried.length > 0 && <Tried view={view} />}
      {view?.state === 'waiting' && (
        <ProgressBar
          label={t('handingOver.trials')}
          done={view.tried.length}
          of={about}
          className="mt-3 w-full"
        />
      )}
      {view?.state === 'done' && <Outcome view={view} receiver={receiver} file={file} />}
      {view?.state !== 'waiting' && (
        <Button
          kind={view ? 'plain' : 'main'}
          className="mt-3"
          disabled={ask.isPending || found.isPending}
          onClick={() => ask.mutate()}
        >
          {view ? t('handingOver.tryAgain') : t('handingOver.runTrials')}
        </Button>
      )}
    </div>
  );
}

function Tried({ view }: { view: Survival }) {
  return (
    <table className="mt-3 w-full border-collapse" data-testid="tried">
      <thead className="text-left text-ink-2">
        <tr>
          <th className="py-1 font-normal">{t('handingOver.delivered')}</th>
          <th className="text-right font-normal">{t('handingOver.quality')}</th>
          <th className="text-right font-normal">{t('handingOver.weight')}</th>
          <th className="pl-6 font-normal">{t('handingOver.shown')}</th>
          <th className="text-right font-normal">{t('handingOver.weight')}</th>
          <th className="pl-6 font-normal">{t('handingOver.likenessToTheOriginal')}</th>
        </tr>
      </thead>
      <tbody>
        {view.tried.map((one, at) => (
          <tr
            key={`${one.size.width} ${one.quality}`}
            className={`border-t border-line ${at === view.best ? 'bg-sheet-2 font-semibold' : ''}`}
          >
            <td className="py-1">
              {size(one.size.width, one.size.height)}
              {at === 0 && <span className="font-normal text-ink-2"> {t('handingOver.asItIs')}</span>}
            </td>
            <td className="text-right">{one.quality ?? ''}</td>
            <td className="text-right">{weight(one.bytes)}</td>
            <td className="pl-6">
              {one.shown === null
                ? ''
                : one.shown.isSame
                  ? t('handingOver.unchanged')
                  : one.shown.width !== null && one.shown.height !== null
                    ? size(one.shown.width, one.shown.height)
                    : ''}
            </td>
            <td className="text-right">{one.shown?.bytes == null ? '' : weight(one.shown.bytes)}</td>
            <td className="pl-6">{one.shown && alikeWords(one.shown, 4)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
