import type { Frame } from '../api/client';

/** A frame in picture pixels, not rounded. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Size {
  width: number;
  height: number;
}

/** The smallest side a hand can draw, in picture pixels. */
export const smallestSide = 16;

export function boxOf(frame: readonly number[], picture: Size): Box {
  const [left = 0, top = 0, right = 1, bottom = 1] = frame;
  return {
    x: left * picture.width,
    y: top * picture.height,
    width: (right - left) * picture.width,
    height: (bottom - top) * picture.height,
  };
}

export function frameOf(box: Box, picture: Size): Frame {
  const part = (value: number, all: number) => Math.min(1, Math.max(0, value / all));
  return [
    part(box.x, picture.width),
    part(box.y, picture.height),
    part(box.x + box.width, picture.width),
    part(box.y + box.height, picture.height),
  ];
}

/** Where a box lies on the screen, at so many CSS pixels for one pixel of the picture. */
export const scaled = (box: Box, scale: number) => ({
  left: box.x * scale,
  top: box.y * scale,
  width: box.width * scale,
  height: box.height * scale,
});

/** Pushes a box back inside the picture without changing its size. */
export function inside(box: Box, picture: Size): Box {
  return {
    ...box,
    x: Math.min(Math.max(0, box.x), picture.width - box.width),
    y: Math.min(Math.max(0, box.y), picture.height - box.height),
  };
}

export function moved(box: Box, dx: number, dy: number, picture: Size): Box {
  return inside({ ...box, x: box.x + dx, y: box.y + dy }, picture);
}

/** The nearest width that keeps the shape and stays between the smallest side and the picture's edges. */
function fittingWidth(width: number, ratio: number, picture: Size): number {
  const widest = Math.min(picture.width, picture.height * ratio);
  const narrowest = Math.min(widest, smallestSide * Math.max(1, ratio));
  return Math.min(widest, Math.max(narrowest, width));
}

/** Tightens (factor below 1) or loosens around a point, keeping the shape exactly. */
export function zoomed(
  box: Box,
  factor: number,
  at: { x: number; y: number },
  picture: Size,
  ratio: number | null,
): Box {
  const shape = ratio ?? box.width / box.height;
  const width = fittingWidth(box.width * factor, shape, picture);
  const scale = width / box.width;
  return inside(
    { x: at.x - (at.x - box.x) * scale, y: at.y - (at.y - box.y) * scale, width, height: width / shape },
    picture,
  );
}

export type Corner = 'top-left' | 'top-right' | 'bottom-left' | 'bottom-right';

/** Draws one corner to a point; the opposite corner stays. With a shape, the shape is kept exactly. */
export function cornerTo(
  box: Box,
  corner: Corner,
  to: { x: number; y: number },
  picture: Size,
  ratio: number | null,
): Box {
  const fromRight = corner.endsWith('left');
  const fromBottom = corner.startsWith('top');
  const anchor = { x: fromRight ? box.x + box.width : box.x, y: fromBottom ? box.y + box.height : box.y };
  const room = {
    width: fromRight ? anchor.x : picture.width - anchor.x,
    height: fromBottom ? anchor.y : picture.height - anchor.y,
  };
  let width = Math.abs(Math.min(picture.width, Math.max(0, to.x)) - anchor.x);
  let height = Math.abs(Math.min(picture.height, Math.max(0, to.y)) - anchor.y);
  if (ratio !== null) {
    width = Math.max(width, height * ratio, smallestSide * Math.max(1, ratio));
    width = Math.min(width, room.width, room.height * ratio);
    height = width / ratio;
  } else {
    width = Math.min(room.width, Math.max(smallestSide, width));
    height = Math.min(room.height, Math.max(smallestSide, height));
  }
  return {
    x: fromRight ? anchor.x - width : anchor.x,
    y: fromBottom ? anchor.y - height : anchor.y,
    width,
    height,
  };
}

/** Takes an exact figure for one edge or side; the shape is kept, the box pushed back inside. */
export function withFigure(
  box: Box,
  field: keyof Box,
  value: number,
  picture: Size,
  ratio: number | null,
): Box {
  if (field === 'x' || field === 'y') return inside({ ...box, [field]: value }, picture);
  if (ratio !== null) {
    const width = fittingWidth(field === 'width' ? value : value * ratio, ratio, picture);
    return inside({ ...box, width, height: width / ratio }, picture);
  }
  const most = field === 'width' ? picture.width : picture.height;
  return inside({ ...box, [field]: Math.min(most, Math.max(smallestSide, value)) }, picture);
}
