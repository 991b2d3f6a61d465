import { memo } from 'react';
import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { Covered } from '../design/Covered';
import { weight } from '../design/figures';
import { Crop } from '../design/Crop';
import { VerdictMark } from '../design/VerdictMark';
import { reasonWord } from '../domain/reasons';
import { standingOf } from '../design/standing';
import { isUnwanted, useSaid } from '../jobs/receiverAnswersOfJob';
import { useCell } from '../jobs/useJob';
import { caption, captionBeside, drawn, pad, standsBeside, type View } from './layout';
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
      className={`absolute top-0 flex ${beside ? 'justify-center' : 'flex-col'} [contain:layout_style] ${selected ? 'bg-sheet' : ''} ${active ? 'z-10 outline-2 -outline-offset-2 outline-accent' : ''}`}
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
      <div className={`grid place-items-center ${beside ? '' : 'flex-1'}`}>
        <div
          data-crop
          className={`relative ${cell.state === 'skipped' ? 'opacity-35' : ''}`}
          style={{ width: size.width, height: size.height }}
        >
          <CropOrFile item={{ picture, slot, cell }} {...size} />
          {whole && <Covered clear={slot.slot.clear} />}
          {cell.state === 'skipped' && <span className="absolute inset-x-0 top-1/2 border-t-2 border-ink" />}
        </div>
      </div>
      <p
        aria-hidden
        className={`flex text-note ${beside ? 'flex-col items-start justify-end gap-1 pb-1 pl-1.5 leading-3' : 'items-center justify-center gap-1 leading-none whitespace-nowrap'}`}
        style={beside ? { width: captionBeside } : { height: caption }}
      >
        {whole && (
          <Caption
            cell={cell}
            looking={picture.looking}
            unwanted={unwanted}
            elsewhere={goesElsewhere(picture, slot)}
            width={beside ? Infinity : width}
          />
        )}
      </p>
    </div>
  );
});

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

/** True where words stand beside the mark in one line; about 6 px for a letter. */
const hasRoom = (words: string, width: number) => words.length * 6 + 34 <= width;

function Caption({
  cell,
  looking,
  unwanted,
  elsewhere,
  width,
}: {
  cell: Cell;
  looking: boolean;
  unwanted: boolean;
  elsewhere: boolean;
  /** Of the cell; infinite where the caption has lines of its own. */
  width: number;
}) {
  const heaviest = Math.max(0, ...cell.files.map((file) => file.bytes ?? 0));
  const look = cell.toReview[0];
  return (
    <>
      <VerdictMark verdict={standingOf(cell)} />
      {unwanted && !look ? (
        <span className="font-semibold">{t('bench.notAccepted')}</span>
      ) : look && hasRoom(reasonWord(look), width) ? (
        <span className="font-semibold">{reasonWord(look)}</span>
      ) : (
        <span
          className={look ? 'font-semibold underline decoration-dotted underline-offset-2' : 'text-ink-2'}
        >
          {cell.state === 'skipped'
            ? elsewhere
              ? t('bench.notHere')
              : t('bench.skipped')
            : cell.state === 'making'
              ? t('bench.making')
              : heaviest > 0
                ? weight(heaviest)
                : cell.state === 'waiting'
                  ? looking
                    ? t('bench.findingTheSubject')
                    : t('bench.waiting')
                  : t('bench.noFile')}
        </span>
      )}
    </>
  );
}

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
