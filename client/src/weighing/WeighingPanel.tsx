import { Link } from 'wouter';
import { addresses, type Cell, type Choice, type JobPicture, type JobSlot, type Trial } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, buttonShape, Key, KeyButton, MainLink } from '../design/Button';
import { count, sentence, size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { typeNames } from '../design/typeNames';
import { VerdictMark } from '../design/VerdictMark';
import { descriptorsOf } from '../domain/decisions';
import { useJobStore } from '../jobs/useJob';
import { ReachedContrast } from '../overlay/TextColourPart';
import { t } from '../texts/texts';
import { Loading } from './LoadingTimes';
import { QualityRange } from './QualityRange';
import { typesOf } from './useCurves';
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
  const store = useJobStore();
  const file = variant?.file ?? null;
  const descriptors = descriptorsOf(cell, slot);
  const types = typesOf(slot.slot.types);
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('weighing.weight')}
    >
      <header className="flex items-center gap-1.5 border-b border-line px-5 py-2">
        <div className="min-w-0 flex-1">
          <h2 className="truncate">{slot.slot.name}</h2>
          <p className="truncate text-small text-ink-2">
            {picture.words ?? picture.picture.name}, {slot.destinationName}
          </p>
        </div>
        {(slot.slot.responsive || slot.slot.group) && (
          <Link
            href={`/job/${store.id}/ladder/${picture.picture.id}/${slot.address}`}
            className={`${buttonShape} h-7! border-line bg-sheet hover:border-ink-2`}
            title={t('weighing.whichScreenLoadsWhichFile')}
          >
            {t('weighing.screens')}
          </Link>
        )}
        {descriptors.length > 4 ? (
          <select
            className="h-7 rounded-md border border-line bg-sheet px-1.5"
            aria-label={t('weighing.width')}
            value={wish.descriptor}
            onChange={(event) => onDescriptor(event.target.value)}
          >
            {descriptors.map((descriptor) => (
              <option key={descriptor}>{descriptor}</option>
            ))}
          </select>
        ) : (
          descriptors.length > 1 &&
          descriptors.map((descriptor) => (
            <Button
              key={descriptor}
              aria-pressed={descriptor === wish.descriptor}
              className={`h-7! ${descriptor === wish.descriptor ? 'border-ink! bg-sheet-2!' : ''}`}
              onClick={() => onDescriptor(descriptor)}
            >
              {descriptor}
            </Button>
          ))
        )}
      </header>
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
      <section
        className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3"
        aria-label={t('weighing.handOver')}
      >
        {file && variant?.verdict === 'breaks' && (
          <p className="mb-2">
            {cell?.files.some((one) => one.id === file.id && one.letThrough)
              ? t('weighing.theFileBreaksALimitAnd')
              : t('weighing.theFileBreaksALimitIt')}
          </p>
        )}
        {file && (
          <p className="mb-2 break-all text-ink-2" data-testid="file-name">
            {file.name}
          </p>
        )}
        {file && !working ? (
          <MainLink
            data-download
            href={addresses.download(file.id, file.name)}
            download={file.name}
            className="w-full"
          >
            {t('weighing.downloadThisFile')} <Key>D</Key>
          </MainLink>
        ) : (
          <Button kind="main" disabled className="w-full">
            {t('weighing.downloadThisFile')}
          </Button>
        )}
      </section>
    </aside>
  );
}
