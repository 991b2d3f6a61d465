import type { JobPicture, JobSlot, ResponsiveSlot, ResponsiveView } from '../api/client';
import { Button } from '../design/Button';
import { count, sentence, trim, weight } from '../design/figures';
import type { Rule } from '../forms/rule';
import { cellKey } from '../domain/jobState';
import { useHead, useJob } from '../jobs/useJob';
import { PageColumn } from './PageColumn';
import { SizesForm } from './SizesForm';
import { t } from '../texts/texts';

/** The page at one window, the rule of the ladder while it is tried, and the files it comes to. */
export function ResponsiveAside({
  picture,
  slot,
  view,
  drawn,
  viewport,
  onViewport,
  rule,
  fault,
  onRule,
  change,
}: {
  picture: JobPicture;
  slot: JobSlot;
  view: ResponsiveView;
  /** What the window that is drawn takes. */
  drawn: ResponsiveView['grid'][number] | undefined;
  viewport: number;
  onViewport: (viewport: number) => void;
  /** The rule as it is or as it is tried; none for a slot without a ladder. */
  rule: Rule | undefined;
  fault: string | null;
  onRule: (rule: Rule) => void;
  /** A rule that is tried and not set yet. */
  change: { undo: () => void; set: () => void; busy: boolean; failed: Error | null } | null;
}) {
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('responsive.responsiveWidths')}
    >
      <header className="border-b border-line px-5 py-2">
        <h2 className="wrap-anywhere">{slot.slot.group ?? slot.slot.name}</h2>
        <p className="wrap-anywhere text-small text-ink-2">
          {picture.words ?? picture.picture.name}, {slot.destinationName}
        </p>
      </header>
      <section className="border-b border-line px-4 pt-3 pb-2" aria-label={t('responsive.thePage')}>
        {drawn && <DrawnPage picture={picture} destination={slot.destination} drawn={drawn} />}
        <input
          type="range"
          className="mt-1 w-full accent-(--pm-accent)"
          aria-label={t('responsive.widthOfTheWindow')}
          min={320}
          max={1920}
          step={1}
          value={viewport}
          onChange={(event) => onViewport(event.target.valueAsNumber)}
        />
      </section>
      {rule && <SizesForm rule={rule} onSet={onRule} fault={fault && sentence(fault)} />}
      <section className="px-5 py-3" aria-label={t('responsive.files')}>
        {view.slots.map((one) => (
          <Files key={one.slot} slot={one} />
        ))}
      </section>
      {change && (
        <footer className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3">
          {change.failed && (
            <p role="alert" className="mb-2 text-breaks">
              {change.failed.message}
            </p>
          )}
          <div className="flex gap-2">
            <Button onClick={change.undo}>{t('responsive.discardChanges')}</Button>
            <span className="flex-1" />
            <Button kind="main" disabled={fault !== null || change.busy} onClick={() => change.set()}>
              {t('responsive.saveRule')}
            </Button>
          </div>
        </footer>
      )}
    </aside>
  );
}

function DrawnPage({
  picture,
  destination,
  drawn,
}: {
  picture: JobPicture;
  destination: string;
  drawn: ResponsiveView['grid'][number];
}) {
  const head = useHead();
  const address = `${destination}/${drawn.slot}`;
  const cell = useJob((job) => job.cells.get(cellKey(picture.picture.id, address)));
  return (
    <PageColumn
      picture={picture}
      slot={head.slots.find((one) => one.address === address)}
      cell={cell}
      taken={drawn}
    />
  );
}

/** The files of one slot, from the smallest up. */
function Files({ slot }: { slot: ResponsiveSlot }) {
  return (
    <div className="mb-3" data-testid="files" data-widths={slot.files.map((file) => file.width).join()}>
      <h3 className="font-semibold">
        {slot.name}: {t('common.files', { count: slot.files.length })}
      </h3>
      {slot.largest != null && (
        <p className="text-small text-ink-2">
          {t('responsive.leastToLargestPxNeeded', {
            least: count(slot.least!),
            largest: count(slot.largest),
          })}
          {slot.worstWaste != null &&
            t('responsive.atMostWorstWasteUnused', { worstWaste: trim(slot.worstWaste * 100, 0) })}
          {slot.files.length > 0 &&
            slot.files.at(-1)!.width < slot.largest &&
            t('responsive.thePictureIsLargeEnoughFor', { width: count(slot.files.at(-1)!.width) })}
          .
        </p>
      )}
      <ul className="mt-1">
        {slot.files.map((file) => (
          <li key={file.descriptor} className="flex justify-between gap-2">
            <span>
              {count(file.width)} × {count(file.height)} px
            </span>
            <span className="text-ink-2">
              {file.bytes == null ? t('responsive.notMadeYet') : weight(file.bytes)}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
