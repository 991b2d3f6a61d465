import type { JobPicture, JobSlot, Trial, VariantFile } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, Key } from '../design/Button';
import { count, sentence, size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { VerdictMark } from '../design/VerdictMark';
import { ReachedContrast } from '../overlay/TextColourPart';
import { t } from '../texts/texts';
import { Loading } from './LoadingTimes';

/** What the file weighs against its limit, how alike it is, and why it is as it is. */
export function FileFigures({
  picture,
  slot,
  variant,
  working,
  onWorst,
}: {
  picture: JobPicture;
  slot: JobSlot;
  variant: Trial | null;
  working: boolean;
  onWorst: () => void;
}) {
  const file = variant?.file ?? null;
  return (
    <section
      className="border-b border-line px-5 pt-3 pb-4"
      aria-label={t('weighing.theFile')}
      aria-busy={working}
    >
      {variant && (
        <p className="flex items-center justify-between">
          <VerdictMark verdict={variant.verdict} withWord />
          {working && <span className="text-ink-2">{t('weighing.weighing2')}</span>}
        </p>
      )}
      {file && (
        <>
          <p className="mt-1.5 text-figure leading-tight font-semibold" data-testid="weight">
            {weight(file.bytes)}
            {slot.slot.maxBytes != null && (
              <span className="text-head font-normal text-ink-2">
                {t('weighing.ofLimit', { limit: weight(slot.slot.maxBytes) })}
              </span>
            )}
          </p>
          <p className="mb-1.5 text-ink-2">
            <span data-testid="bytes" data-bytes={file.bytes}>
              {count(file.bytes)}
            </span>{' '}
            {t('weighing.bytesWidth', { width: size(file.width, file.height) })}
          </p>
          <Beam bytes={file.bytes} limit={slot.slot.maxBytes} />
          <Loading file={file.bytes} original={picture.picture.bytes} />
        </>
      )}
      {file && <FileLikeness file={file} onWorst={onWorst} />}
      {file?.dress && <ReachedContrast dress={file.dress} outlined />}
      {variant?.reasons.map((reason) => (
        <p key={reason.code} className="mt-2 border-l-2 border-ink-2 pl-2.5">
          {sentence(reason.message)}
        </p>
      ))}
    </section>
  );
}

function FileLikeness({ file, onWorst }: { file: VariantFile; onWorst: () => void }) {
  if (!file.likenessWord || file.likeness == null) return null;
  return (
    <div className="mt-3 flex items-center justify-between gap-3" data-testid="likeness">
      <p>
        <span className="font-semibold">{likenessWords[file.likenessWord]}</span>{' '}
        <span className="block text-ink-2">
          {t('weighing.likenessLikeness', { likeness: file.likeness.toFixed(3) })}
        </span>
      </p>
      {file.likeness < 1 && (
        <Button onClick={onWorst} title={t('weighing.showThePlaceThatDiffersMost')}>
          {t('weighing.worstPlace')} <Key>W</Key>
        </Button>
      )}
    </div>
  );
}
