import { type Cell, type Choice, type JobPicture, type JobSlot, type Trial } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, Key, KeyButton } from '../design/Button';
import { count, sentence, size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { typeNames } from '../design/typeNames';
import { VerdictMark } from '../design/VerdictMark';
import { ReachedContrast } from '../overlay/TextColourPart';
import { t } from '../texts/texts';
import { FileDownload } from './FileDownload';
import { Loading } from './LoadingTimes';
import { QualityRange } from './QualityRange';
import { typesOf } from './useCurves';
import { WeighingHead } from './WeighingHead';
import type { Wish } from './WeighingScreen';

/** The figures of the very file that is handed over, and the choice there is about it. */
export function WeighingPanel({
  picture,
  slot,
  cell,
  variant,
  working,
  wish,
  tried,
  onDescriptor,
  onTry,
  onKeep,
  onAutomatic,
  onWorst,
}: {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell | undefined;
  variant: Trial | null;
  working: boolean;
  wish: Wish;
  /** True while something else is looked at than what was decided. */
  tried: boolean;
  onDescriptor: (descriptor: string) => void;
  onTry: (choice: Choice) => void;
  onKeep: (where: 'cell' | 'slot' | 'all') => void;
  onAutomatic: () => void;
  onWorst: () => void;
}) {
  const file = variant?.file ?? null;
  const types = typesOf(slot.slot.types);
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('weighing.weight')}
    >
      <WeighingHead picture={picture} slot={slot} cell={cell} wish={wish} onDescriptor={onDescriptor} />
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
        {file?.likenessWord && file.likeness != null && (
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
        )}
        {file?.dress && <ReachedContrast dress={file.dress} outlined />}
        {variant?.reasons.map((reason) => (
          <p key={reason.code} className="mt-2 border-l-2 border-ink-2 pl-2.5">
            {sentence(reason.message)}
          </p>
        ))}
      </section>
      <section className="border-b border-line px-5 py-3" aria-label={t('weighing.quality')}>
        {types.length > 1 && (
          <div className="mb-2.5 flex flex-wrap items-center gap-1.5">
            {types.map((one) => (
              <Button
                key={one}
                aria-pressed={one === file?.format}
                className={`h-7! ${one === file?.format ? 'border-ink! bg-sheet-2!' : ''}`}
                onClick={() => onTry({ format: one, quality: null })}
              >
                {typeNames[one] ?? one}
              </Button>
            ))}
          </div>
        )}
        {file && file.quality === null ? (
          <p className="text-ink-2">
            {t('weighing.formatHasNoQualitySettingHere', { format: typeNames[file.format] })}
          </p>
        ) : (
          <QualityRange
            wish={wish}
            found={file?.quality ?? null}
            ceiling={slot.slot.qualityCeiling}
            onTry={onTry}
          />
        )}
        <Button
          className="mt-2 h-7!"
          disabled={wish.quality === null && wish.format === null}
          onClick={onAutomatic}
        >
          {t('weighing.automaticQuality')} <Key>A</Key>
        </Button>
      </section>
      <section className="border-b border-line px-5 py-3" aria-label={t('weighing.useThisQualityFor')}>
        <h3 className="mb-1.5 text-ink-2">
          {tried ? t('weighing.useThisQualityFor') : t('weighing.thisQualityIsInUse')}
        </h3>
        {tried && (
          <div className="grid grid-cols-3 gap-1.5">
            <KeyButton name={t('weighing.thisFile')} k="1" act={() => onKeep('cell')} off={!file} />
            <KeyButton name={t('weighing.thisSlot')} k="2" act={() => onKeep('slot')} off={!file} />
            <KeyButton name={t('weighing.allSlots')} k="3" act={() => onKeep('all')} off={!file} />
          </div>
        )}
      </section>
      <p className="px-5 py-3 text-ink-2">
        {t('weighing.dragTheDividerOrHold')} <Key>S</Key> {t('weighing.toSeeTheLosslessPictureIt')}
      </p>
      <FileDownload cell={cell} variant={variant} working={working} />
    </aside>
  );
}
