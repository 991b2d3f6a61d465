import type { MendedImage, MendedPage } from '../api/client';
import { count, sentence, trim, weight } from '../design/figures';

/** What the mended page weighs against what it was, how alike both look, and what was left. */
export function MendedFigures({
  name,
  page,
  viewport,
}: {
  name: string;
  page: MendedPage;
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
          <h2 className="text-base break-words">{name}</h2>
          <p className="mt-1 text-[22px] leading-tight font-semibold" data-testid="mended-weight">
            {weight(first.after)}
          </p>
          <p className="text-ink-2">
            everything counted, at {first.density}x; it was {weight(first.before)}:{' '}
            {trim(first.before / Math.max(1, first.after), 1)} times lighter
          </p>
        </section>
      )}
      <section className="border-b border-line px-5 py-3">
        <table className="w-full">
          <thead className="text-left text-ink-2">
            <tr>
              <th className="font-normal">Screen</th>
              <th className="text-right font-normal">Before</th>
              <th className="text-right font-normal">After</th>
              <th className="text-right font-normal">Alike</th>
            </tr>
          </thead>
          <tbody>
            {page.screens.map((one) => (
              <tr
                key={`${one.viewport} ${one.density}`}
                className={one.viewport === viewport ? 'font-semibold' : ''}
              >
                <td className="py-0.5">
                  {count(one.viewport)} · {one.density}x
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
        <Altered images={mended} whole={here.find((one) => one.whole !== null)?.whole ?? null} />
      </section>
      <section className="px-5 py-3" aria-label="Pictures of the page">
        <h2>
          {mended.length} of {page.images.length} {page.images.length === 1 ? 'picture' : 'pictures'} mended
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
function Altered({ images, whole }: { images: readonly MendedImage[]; whole: number | null }) {
  const squashed = images.filter((one) => one.altered).length;
  const blurred = images.filter((one) => !one.altered && one.looks.some((look) => look.wasBlurred)).length;
  if (squashed + blurred === 0) return null;
  const parts = [
    squashed > 0 ? `${squashed} that ${squashed === 1 ? 'was' : 'were'} squashed or enlarged` : '',
    blurred > 0 ? `${blurred} that the browser blurred and ${blurred === 1 ? 'is' : 'are'} sharper now` : '',
  ].filter(Boolean);
  return (
    <p className="mt-2 text-ink-2">
      Left out of “alike”: {parts.join(', ')}.{whole !== null && ` With them it is ${whole.toFixed(4)}.`}
    </p>
  );
}
