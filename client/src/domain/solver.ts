import type { Decisions, Edges, JobPicture, Point, Slot } from '../api/client';
import { decisionFor } from './decisions';
import { type Box, boxOf, inside, type Size } from './box';

/**
 * The core's frame solver once more, in the browser: frames must follow while a finger drags, and asking the server for each
 * would come too late. What is stored is always the server's; a test holds the two against each other.
 */

export const edgesList = (edges: Edges) => [edges.left, edges.top, edges.right, edges.bottom] as const;

export const toBox = (edges: Edges, picture: Size) => boxOf(edgesList(edges), picture);

/** The largest box of a shape in the middle of another. */
function shaped(box: Box, ratio: number): Box {
  const width = Math.min(box.width, box.height * ratio);
  const height = width / ratio;
  return {
    x: box.x + box.width / 2 - width / 2,
    y: box.y + box.height / 2 - height / 2,
    width,
    height,
  };
}

const clamp = (value: number, low: number, high: number) => Math.min(Math.max(value, low), high);

/** A frame with a point at the clear area's centre, pushed back inside the picture. */
const placed = (frame: Box, picture: Size, clear: Edges, x: number, y: number): Box =>
  inside(
    {
      ...frame,
      x: Math.max(0, x - (frame.width * (clear.left + clear.right)) / 2),
      y: Math.max(0, y - (frame.height * (clear.top + clear.bottom)) / 2),
    },
    picture,
  );

const widest = (before: number, behind: number, coveredBefore: number, coveredBehind: number) =>
  Math.min(
    coveredBefore > 1e-9 ? before / coveredBefore : Infinity,
    coveredBehind > 1e-9 ? behind / coveredBehind : Infinity,
  );

const held = (at: number, low: number, high: number, most: number) =>
  clamp(clamp(at, low, Math.max(low, high)), 0, Math.max(0, most));

const shifted = (at: number, side: number, keepAt: number, keepSide: number, most: number) =>
  clamp(
    keepSide > side ? keepAt + (keepSide - side) / 2 : clamp(at, keepAt + keepSide - side, keepAt),
    0,
    Math.max(0, most - side),
  );

/** The widths of frames that hold the box in their clear area; none where the least is more than the most. */
function widths(keep: Box, picture: Size, largest: Box, clear: Edges): { least: number; most: number } {
  const aspect = largest.width / largest.height;
  return {
    least: Math.max(
      keep.width / (clear.right - clear.left),
      (aspect * keep.height) / (clear.bottom - clear.top),
    ),
    most: Math.min(
      largest.width,
      widest(keep.x, picture.width - keep.x - keep.width, clear.left, 1 - clear.right),
      aspect * widest(keep.y, picture.height - keep.y - keep.height, clear.top, 1 - clear.bottom),
    ),
  };
}

/** True where a frame's clear area holds a box, but for half a pixel of rounding. */
const holds = (frame: Box, clear: Edges, keep: Box) =>
  Math.max(
    frame.x + clear.left * frame.width - keep.x,
    frame.y + clear.top * frame.height - keep.y,
    keep.x + keep.width - frame.x - clear.right * frame.width,
    keep.y + keep.height - frame.y - clear.bottom * frame.height,
  ) <= 0.5;

/** Where a side of a frame begins that holds a box though it leaves the picture: as little as it must. */
function beyond(
  side: number,
  keepFrom: number,
  keepTo: number,
  most: number,
  clearFrom: number,
  clearTo: number,
): number {
  const middle = (keepFrom + keepTo) / 2 - (side * (clearFrom + clearTo)) / 2;
  const within = clamp(middle, Math.min(0, most - side), Math.max(0, most - side));
  const [low, high] = [keepTo - clearTo * side, keepFrom - clearFrom * side];
  return clamp(within, Math.min(low, high), Math.max(low, high));
}

