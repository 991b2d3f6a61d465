import { type MouseEvent } from 'react';
import type { ReasonCode } from '../api/client';
import { Covered } from '../design/Covered';
import { reasonQuestion, reasonWord } from '../domain/reasons';
import { type Chosen } from '../jobs/actions';
import { CropOrFile } from './CellView';

/** The room of a crop in the list, in pixels. */
const room = { width: 240, height: 112 };

export const keyOf = ({ picture, slot }: Chosen) => `${picture.picture.id}|${slot.address}`;

export function WallCrop({
  item,
  under,
  chosen,
  held,
  onClick,
  onOpen,
}: {
  item: Chosen;
  /** The question that stands over the group. */
  under: ReasonCode;
  chosen: boolean;
  held: boolean;
  onClick: (event: MouseEvent) => void;
  onOpen: () => void;
}) {
  const { picture, slot, cell } = item;
  const width = Math.min(room.width, (room.height * cell.width) / cell.height);
  const height = (width * cell.height) / cell.width;
  const more = cell.toReview.filter((one) => one !== under);
  return (
    // The list has the keyboard and moves between its options.
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events
    <div
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      data-cell={keyOf(item)}
      onClick={onClick}
      onDoubleClick={onOpen}
      className={`relative px-3 pt-2.5 pb-1.5 -outline-offset-2 outline-accent [content-visibility:auto] ${chosen ? 'bg-sheet-2' : ''} ${held ? 'outline-2' : 'outline-0'}`}
      // What is not on the screen is not drawn; it takes about its place.
      style={{ containIntrinsicSize: `${room.width}px ${height + 48}px` }}
    >
      <div className="relative" style={{ width, height }}>
        <CropOrFile item={item} width={width} height={height} />
        <Covered clear={slot.slot.clear} />
      </div>
      <p className="mt-1 leading-4 wrap-anywhere">
        {picture.words ?? picture.picture.name}
        <span className="text-ink-2">, {slot.slot.name}</span>
      </p>
      <span className="sr-only">{cell.toReview.map(reasonQuestion).join(' ')}</span>
      {more.length > 0 && (
        <p aria-hidden className="text-small leading-4 text-ink-2">
          {more.map(reasonWord).join(', ')}
        </p>
      )}
    </div>
  );
}
