import type { Edges, JobPicture } from '../api/client';
import type { Box } from './box';
import { toBox, union } from './solver';

/** A part of the subject that a frame cuts away at one side, in pixels of the picture. */
export interface Lost {
  side: 'left' | 'top' | 'right' | 'bottom';
  part: Box;
  /** How far the subject goes beyond the frame, in whole pixels. */
  pixels: number;
}

/** What a frame is there to show: the keep boxes, else the suggested crop unless it was rejected; null where nothing was said. */
export function subjectOf({
  decisions,
  suggestion,
}: Pick<JobPicture, 'decisions' | 'suggestion'>): Edges | null {
  return union(decisions.keep) ?? (decisions.focus || decisions.suggestionRejected ? null : suggestion);
}

/** What a frame cuts away of the subject, side by side; less than a pixel is nothing. */
export function lostBy(frame: Box, subject: Box): Lost[] {
  const { x, y, width, height } = subject;
  const [right, bottom] = [x + width, y + height];
  const [frameRight, frameBottom] = [frame.x + frame.width, frame.y + frame.height];
  const all: Lost[] = [
    { side: 'left', pixels: frame.x - x, part: { x, y, width: frame.x - x, height } },
    { side: 'top', pixels: frame.y - y, part: { x, y, width, height: frame.y - y } },
    {
      side: 'right',
      pixels: right - frameRight,
      part: { x: frameRight, y, width: right - frameRight, height },
    },
    {
      side: 'bottom',
      pixels: bottom - frameBottom,
      part: { x, y: frameBottom, width, height: bottom - frameBottom },
    },
  ];
  return all.filter((one) => one.pixels >= 1).map((one) => ({ ...one, pixels: Math.round(one.pixels) }));
}

/** The subject of a picture in its pixels; null where nothing was said. */
export function subjectBox(picture: JobPicture): Box | null {
  const edges = subjectOf(picture);
  return edges && toBox(edges, picture);
}
