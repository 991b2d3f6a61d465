import type { RewrittenImage, RewrittenPage } from '../api/client';
import { count, sentence, trim, weight } from '../design/figures';
import { t } from '../texts/texts';

/** What the mended page weighs against what it was, how alike both look, and what was left. */
export function RewriteFigures({
  name,
  page,
  viewport,
}: {
  name: string;
  page: RewrittenPage;
  viewport: number;
}) {
  const mended = page.images.filter((one) => one.left === null);
  const left = page.images.filter((one) => one.left !== null);
  const here = page.screens.filter((one) => one.viewport === viewport);
  const first = here[0];
  return (
    <>
      {first && (
        <section className="border-b border-line px-5 py-4">
          <h2 className="text-head break-words">{name}</h2>
          <p className="mt-1 text-figure leading-tight font-semibold" data-testid="mended-weight">
            {weight(first.after)}
          </p>
          <p className="text-ink-2">
            {t('handingOver.lighterPage', {
              density: first.density,
              before: weight(first.before),
              times: trim(first.before / Math.max(1, first.after), 1),
            })}
          </p>
        </section>
      )}
      <section className="border-b border-line px-5 py-3">
        <Screens screens={page.screens} viewport={viewport} />
        <Altered images={mended} whole={here.find((one) => one.whole !== null)?.whole ?? null} />
      </section>
      <section className="px-5 py-3" aria-label={t('handingOver.picturesOfThePage')}>
        <h2>
          {t('handingOver.mendedOfPicturesReplaced', { count: page.images.length, mended: mended.length })}
        </h2>
        <ul>
          {left.map((one) => (
            <li key={`${one.kind} ${one.where}`} className="mt-2 border-l-4 border-concedes pl-3">
              <span className="block break-all">{one.address}</span>
              <span className="text-ink-2">{one.left}</span>
            </li>
          ))}
        </ul>
        {page.notes.map((note) => (
          <p key={note} className="mt-2 text-ink-2">
            {sentence(note)}
          </p>
        ))}
      </section>
    </>
  );
}

/** What need not look the same, and what it comes to when it is counted all the same. */
function Altered({ images, whole }: { images: readonly RewrittenImage[]; whole: number | null }) {
  const squashed = images.filter((one) => one.altered).length;
  const blurred = images.filter((one) => !one.altered && one.looks.some((look) => look.wasBlurred)).length;
  if (squashed + blurred === 0) return null;
  const parts = [
    squashed > 0 ? t('handingOver.thatWereSquashedOrEnlarged', { count: squashed }) : '',
    blurred > 0 ? t('handingOver.thatTheBrowserBlurredAndAre', { count: blurred }) : '',
  ].filter(Boolean);
  return (
    <p className="mt-2 text-ink-2">
      {t('handingOver.notCountedInTheLikenessParts', { parts: parts.join(', ') })}
      {whole !== null && t('handingOver.withThemWhole', { whole: whole.toFixed(4) })}
    </p>
  );
}

function Screens({ screens, viewport }: { screens: RewrittenPage['screens']; viewport: number }) {
  return (
    <table className="w-full">
      <thead className="text-left text-ink-2">
        <tr>
          <th className="font-normal">{t('handingOver.screen')}</th>
          <th className="text-right font-normal">{t('handingOver.before')}</th>
          <th className="text-right font-normal">{t('handingOver.after')}</th>
          <th className="text-right font-normal">{t('handingOver.likeness')}</th>
        </tr>
      </thead>
      <tbody>
        {screens.map((one) => (
          <tr
            key={`${one.viewport} ${one.density}`}
            className={one.viewport === viewport ? 'font-semibold' : ''}
          >
            <td className="py-0.5">
              {t('handingOver.viewportDensityX', { viewport: count(one.viewport), density: one.density })}
            </td>
            <td className="text-right">{weight(one.before)}</td>
            <td className="text-right">{weight(one.after)}</td>
            <td
              className={`text-right ${one.similarity !== null && one.similarity < 0.98 ? 'text-breaks' : ''}`}
            >
              {one.similarity === null ? '' : one.similarity.toFixed(4)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
