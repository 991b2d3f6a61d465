import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { components } from '../api/schema';
import { Button } from '../design/Button';
import { count, files } from '../design/figures';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';

type IntegrityView = components['schemas']['IntegrityView'];

/** How far the slow check of all stored files is, which originals it found damaged, and which of them a backup has. */
export function Integrity({ integrity }: { integrity: IntegrityView }) {
  const cache = useQueryClient();
  const again = () => void cache.invalidateQueries({ queryKey: ['storage'] });
  const check = useMutation({ mutationFn: () => take(api.POST('/api/storage/check')), onSettled: again });
  const restore = useMutation({
    mutationFn: () => take(api.POST('/api/storage/originals')),
    onSettled: again,
  });
  const { checked, of, finishedAt, remade, damagedOriginals } = integrity;
  const kept = damagedOriginals.filter((one) => one.backup !== null).length;
  const fault = check.error ?? restore.error;
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label={t('pictures.checkOfTheStoredFiles')}>
      <div className="flex items-center gap-3">
        <h3 className="flex-1 font-semibold">{t('pictures.checkOfTheStoredFiles')}</h3>
        <Button className="h-7!" disabled={check.isPending} onClick={() => check.mutate()}>
          {t('pictures.checkNow')}
        </Button>
      </div>
      <p className="mt-1 text-ink-2">
        {t('pictures.everyStoredFileIsReadRegularly', {
          of:
            of === 0
              ? t('pictures.theFirstCheckStartsOneMinute')
              : t('pictures.checkedOfOfChecked', { checked: count(checked), of: files(of) }),
        })}
        {finishedAt !== null &&
          t('pictures.theLastCheckEndedOnFinishedAt', { finishedAt: moment(finishedAt) })}
        {remade > 0 && t('pictures.remadeWereDamagedAndAreRemade', { remade: files(remade) })}
      </p>
      {of > 0 && checked < of && (
        <progress
          className="mt-2 w-full accent-accent"
          max={of}
          value={checked}
          aria-label={t('pictures.filesChecked')}
        />
      )}
      {damagedOriginals.length > 0 && (
        <div role="alert" className="mt-2 text-breaks">
          <p>{t('pictures.originalsAreMissingOrDamagedAdd', { count: damagedOriginals.length })}</p>
          <ul className="mt-1 list-inside list-disc">
            {damagedOriginals.map((one) => (
              <li key={one.sha256}>
                {one.name}
                {one.backup !== null && t('pictures.inABackup')}
              </li>
            ))}
          </ul>
          {kept > 0 && (
            <Button className="mt-2" disabled={restore.isPending} onClick={() => restore.mutate()}>
              {t('pictures.restoreFromBackups', { count: kept })}
            </Button>
          )}
        </div>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
    </section>
  );
}
