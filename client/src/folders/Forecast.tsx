import { type PictureFolder } from '../api/client';
import { count, duration, weight } from '../design/figures';
import { t } from '../texts/texts';

export function Forecast({ folder }: { folder: PictureFolder }) {
  const { trial, figures } = folder;
  if (!trial)
    return (
      <section className="border-b border-line px-5 py-3 text-ink-2">
        {t('folders.mendableOfNPicturesCanBe', {
          mendable: count(figures!.mendable),
          n: count(figures!.count),
        })}
      </section>
    );
  const { forecast } = trial;
  const exact = forecast.all;
  return (
    <section
      className="border-b border-line px-5 py-3"
      aria-label={t('folders.estimate')}
      data-testid="forecast"
    >
      <h2>{t('folders.estimate')}</h2>
      <p className="mt-1 text-figure leading-tight font-semibold">
        {exact
          ? t('folders.savesExactly', { saved: weight(forecast.saved) })
          : t('folders.savesAbout', { saved: weight(forecast.saved) })}
      </p>
      <p className="text-ink-2">
        {exact || forecast.giveOrTake === null
          ? t('folders.ofBytes', {
              bytes: weight(figures!.mendableBytes),
              duration: duration(forecast.seconds),
            })
          : t('folders.ofBytesAbout', {
              bytes: weight(figures!.mendableBytes),
              error: weight(forecast.giveOrTake),
              duration: duration(forecast.seconds),
            })}
      </p>
      <p className="mt-1 text-ink-2">
        {exact
          ? t('folders.triedAll', { count: forecast.tried, lighter: count(forecast.lighter) })
          : t('folders.triedSome', { count: forecast.tried, lighter: count(forecast.lighter) })}
      </p>
    </section>
  );
}
