import { memo } from 'react';
import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { Covered } from '../design/Covered';
import { Crop } from '../design/Crop';
import { reasonWord } from '../domain/reasons';
import { CellNotes } from '../jobs/CellNotes';
import { isUnwanted, useSaid } from '../jobs/receiverAnswersOfJob';
import { useCell } from '../jobs/useJob';
import { type Place, tileFoot } from './arrangement';
import { CellCaption } from './CellCaption';
import { caption, captionBeside, drawn, pad, standsBeside, type View } from './layout';
import { nameOf } from './rowOrder';
import { type Rest, useRested } from './rest';
import { t } from '../texts/texts';

/** One cell: the crop as it will be delivered, and what it came to. */
export const BenchCell = memo(function BenchCell({
  picture,
  slot,
  view,
  left,
  width,
  height,
  active,
  selected,
  id,
  rest,
  named = false,
}: {
  picture: JobPicture;
  slot: JobSlot;
  view: View;
  left: number;
  width: number;
  height: number;
  active: boolean;
  selected: boolean;
  id: string;
  /** What comes into view while the bench is scrolled is drawn without its caption until it rests. */
  rest: Rest;
  /** True where no heads say which slot and which picture it is. */
  named?: boolean;
}) {
  const whole = useRested(rest);
  const unwanted = isUnwanted(useSaid(picture.picture.id, slot.address));
  const cell = useCell(picture.picture.id, slot.address);
  if (!cell) return null;
  const size = drawn(cell, view);
  const beside = standsBeside(cell, view);
  return (
    <div
      id={id}
      role="gridcell"
      aria-selected={selected}
      data-cell={`${picture.picture.id}|${slot.address}`}
      className={`absolute top-0 flex flex-col [contain:layout_style] ${selected ? 'bg-sheet' : ''} ${active ? 'z-10 outline-2 -outline-offset-2 outline-accent' : ''}`}
      style={{ left, width, height, padding: pad }}
    >
      {/* What is read aloud; the caption is its short form. */}
      <span className="sr-only">
        {t(unwanted ? 'bench.cellNotAccepted' : 'bench.cell', {
          picture: picture.picture.name,
          slot: slot.slot.name,
          state: words(cell),
        })}
      </span>
      <div className={`flex min-h-0 flex-1 ${beside ? 'justify-center' : 'flex-col'}`}>
        <div className={`grid place-items-center ${beside ? '' : 'flex-1'}`}>
          <CellCrop item={{ picture, slot, cell }} {...size} whole={whole} />
        </div>
        <p
          aria-hidden
          className={`flex text-note ${beside ? 'flex-col items-start justify-end gap-1 pb-1 pl-1.5 leading-3' : 'items-center justify-center gap-1 leading-none whitespace-nowrap'}`}
          style={beside ? { width: captionBeside } : { height: caption }}
        >
          {whole && (
            <CellCaption
              cell={cell}
              looking={picture.looking}
              unwanted={unwanted}
              elsewhere={goesElsewhere(picture, slot)}
              width={beside ? Infinity : width}
            />
          )}
        </p>
      </div>
      {whole && <CellNotes picture={picture.picture.id} slot={slot.address} />}
      {named && <TileNames picture={picture} slot={slot} />}
    </div>
  );
});

/** The crop, with what is covered in its slot, or crossed out. */
function CellCrop({
  item,
  width,
  height,
  whole,
}: {
  item: Place & { cell: Cell };
  width: number;
  height: number;
  whole: boolean;
}) {
  const skipped = item.cell.state === 'skipped';
  return (
    <div data-crop className={`relative ${skipped ? 'opacity-35' : ''}`} style={{ width, height }}>
      <CropOrFile item={item} width={width} height={height} />
      {whole && <Covered clear={item.slot.slot.clear} />}
      {skipped && <span className="absolute inset-x-0 top-1/2 border-t-2 border-ink" />}
    </div>
  );
}

/** What stands below a tile: its slot, and its picture. */
function TileNames({ picture, slot }: { picture: JobPicture; slot: JobSlot }) {
  const name = nameOf(picture);
  return (
    <p
      aria-hidden
      title={`${name}: ${slot.slot.name}`}
      className="overflow-hidden px-1 text-center text-note leading-[14px] wrap-anywhere"
      style={{ height: tileFoot }}
    >
      <span className="block font-medium text-ink">{slot.slot.name}</span>
      <span className="block text-ink-2">{name}</span>
    </p>
  );
}

/** The file as it was made; until it is, what its frame shows. */
export function CropOrFile({
  item: { picture, slot, cell },
  width,
  height,
  large = false,
}: {
  item: { picture: JobPicture; slot: JobSlot; cell: Cell };
  width: number;
  height: number;
  /** True where the file's small copy would be too coarse: the file itself is drawn then. */
  large?: boolean;
}) {
  const file = large ? fileFor(cell, width) : cell.files.find((one) => one.made);
  return file && cell.state === 'done' ? (
    <img
      src={large ? addresses.file(file.id) : addresses.small(file.id)}
      alt=""
      draggable={false}
      decoding="async"
      className={`block h-full w-full object-fill select-none ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
    />
  ) : (
    <Crop
      picture={picture}
      slot={slot.slot}
      frame={cell.frame}
      width={width}
      height={height}
      side={large ? 1800 : 480}
    />
  );
}

/** The smallest file that is wide enough for a place, else the widest. */
function fileFor(cell: Cell, width: number) {
  const made = cell.files.filter((one) => one.made).toSorted((a, b) => a.width - b.width);
  return made.find((one) => one.width >= width) ?? made.at(-1);
}

/** True where a slot takes another number of pictures side by side. */
export const goesElsewhere = (picture: JobPicture, slot: JobSlot) =>
  (picture.parts?.length ?? null) !== (slot.slot.pair ?? null);

/** A cell in words, for those who cannot see it. */
export function words(cell: Cell): string {
  const state = {
    waiting: t('bench.waiting'),
    making: t('bench.beingMade'),
    done: cell.verdict,
    skipped: t('bench.skipped'),
  }[cell.state];
  const looks = cell.toReview.map(reasonWord).join(', ');
  return looks ? t('bench.stateToReviewLooks', { state, looks }) : state;
}
