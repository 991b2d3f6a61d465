import type { Cell, CellDetail } from '../api/client';
import { sentence, size, weight } from '../design/figures';
import { typeNames } from '../design/typeNames';
import { VerdictMark } from '../design/VerdictMark';
import { useSaid } from '../jobs/receiverAnswersOfJob';
import { ReceiverAnswers } from '../jobs/ReceiverAnswers';
import { useJob } from '../jobs/useJob';
import { ReachedContrast } from '../overlay/TextColourPart';
import { runWords } from '../domain/run';
import { t } from '../texts/texts';

/** What a cell gets: a line for each of its files, what its dress reached, and why it is as it is. */
export function SlotResult({
  cell,
  detail,
  ahead = null,
}: {
  cell: Cell | undefined;
  detail: CellDetail | undefined;
  /** The files of a frame that a hand still holds; null while none does. */
  ahead?: Cell['files'] | null;
}) {
  const said = useSaid(cell?.picture ?? '', cell?.slot ?? '');
  return (
    <div
      className="mt-1.5 h-[92px] overflow-y-auto"
      role="region"
      tabIndex={0}
      aria-label={t('framing.resultForTheSlot')}
      data-testid="gets"
    >
      {ahead?.length === 0 && <p className="text-ink-2">{t('framing.measuring')}</p>}
      {ahead
        ? firstOfEach(ahead).map((file) => (
            <Rung key={file.descriptor} {...file} files={ahead} comes={false} />
          ))
        : detail?.plans.map((plan) => (
            <Rung
              key={plan.descriptor}
              {...plan}
              files={cell?.files ?? []}
              comes={cell?.state === 'waiting' || cell?.state === 'making'}
            />
          ))}
      {!ahead && detail?.files[0]?.dress && <ReachedContrast dress={detail.files[0].dress} />}
      {!ahead &&
        detail?.reasons.map((reason) => (
          <p
            key={reason.code}
            className={`mt-0.5 ${cell?.toReview.includes(reason.code) ? '' : 'text-ink-2'}`}
          >
            {sentence(reason.message)}
          </p>
        ))}
      {!ahead && <ReceiverAnswers said={said} />}
    </div>
  );
}

const firstOfEach = (files: Cell['files']) =>
  files.filter((file, i) => files.findIndex((other) => other.descriptor === file.descriptor) === i);

/** One density, or one width of a ladder: its pixels, of those asked where they are fewer, and what its files weigh as soon as that is known. */
function Rung({
  descriptor,
  verdict,
  width,
  height,
  askedWidth = width,
  askedHeight = height,
  files,
  comes,
}: {
  descriptor: string;
  verdict: Cell['verdict'];
  width: number;
  height: number;
  askedWidth?: number;
  askedHeight?: number;
  /** Files of this one and others. */
  files: Cell['files'];
  /** True while a file is still to be made. */
  comes: boolean;
}) {
  const run = useJob((job) => job.run);
  const mine = files.filter((file) => file.descriptor === descriptor);
  const known = mine.filter((file) => file.bytes != null);
  const words =
    known.length > 1
      ? known
          .map((file) => `${(file.format && typeNames[file.format]) ?? ''} ${weight(file.bytes!)}`)
          .join(', ')
      : known[0]
        ? weight(known[0].bytes!)
        : run === 'running'
          ? t('framing.weighing')
          : runWords[run];
  return (
    <p className="flex items-center gap-2">
      <VerdictMark verdict={comes && known.length === 0 && verdict !== 'breaks' ? 'making' : verdict} />
      <b className={`font-semibold ${descriptor.endsWith('w') ? 'w-12' : 'w-7'}`}>{descriptor}</b>{' '}
      {size(width, height)}
      {(width !== askedWidth || height !== askedHeight) && (
        <span className="text-ink-2">
          {t('framing.ofAskedWidth', { askedWidth: size(askedWidth, askedHeight) })}
        </span>
      )}
      {(known.length > 0 || (comes && mine.length > 0)) && (
        <span
          className={`ml-auto wrap-anywhere ${known.length === 0 ? 'text-ink-2' : ''}`}
          data-weight={descriptor}
        >
          {words}
        </span>
      )}
    </p>
  );
}
