import type { Destination, Slot } from '../api/client';
import { Button } from '../design/Button';
import { Covered } from '../design/Covered';
import { sentence, weight } from '../design/figures';
import { Menu, MenuDownload, MenuItem } from '../design/Menu';
import { needs } from '../design/needs';
import { useDraft } from '../design/useDraft';
import { t } from '../texts/texts';

/** One CSS pixel of a slot is this much of the screen: one scale for the whole book. */
const scale = 0.07;
const most = 200;

/** A destination with its slots drawn to scale. */
export function DestinationSheet({
  destination,
  chosen,
  kin,
  onChoose,
  onCopy,
  onName,
  onRetire,
}: {
  destination: Destination;
  chosen: string | undefined;
  /** The shape of the chosen slot: those that share it are marked. */
  kin: string | undefined;
  onChoose: (slot: string) => void;
  onCopy: () => void;
  onName: (name: string) => void;
  onRetire: (retired: boolean) => void;
}) {
  const retired = destination.slots.every((slot) => slot.retired);
  const { field } = useDraft(destination.name, onName, (name) => name !== '');
  return (
    <section className="mb-4 border-t border-line bg-sheet px-4 pt-2 pb-3" aria-label={destination.name}>
      <header className="flex items-center gap-2">
        <h2 className="min-w-0 flex-1">
          <input
            aria-label={t('destinations.nameOfName', { name: destination.name })}
            className="w-full rounded-sm border border-transparent bg-transparent px-1 font-semibold hover:border-line focus:border-line"
            maxLength={100}
            {...field}
          />
        </h2>
        <Button needs="edit" className="h-7!" onClick={() => onChoose('new')}>
          {t('destinations.newSlot')}
        </Button>
        <Menu label={t('destinations.moreForName', { name: destination.name })}>
          <MenuItem act={onCopy}>{t('destinations.copy')}</MenuItem>
          <MenuDownload href={`/api/destinations/rules.json?destination=${destination.key}`}>
            {t('destinations.exportRules')}
          </MenuDownload>
          <MenuItem
            act={() => onRetire(!retired)}
            title={
              retired ? t('destinations.showItsSlotsForNewJobs') : t('destinations.hideItsSlotsFromNewJobs')
            }
          >
            {retired ? t('destinations.useAgain') : t('destinations.retire')}
          </MenuItem>
        </Menu>
      </header>
      <ul className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-3">
        {destination.slots.map((slot) => (
          <SlotDrawing
            key={slot.key}
            slot={slot}
            chosen={slot.key === chosen}
            isKin={kin !== undefined && slot.shapeKey === kin && slot.key !== chosen}
            onChoose={() => onChoose(slot.key)}
          />
        ))}
      </ul>
    </section>
  );
}

function SlotDrawing({
  slot,
  chosen,
  isKin,
  onChoose,
}: {
  slot: Slot;
  chosen: boolean;
  isKin: boolean;
  onChoose: () => void;
}) {
  const shrink = Math.min(1, most / (Math.max(slot.width, slot.height) * scale));
  const size = {
    width: Math.max(6, slot.width * scale * shrink),
    height: Math.max(6, slot.height * scale * shrink),
  };
  return (
    <li>
      <button
        type="button"
        onClick={onChoose}
        aria-pressed={chosen}
        title={needs(slot)}
        className={`block px-1.5 pt-1.5 pb-1 text-left hover:bg-sheet-2 ${chosen ? 'bg-sheet-2 outline-2 outline-accent' : ''} ${slot.retired ? 'opacity-60' : ''}`}
        style={{ maxWidth: 220, minWidth: 88 }}
      >
        <span
          className={`relative block bg-surround ${slot.shape == null ? 'border border-dashed' : 'border'} ${isKin ? 'border-accent outline-1 outline-accent' : 'border-ink-2'}`}
          style={size}
        >
          {slot.fit === 'mat' && <span className="absolute inset-1 bg-ink-2/40" />}
          <Covered clear={slot.clear} />
        </span>
        <span className="mt-1 block wrap-anywhere font-medium">{slot.name}</span>
        <span className="block wrap-anywhere text-note text-ink-2">
          {slot.retired
            ? t('destinations.retired')
            : (slot.ratioText ??
              (slot.fit === 'crop' ? t('destinations.anyShape') : t('destinations.shownWhole')))}
          {isKin && t('destinations.sameShape')}
        </span>
        <span className="block text-note text-ink-2">
          {slot.shape == null ? sentence(slot.size) : `${slot.width}×${slot.height}`}
          {slot.maxBytes != null && `, ${weight(slot.maxBytes)}`}
        </span>
      </button>
    </li>
  );
}
