import { Link } from 'wouter';
import type { Cell, JobPicture, JobSlot } from '../api/client';
import { Button, buttonShape } from '../design/Button';
import { descriptorsOf } from '../domain/decisions';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import type { TriedFile } from './useWeighing';

/** Which file is weighed: its slot and picture, and which of the slot's densities or widths. */
export function WeighingHead({
  picture,
  slot,
  cell,
  tried,
  onDescriptor,
}: {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell | undefined;
  tried: TriedFile;
  onDescriptor: (descriptor: string) => void;
}) {
  const store = useJobStore();
  const descriptors = descriptorsOf(cell, slot);
  return (
    <header className="flex items-center gap-1.5 border-b border-line px-5 py-2">
      <div className="min-w-0 flex-1">
        <h2 className="wrap-anywhere">{slot.slot.name}</h2>
        <p className="wrap-anywhere text-small text-ink-2">
          {picture.words ?? picture.picture.name}, {slot.destinationName}
        </p>
      </div>
      {(slot.slot.responsive || slot.slot.group) && (
        <Link
          href={`/job/${store.id}/responsive/${picture.picture.id}/${slot.address}`}
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
          value={tried.descriptor}
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
            aria-pressed={descriptor === tried.descriptor}
            className={`h-7! ${descriptor === tried.descriptor ? 'border-ink! bg-sheet-2!' : ''}`}
            onClick={() => onDescriptor(descriptor)}
          >
            {descriptor}
          </Button>
        ))
      )}
    </header>
  );
}
