import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { count, files, weight } from '../design/figures';
import { ProgressBar } from '../design/ProgressBar';
import { useDraft } from '../design/useDraft';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';

type BackupView = components['schemas']['BackupView'];
type Settings = components['schemas']['BackupSettings'];

const second = 1000;
const shown = 8;

/** The backups of this server: the last ones, how often they are made by themselves, and another one now. */
export function Backups() {
  const cache = useQueryClient();
  const view = useQuery({
    queryKey: ['backups'],
    queryFn: ({ signal }) => take(api.GET('/api/backups', { signal })),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.progress ? second : false),
  });
  const again = () => void cache.invalidateQueries({ queryKey: ['backups'] });
  const make = useMutation({ mutationFn: () => take(api.POST('/api/backups')), onSettled: again });
  const stop = useMutation({ mutationFn: () => take(api.POST('/api/backups/stop')), onSettled: again });
  const set = useMutation({
    mutationFn: (settings: Settings) => take(api.PUT('/api/backups/settings', { body: settings })),
    onSuccess: (now) => cache.setQueryData(['backups'], now),
  });
  const fault = view.error?.message ?? make.error?.message ?? set.error?.message ?? view.data?.fault;
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label={t('pictures.backups')}>
      <h3 className="font-semibold">{t('pictures.backups')}</h3>
      {view.data && (
        <>
          <p className="mt-1 wrap-anywhere text-ink-2">
            {t('pictures.backupsLieIn', { folder: view.data.folder })}
          </p>
          <Schedule view={view.data} onSet={(settings) => set.mutate(settings)} />
          <Kept view={view.data} />
          {view.data.progress ? (
            <div className="mt-3 flex items-center gap-3" role="status">
              <ProgressBar
                label={t('pictures.filesBackedUp')}
                done={view.data.progress.files}
                of={Math.max(1, view.data.progress.of)}
                className="flex-1"
              />
              <span className="text-ink-2">
                {t('pictures.backedUpOf', {
                  files: count(view.data.progress.files),
                  of: files(view.data.progress.of),
                })}
              </span>
              <Button onClick={() => stop.mutate()}>{t('pictures.stopTheBackup')}</Button>
            </div>
          ) : (
            <Button className="mt-3" onClick={() => make.mutate()} disabled={make.isPending}>
              {t('pictures.backUpNow')}
            </Button>
          )}
        </>
      )}
      {fault && (
        <p role="alert" className="mt-2 wrap-anywhere text-breaks">
          {fault}
        </p>
      )}
    </section>
  );
}

/** How often, and how many are kept. */
function Schedule({
  view: { settings, nextAt },
  onSet,
}: {
  view: BackupView;
  onSet: (settings: Settings) => void;
}) {
  const { wrong, field } = useDraft(
    String(settings.kept),
    (text) => onSet({ ...settings, kept: Number(text) }),
    (text) => /^\d+$/.test(text) && Number(text) >= 1 && Number(text) <= 1000,
  );
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2">
      <label className="flex items-center gap-2">
        <span>{t('pictures.byThemselves')}</span>
        <select
          value={settings.every}
          onChange={(event) => onSet({ ...settings, every: event.target.value as Settings['every'] })}
          className="h-8 rounded-md border border-line bg-sheet px-2"
        >
          <option value="never">{t('pictures.never')}</option>
          <option value="daily">{t('pictures.everyDay')}</option>
          <option value="weekly">{t('pictures.everyWeek')}</option>
        </select>
      </label>
      <label className="flex items-center gap-2">
        <span>{t('pictures.keepBackups')}</span>
        <input
          inputMode="numeric"
          className={`w-16 rounded-md border bg-sheet px-2 py-1 text-right ${wrong ? 'border-breaks' : 'border-line'}`}
          aria-invalid={wrong}
          {...field}
        />
      </label>
      {nextAt !== null && (
        <span className="text-ink-2">{t('pictures.theNextIsDue', { at: moment(nextAt) })}</span>
      )}
    </div>
  );
}

function Kept({ view: { backups } }: { view: BackupView }) {
  if (backups.length === 0) return <p className="mt-2">{t('pictures.noBackupYet')}</p>;
  return (
    <ul className="mt-2 border-t border-line" aria-label={t('pictures.backups')}>
      {backups.slice(0, shown).map((one) => (
        <li key={one.id} className="grid grid-cols-[1fr_auto_auto] gap-x-4 border-b border-line py-1.5">
          <span>{moment(one.takenAt)}</span>
          <span className="text-ink-2">{files(one.files)}</span>
          <span className="text-right font-semibold">{weight(one.bytes)}</span>
          {one.lost.length > 0 && (
            <span className="col-span-full text-breaks">
              {t('pictures.withoutOriginals', { names: one.lost.join(', ') })}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
