import type { Cell, JobPicture, JobSlot } from '../api/client';
import { Crop } from '../design/Crop';

/** What the file will show, from the picture's small copies, as large as the file will be: there before it is made. */
export function SmallCopy({
  picture,
  slot,
  cell,
  descriptor,
}: {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell;
  descriptor: string;
}) {
  const pixels = cell.files.find((one) => one.descriptor === descriptor) ?? cell;
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = [pixels.width / ratio, pixels.height / ratio];
  return (
    <div
      className="absolute top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2"
      style={{ width, height }}
      data-testid="meanwhile"
    >
      {/* The copy that the bench shows is there already; the finer one comes over it. */}
      {([480, 1800] as const).map((side) => (
        <Crop
          key={side}
          picture={picture}
          slot={slot.slot}
          frame={cell.frame}
          width={width}
          height={height}
          side={side}
        />
      ))}
    </div>
  );
}
