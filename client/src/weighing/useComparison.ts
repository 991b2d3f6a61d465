import { useDrag } from '@use-gesture/react';
import { useRef, useState } from 'react';
import type { VariantFile } from '../api/client';
import { useDivider } from '../design/Divider';
import { useElementSize } from '../design/useElementSize';
import { useHeldKey } from '../design/useHeldKey';

/** Where a file lies in its room at true pixels: panned by hand or to its worst place, and where the divider is. */
export function useComparison(file: VariantFile | null, worst: number) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const [share, setShare] = useDivider();
  const [pan, setPan] = useState({ x: 0, y: 0 });
  const seeThrough = useHeldKey('s');
  const [answered, setAnswered] = useState(0);
  // The pixels without loss are made when they are asked for: until then the file is seen on both sides.
  const [compared, setCompared] = useState<string | null>(null);
  const whole = file !== null && compared === file.id;
  const [arrived, setArrived] = useState<string | null>(null);
  const isThere = file !== null && arrived === file.id;
  const ratio = window.devicePixelRatio || 1;
  const [width, height] = file ? [file.width / ratio, file.height / ratio] : [0, 0];
  const free = size
    ? { x: Math.max(0, (width - size.width) / 2), y: Math.max(0, (height - size.height) / 2) }
    : { x: 0, y: 0 };
  const spot = file?.worstPlace;
  if (spot && worst !== answered) {
    // The middle of the worst place goes to the middle of the room, as far as the edges allow; the divider cuts through it.
    setAnswered(worst);
    setPan({
      x: width / 2 - (spot[0]! + spot[2]!) / 2 / ratio,
      y: height / 2 - (spot[1]! + spot[3]!) / 2 / ratio,
    });
    setShare(0.5);
  }
  const clamp = (value: number, most: number) => Math.min(most, Math.max(-most, value));
  const at = { x: clamp(pan.x, free.x), y: clamp(pan.y, free.y) };
  const left = size ? (size.width - width) / 2 + at.x : 0;
  const top = size ? (size.height - height) / 2 + at.y : 0;
  // The divider lives in the part of the picture that is on screen, so that it is always within reach.
  const from = Math.max(0, left);
  const to = Math.min(size?.width ?? 0, left + width);
  const divider = seeThrough ? to : from + (to - from) * share;
  const start = useRef(at);
  const panning = useDrag(
    ({ first, movement: [x, y] }) => {
      if (first) start.current = at;
      setPan({ x: clamp(start.current.x + x, free.x), y: clamp(start.current.y + y, free.y) });
    },
    { pointer: { keys: false } },
  );
  return {
    ...{ room, size, left, top, ratio, divider, from, to, panning, share, setShare, seeThrough },
    ...{ answered, spot, whole, isThere, setArrived, setCompared },
    place: { left, top, width, height },
  };
}
