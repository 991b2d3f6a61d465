import { type MouseEvent } from 'react';
import { Covered } from '../design/Covered';
import { VerdictMark } from '../design/VerdictMark';
import { reasonQuestion } from '../domain/reasons';
import { type Chosen } from '../jobs/actions';
import { t } from '../texts/texts';
import { CropOrFile } from './CellView';

/** The longer side of a crop, and how high the widest strip is at least, in pixels. */
const side = 264;

const leastHeight = 72;

/** The words below a narrow crop are as wide as this at least. */
const leastWords = 150;

export const keyOf = ({ picture, slot }: Chosen) => `${picture.picture.id}|${slot.address}`;

export function WallCrop({
  item,
  chosen,
  held,
  onClick,
  onOpen,
}: {
  item: Chosen;
  chosen: boolean;
  held: boolean;
  onClick: (event: MouseEvent<HTMLElement>) => void;
  onOpen: () => void;
}) {
  const { picture, slot, cell } = item;
  const height = Math.max(leastHeight, (side * cell.height) / Math.max(cell.width, cell.height));
  const width = (cell.width / cell.height) * height;
  const words = cell.toReview.map(reasonQuestion);
  const wide = Math.max(width, leastWords);
  return (
    // The list has the keyboard and moves between its options.
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events
    <li
      role="option"
      aria-selected={chosen}
      aria-label={t('bench.cellToReview', {
        picture: picture.picture.name,
        slot: slot.slot.name,
        words: words.join(' '),
      })}
      data-cell={keyOf(item)}
      onClick={onClick}
      onDoubleClick={onOpen}
      className={`max-w-full overflow-hidden p-2 [content-visibility:auto] ${chosen ? 'bg-sheet' : ''} ${held ? 'outline-2 -outline-offset-2 outline-accent' : ''}`}
      // What is not on the screen is not drawn; it takes about its place.
      style={{ containIntrinsicSize: `${wide}px ${height + 38}px` }}
    >
      <div data-crop className="relative" style={{ width, height }}>
        <CropOrFile item={item} width={width} height={height} />
        <Covered clear={slot.slot.clear} />
      </div>
      <p className="mt-1.5 flex items-baseline gap-1.5 leading-4" style={{ maxWidth: wide }}>
        <span className="shrink-0">
          <VerdictMark verdict={cell.verdict} />
        </span>
        <b className="font-semibold">
          {words.map((one) => (
            <span key={one} className="block">
              {one}
            </span>
          ))}
        </b>
      </p>
      <p className="text-small leading-4 text-ink-2" style={{ maxWidth: wide }}>
        {picture.words ?? picture.picture.name}, {slot.slot.name}
      </p>
    </li>
  );
}
