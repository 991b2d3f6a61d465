import { useDrag } from '@use-gesture/react';
import { useRef } from 'react';
import { addresses, type Picture, type Slot } from '../api/client';
import { type Box, moved } from './box';

const most = { width: 266, height: 210 };

/** The slot's own window onto the picture: what will be delivered, in the slot's shape. Dragging moves what is seen. */
export function SlotWindow({
  picture,
  slot,
  box,
  onHold,
  onCommit,
}: {
  picture: Picture;
  slot: Slot;
  box: Box;
  onHold: (box: Box | null) => void;
  onCommit: (box: Box) => void;
}) {
  const shape = slot.fit === 'mat' && slot.shape ? slot.shape : box.width / box.height;
  const width = Math.min(most.width, most.height * shape);
  const height = width / shape;
  const scale = Math.min(width / box.width, height / box.height);
  const content = { width: box.width * scale, height: box.height * scale };
  const start = useRef(box);
  const drag = useDrag(
    ({ first, last, movement: [mx, my] }) => {
      if (first) start.current = box;
      if (mx === 0 && my === 0) return;
      const next = moved(start.current, -mx / scale, -my / scale, picture);
      if (last) onCommit(next);
      else onHold(next);
    },
    { threshold: 0, pointer: { keys: false } },
  );
  return (
    <div className="grid place-items-center bg-surround p-5">
      <div className="grid place-items-center bg-white outline-1 outline-ink-2" style={{ width, height }}>
        <div
          {...drag()}
          className={`relative cursor-grab touch-none overflow-hidden active:cursor-grabbing ${picture.hasAlpha ? 'transparent-ground' : ''}`}
          style={content}
          data-testid="slot-window"
        >
          <img
            src={addresses.preview(picture.id, 1800)}
            alt={`What ${slot.name} shows`}
            draggable={false}
            className="absolute max-w-none bg-cover select-none"
            style={{
              backgroundImage: `url(${addresses.preview(picture.id, 480)})`,
              width: picture.width * scale,
              height: picture.height * scale,
              left: -box.x * scale,
              top: -box.y * scale,
            }}
          />
        </div>
      </div>
    </div>
  );
}
