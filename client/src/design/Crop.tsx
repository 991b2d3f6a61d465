import { addresses, type JobPicture, type Slot } from '../api/client';

/** What a frame shows of a picture, drawn from the small copy at once, before any file is made. */
export function Crop({
  picture,
  slot,
  frame,
  width,
  height,
  side = 480,
}: {
  picture: Pick<JobPicture, 'shown' | 'width' | 'height' | 'picture'>;
  slot: Slot;
  /** Left, top, right, bottom as fractions of the turned picture. */
  frame: readonly number[];
  width: number;
  height: number;
  side?: 480 | 1800;
}) {
  const [left = 0, top = 0, right = 1, bottom = 1] = frame;
  // A mat keeps the frame's own shape within the slot; otherwise the frame fills it.
  const shape = ((right - left) * picture.width) / ((bottom - top) * picture.height);
  const content =
    slot.fit === 'mat'
      ? { width: Math.min(width, height * shape), height: Math.min(height, width / shape) }
      : { width, height };
  return (
    <span
      className={`absolute inset-0 grid place-items-center ${slot.fit === 'mat' ? 'bg-white' : ''}`}
      data-testid="crop"
    >
      <span
        className={`relative block overflow-hidden ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
        style={content}
      >
        <img
          src={addresses.preview(picture.picture.id, picture.shown, side)}
          alt=""
          draggable={false}
          decoding="async"
          className="absolute max-w-none origin-top-left bg-cover select-none"
          style={{
            // The small copy, which is there already, until the large one is made.
            backgroundImage:
              side > 480 && !picture.picture.hasAlpha
                ? `url(${addresses.preview(picture.picture.id, picture.shown, 480)})`
                : undefined,
            width: content.width / (right - left),
            height: content.height / (bottom - top),
            transform: `translate(${(-left * content.width) / (right - left)}px, ${(-top * content.height) / (bottom - top)}px)`,
          }}
        />
      </span>
    </span>
  );
}
