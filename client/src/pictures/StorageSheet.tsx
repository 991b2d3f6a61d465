import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take } from '../api/client';
import { useMay } from '../api/me';
import { Button } from '../design/Button';
import { files, typedNumber, weight } from '../design/figures';
import { Sheet } from '../design/Sheet';
import { useDraft } from '../design/useDraft';
import { Backups } from './Backups';
import { Integrity } from './Integrity';
import { t } from '../texts/texts';

const megabyte = 1_000_000;
const second = 1000;

/** How much lies in the data folder and for what, and how much is kept of files that no job wants any more. */
export function StorageSheet() {
  return useMay('administer') ? <OwnersStorage /> : null;
}

function OwnersStorage() {
  return (
    <Sheet title={t('pictures.storageOnThisMachine')} trigger={<Button>{t('pictures.storage')}</Button>}>
      <Storage />
    </Sheet>
  );
}

function Storage() {
  const cache = useQueryClient();
  const storage = useQuery({
    queryKey: ['storage'],
    queryFn: ({ signal }) => take(api.GET('/api/storage', { signal })),
    staleTime: 0,
    refetchInterval: ({ state }) =>
      state.data && state.data.integrity.checked < state.data.integrity.of ? second : false,
  });
  const set = useMutation({
    mutationFn: (mostUnwanted: number) => take(api.PUT('/api/storage', { body: { mostUnwanted } })),
    onSuccess: (now) => cache.setQueryData(['storage'], now),
  });
  const collect = useMutation({
    mutationFn: () => take(api.POST('/api/storage/collect')),
    onSuccess: () => cache.invalidateQueries({ queryKey: ['storage'] }),
  });
  const fault = storage.error ?? set.error ?? collect.error;
  if (!storage.data) return <p className="my-4 text-ink-2">{fault?.message ?? t('pictures.calculating')}</p>;
  const { originals, wanted, unwanted, previews, mostUnwanted, integrity } = storage.data;
  return (
    <>
      <dl className="mt-4 grid grid-cols-[1fr_auto] border-t border-line">
        <Row name={t('pictures.originalsNeverChanged')} bytes={originals} />
        <Row name={t('pictures.filesOfJobs')} bytes={wanted} />
        <Row name={t('pictures.previews')} bytes={previews} />
        <Row name={t('pictures.unusedFiles')} bytes={unwanted} />
      </dl>
      <p className="mt-4 text-ink-2">{t('pictures.unusedFilesRemainAfterAFrame')}</p>
      <div className="mt-3 flex items-center gap-2">
        <MostField value={mostUnwanted} onSet={(bytes) => set.mutate(bytes)} />
        <span className="flex-1" />
        <Button disabled={unwanted === 0 || collect.isPending} onClick={() => collect.mutate()}>
          {t('pictures.deleteUnusedFiles')}
        </Button>
      </div>
      {collect.data && (
        <p className="mt-2 text-ink-2" role="status">
          {collect.data.files === 0
            ? t('pictures.nothingWasDeletedFilesOfThe')
            : t('pictures.filesDeletedBytes', {
                files: files(collect.data.files),
                bytes: weight(collect.data.bytes),
              })}
        </p>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
      <Integrity integrity={integrity} />
      <Backups />
    </>
  );
}

function Row({ name, bytes }: { name: string; bytes: number }) {
  return (
    <>
      <dt className="border-b border-line py-1.5">{name}</dt>
      <dd className="border-b border-line py-1.5 text-right font-semibold">{weight(bytes)}</dd>
    </>
  );
}

function MostField({ value, onSet }: { value: number; onSet: (bytes: number) => void }) {
  const { wrong, field } = useDraft(
    String(value / megabyte),
    (text) => onSet(Math.round(typedNumber(text) * megabyte)),
    (text) => typedNumber(text) >= 0 && typedNumber(text) <= 1e8,
  );
  return (
    <label className="flex items-center gap-2">
      <span>{t('pictures.keepAtMost')}</span>
      <input
        inputMode="numeric"
        className={`w-24 rounded-md border bg-sheet px-2 py-1 text-right ${wrong ? 'border-breaks' : 'border-line'}`}
        aria-invalid={wrong}
        title={wrong ? t('pictures.aNumberOfMegabytes0Or') : undefined}
        {...field}
      />
      <span className="text-ink-2">{t('pictures.mBOfUnusedFiles')}</span>
    </label>
  );
}
