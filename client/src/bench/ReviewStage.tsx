import type { MouseEvent } from 'react';
import { addresses } from '../api/client';
import { Covered } from '../design/Covered';
import { DimensionLine } from '../design/DimensionLine';
import { count, size as sizeWords } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import { boxOf, scaled } from '../domain/box';
import { type Lost, lostBy, subjectBox } from '../domain/lost';
import { type Chosen } from '../jobs/actions';
import { t } from '../texts/texts';
import { CropOrFile } from './CellView';

/** From this ratio on a crop is a strip: it takes the whole width, and the picture stands below it. */
const strip = 2.4;

/** What stands around the pictures: the line above the crop, the gap between both, and the dimension line of the whole. */
const [line, gap, measure] = [22, 16, 22];

const sideWords = {
  left: t('bench.onTheLeft'),
  top: t('bench.atTheTop'),
  right: t('bench.onTheRight'),
  bottom: t('bench.atTheBottom'),
};

interface Room {
  width: number;
  height: number;
}

/** The crop in hand, as large as the window lets it be, and the whole picture with what the crop cuts away. */
export function ReviewStage({
  item,
  onPoint,
  onOpen,
}: {
  item: Chosen;
  onPoint: (crop: DOMRect, event: MouseEvent) => void;
  onOpen: () => void;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const { picture, slot, cell } = item;
  const ratio = cell.width / cell.height;
  const stacked = ratio >= strip;
  const sides = size && layOut(size, ratio, picture.width / picture.height, stacked);
  return (
    <div ref={room} className="min-h-0 min-w-0 overflow-hidden" data-testid="review-stage">
      {sides && (
        <div
          className={`grid h-full place-content-center ${stacked ? 'justify-items-center' : 'grid-flow-col items-start'}`}
          style={{ gap }}
        >
          <figure>
            <figcaption className="text-small text-ink-2" style={{ height: line }}>
              {t('bench.cropOf', { slot: slot.slot.name, size: sizeWords(cell.width, cell.height) })}
            </figcaption>
            <button
              type="button"
              aria-label={t('bench.pointOfTheCrop')}
              tabIndex={-1}
              className="relative block cursor-crosshair"
              style={sides.crop}
              onClick={(event) => onPoint(event.currentTarget.getBoundingClientRect(), event)}
              onDoubleClick={onOpen}
            >
              <CropOrFile item={item} width={sides.crop.width} height={sides.crop.height} large />
              <Covered clear={slot.slot.clear} />
            </button>
          </figure>
          <WholePicture item={item} size={sides.whole} />
        </div>
      )}
    </div>
  );
}

/** How large both are drawn: as large as they can be beside each other, or below. */
function layOut(room: Room, crop: number, whole: number, stacked: boolean) {
  if (stacked) {
    const wide = Math.min(room.width, (room.height * 0.5 - line) * crop);
    const high = room.height - wide / crop - 2 * line - gap - measure;
    return { crop: fit(wide, wide / crop, crop), whole: fit(room.width, high, whole) };
  }
  const [width, height] = [(room.width - gap) / 2, room.height - line - measure];
  const both = { crop: fit(width, height, crop), whole: fit(width, height, whole) };
  // What one leaves of its half is the other's.
  return {
    crop: fit(room.width - gap - both.whole.width, height, crop),
    whole: fit(room.width - gap - both.crop.width, height, whole),
  };
}

function fit(width: number, height: number, ratio: number) {
  const wide = Math.max(40, Math.min(width, height * ratio));
  return { width: Math.round(wide), height: Math.round(wide / ratio) };
}

function WholePicture({ item: { picture, cell }, size }: { item: Chosen; size: Room }) {
  const scale = size.width / picture.width;
  const frame = boxOf(cell.frame, picture);
  const subject = subjectBox(picture);
  const lost = subject ? lostBy(frame, subject) : [];
  return (
    <figure>
      <figcaption className="text-small text-ink-2" style={{ height: line }}>
        {t('bench.wholePicture', { name: picture.words ?? picture.picture.name })}
      </figcaption>
      <div className="relative overflow-hidden" style={size}>
        <img
          src={addresses.preview(picture.picture.id, picture.shown, 1800)}
          alt=""
          draggable={false}
          className={`block h-full w-full select-none ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
        />
        <div
          data-testid="frame"
          className="absolute shadow-[0_0_0_9999px_rgb(40_40_40/0.55)] outline-2 outline-white"
          style={scaled(frame, scale)}
        />
        {subject && lost.length > 0 && (
          <div
            className="absolute border-2 border-dashed border-white outline-1 outline-black/50"
            style={scaled(subject, scale)}
          />
        )}
        {lost.map((one) => (
          <LostSide key={one.side} lost={one} scale={scale} />
        ))}
      </div>
      <DimensionLine along="width" length={size.width} className="mt-1 text-ink-2">
        {`${count(picture.width)} px`}
      </DimensionLine>
    </figure>
  );
}

/** The side of the subject that is cut, with its measure. */
function LostSide({ lost: { side, part, pixels }, scale }: { lost: Lost; scale: number }) {
  const place = scaled(part, scale);
  const middle = { left: place.left + place.width / 2, top: place.top + place.height / 2 };
  return (
    <>
      <span aria-hidden className="covered absolute" style={place} />
      <span
        data-testid="lost"
        className="absolute -translate-x-1/2 -translate-y-1/2 bg-sheet px-1.5 text-note leading-4 font-semibold whitespace-nowrap text-ink"
        style={middle}
      >
        {t('bench.lostAtSide', { pixels: count(pixels), side: sideWords[side] })}
      </span>
    </>
  );
}