function around(
  keep: Box,
  picture: Size,
  largest: Box,
  clear: Edges,
  share: number | null,
  extend: boolean,
  eyes: number | null = null,
): Box {
  const aspect = largest.width / largest.height;
  const [across, down] = [clear.right - clear.left, clear.bottom - clear.top];
  const centre = { x: keep.x + keep.width / 2, y: keep.y + keep.height / 2 };
  const centreY = (height: number) =>
    eyes === null ? centre.y : eyes * picture.height + (0.5 - eyeLine) * down * height;
  const { least, most } = widths(keep, picture, largest, clear);
  if (least > most + 1e-6) {
    const frame = placed(largest, picture, clear, centre.x, centreY(largest.height));
    const within = {
      ...frame,
      x: shifted(frame.x, frame.width, keep.x, keep.width, picture.width),
      y: shifted(frame.y, frame.height, keep.y, keep.height, picture.height),
    };
    if (!extend || holds(within, clear, keep)) return within;
    const width = share === null ? least : least / share;
    const height = width / aspect;
    return {
      x: beyond(width, keep.x, keep.x + keep.width, picture.width, clear.left, clear.right),
      y: beyond(height, keep.y, keep.y + keep.height, picture.height, clear.top, clear.bottom),
      width,
      height,
    };
  }
  const wanted =
    share === null ? most : Math.max(keep.width / (share * across), (aspect * keep.height) / (share * down));
  const width = clamp(wanted, least, Math.max(least, most));
  const height = width / aspect;
  const frame = placed({ x: 0, y: 0, width, height }, picture, clear, centre.x, centreY(height));
  return {
    ...frame,
    x: held(
      frame.x,
      keep.x + keep.width - clear.right * width,
      keep.x - clear.left * width,
      picture.width - width,
    ),
    y: held(
      frame.y,
      keep.y + keep.height - clear.bottom * frame.height,
      keep.y - clear.top * frame.height,
      picture.height - frame.height,
    ),
  };
}

/** How far below the top of a frame eyes lie where nothing else is in the way. */
const eyeLine = 1 / 3;

/** A suggested box that overhangs its frame by no more than this is still framed as a whole; a face is cut by nothing. */
const tolerated = 1.12;

/** The first suggested part that a frame can hold, all of it or nearly; else the last, as the smallest. */
function holdable({ suggestedParts: parts, faces, ...picture }: JobPicture, largest: Box, clear: Edges) {
  const found = parts.find((part, i) => {
    const { least, most } = widths(toBox(part.box, picture), picture, largest, clear);
    return least <= most * (i === 0 && faces.length === 0 ? tolerated : 1) + 1e-6;
  });
  return found ?? parts.at(-1);
}

/** The frame that a slot shows of a picture under these decisions, in pixels of the turned picture. */
export function frameFor(picture: JobPicture, slot: Slot, address: string, decisions: Decisions): Box {
  const all: Box = { x: 0, y: 0, width: picture.width, height: picture.height };
  const cell = decisionFor(decisions, address);
  const hand = cell.unlinked ? cell.frame : decisions.framings[slot.shapeKey];
  if (hand) {
    const box = toBox(hand, picture);
    return slot.ratio === null ? box : shaped(box, slot.ratio);
  }
  if (slot.fit !== 'crop' || slot.ratio === null) return all;
  const largest = shaped(all, slot.ratio);
  const [left = 0, top = 0, right = 1, bottom = 1] = slot.clear;
  const clear = { left, top, right, bottom };
  const keep = union(decisions.keep);
  if (keep) return around(toBox(keep, picture), picture, largest, clear, slot.subjectShare, slot.extend);
  if (decisions.focus)
    return placed(
      largest,
      picture,
      clear,
      decisions.focus.x * picture.width,
      decisions.focus.y * picture.height,
    );
  if (picture.suggestion && !decisions.suggestionRejected) {
    const plain = picture.suggestionKind === 'plainBackdrop';
    // What stands before a plain backdrop is known well enough to extend that for it.
    const part = plain && slot.extend ? undefined : holdable(picture, largest, clear);
    return around(
      toBox(part?.box ?? picture.suggestion, picture),
      picture,
      largest,
      clear,
      plain ? slot.subjectShare : null,
      plain && slot.extend,
      part?.eyes,
    );
  }
  const toward = slot.toward as Point | null;
  if (toward) return placed(largest, picture, clear, toward.x * picture.width, toward.y * picture.height);
  if (picture.content && !decisions.suggestionRejected)
    return placed(
      largest,
      picture,
      clear,
      picture.content.x * picture.width,
      picture.content.y * picture.height,
    );
  return largest;
}

export function union(boxes: readonly Edges[]): Edges | null {
  const [first, ...rest] = boxes;
  return first
    ? rest.reduce(
        (one, other) => ({
          left: Math.min(one.left, other.left),
          top: Math.min(one.top, other.top),
          right: Math.max(one.right, other.right),
          bottom: Math.max(one.bottom, other.bottom),
        }),
        first,
      )
    : null;
}
