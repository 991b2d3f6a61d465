import { memo } from 'react';
import { addresses, type Picture } from '../api/client';
import { DimensionLine } from '../design/DimensionLine';
import { count, weight } from '../design/figures';

const gap = 22;

/** One picture with its measures, as on a drawing sheet; drawn once while the library goes by. */
export const PictureSheet = memo(function PictureSheet({
  picture,
  side,
  chosen,
  onChoose,
}: {
  picture: Picture;
  side: number;
  chosen: boolean;
  onChoose: (picture: Picture) => void;
}) {
  const room = side - gap;
  const scale = Math.min(room / picture.width, room / picture.height);
  const width = Math.max(24, picture.width * scale);
  const height = Math.max(24, picture.height * scale);
  return (
    <div>
      <button
        type="button"
        onClick={() => onChoose(picture)}
        aria-pressed={chosen}
        className="block w-full text-left"
        title={picture.name}
      >
        <span className="flex items-end justify-center" style={{ height: room }}>
          <span className="grid grid-cols-[auto_18px]">
            <img
              src={addresses.preview(picture.id, picture.shown, 480)}
              alt=""
              loading="lazy"
              decoding="async"
              width={width}
              height={height}
              className={`block object-fill ${picture.hasAlpha ? 'transparent-ground' : ''} ${chosen ? 'outline-3 outline-offset-2 outline-accent' : ''}`}
              style={{ width, height }}
            />
            <DimensionLine along="height" length={height} className="ml-1 text-surround-line">
              {height > 60 ? count(picture.height) : ''}
            </DimensionLine>
          </span>
        </span>
        <span className="mt-1 flex justify-center pr-[18px]">
          <DimensionLine along="width" length={width} className="text-surround-line">
            {count(picture.width)}
          </DimensionLine>
        </span>
        <span className="mt-1 flex items-baseline justify-between gap-2">
          <span className={`wrap-anywhere ${chosen ? 'font-semibold' : ''}`}>{picture.name}</span>
          <span className="shrink-0 text-ink-2">
            {weight(picture.bytes)} {picture.formatLabel}
          </span>
        </span>
      </button>
    </div>
  );
});
