import {
  type Cell,
  type Choice,
  type JobPicture,
  type JobSlot,
  type Trial,
  type VariantFile,
} from '../api/client';
import { Button, Key, KeyButton } from '../design/Button';
import { typeNames } from '../design/typeNames';
import { RichText } from '../texts/RichText';
import { t } from '../texts/texts';
import { FileDownload } from './FileDownload';
import { FileFigures } from './FileFigures';
import { QualityRange } from './QualityRange';
import { typesOf } from './useCurves';
import { WeighingHead } from './WeighingHead';
import type { TriedFile } from './useWeighing';

/** The figures of the very file that is handed over, and the choice there is about it. */
export function WeighingPanel({
  picture,
  slot,
  cell,
  variant,
  working,
  tried,
  isTrial,
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
  tried: TriedFile;
  /** True while something else is looked at than what was decided. */
  isTrial: boolean;
  onDescriptor: (descriptor: string) => void;
  onTry: (choice: Choice) => void;
  onKeep: (where: 'cell' | 'slot' | 'all') => void;
  onAutomatic: () => void;
  onWorst: () => void;
}) {
  const file = variant?.file ?? null;
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('weighing.weight')}
    >
      <WeighingHead picture={picture} slot={slot} cell={cell} tried={tried} onDescriptor={onDescriptor} />
      <FileFigures picture={picture} slot={slot} variant={variant} working={working} onWorst={onWorst} />
      <QualityChoice slot={slot} file={file} tried={tried} onTry={onTry} onAutomatic={onAutomatic} />
      <section className="border-b border-line px-5 py-3" aria-label={t('weighing.useThisQualityFor')}>
        <h3 className="mb-1.5 text-ink-2">
          {isTrial ? t('weighing.useThisQualityFor') : t('weighing.thisQualityIsInUse')}
        </h3>
        {isTrial && (
          <div className="grid grid-cols-3 gap-1.5">
            <KeyButton
              needs="edit"
              name={t('weighing.thisFile')}
              k="1"
              act={() => onKeep('cell')}
              off={!file}
            />
            <KeyButton
              needs="edit"
              name={t('weighing.thisSlot')}
              k="2"
              act={() => onKeep('slot')}
              off={!file}
            />
            <KeyButton
              needs="edit"
              name={t('weighing.allSlots')}
              k="3"
              act={() => onKeep('all')}
              off={!file}
            />
          </div>
        )}
      </section>
      <p className="px-5 py-3 text-ink-2">
        <RichText text="weighing.dragOrHold" values={{}} elements={{ k: <Key>S</Key> }} />
      </p>
      <FileDownload cell={cell} variant={variant} working={working} />
    </aside>
  );
}

/** The type and the quality, found or by hand. */
function QualityChoice({
  slot,
  file,
  tried,
  onTry,
  onAutomatic,
}: {
  slot: JobSlot;
  file: VariantFile | null;
  tried: TriedFile;
  onTry: (choice: Choice) => void;
  onAutomatic: () => void;
}) {
  const types = typesOf(slot.slot.types);
  return (
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
          tried={tried}
          found={file?.quality ?? null}
          ceiling={slot.slot.qualityCeiling}
          onTry={onTry}
        />
      )}
      <Button
        className="mt-2 h-7!"
        disabled={tried.quality === null && tried.format === null}
        onClick={onAutomatic}
      >
        {t('weighing.automaticQuality')} <Key>A</Key>
      </Button>
    </section>
  );
}
