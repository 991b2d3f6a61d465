import { useDrag } from '@use-gesture/react';
import { useRef, useState } from 'react';
import { useShortcuts } from './useShortcuts';
import { t } from '../texts/texts';

/** Where a divider between two pictures stands, as a share of the way; arrow keys move it. */
export function useDivider() {
  const [share, setShare] = useState(0.5);
  const step = (by: number) => () => setShare((now) => Math.min(1, Math.max(0, now + by)));
  useShortcuts({ arrowleft: step(-0.02), arrowright: step(0.02) });
  return [share, setShare] as const;
}

/** What is dragged between before and after. */
export function Divider({
  share,
  onShare,
  from,
  to,
}: {
  share: number;
  onShare: (share: number) => void;
  /** The ends of its way, in pixels of the room. */
  from: number;
  to: number;
}) {
  const start = useRef(share);
  const sliding = useDrag(
    ({ first, movement: [x], event }) => {
      event.stopPropagation();
      if (first) start.current = share;
      onShare(Math.min(1, Math.max(0, start.current + x / Math.max(1, to - from))));
    },
    { pointer: { keys: false } },
  );
  return (
    <div
      {...sliding()}
      role="slider"
      tabIndex={0}
      aria-label={t('common.dividerBetweenBeforeAndAfter')}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      className="absolute inset-y-0 z-10 w-7 -translate-x-1/2 cursor-ew-resize touch-none"
      style={{ left: from + (to - from) * share }}
    >
      <span className="absolute inset-y-0 left-1/2 w-[3px] -translate-x-1/2 border-x border-black bg-white" />
      <span className="absolute top-1/2 left-1/2 h-8 w-3 -translate-x-1/2 -translate-y-1/2 border border-black bg-white" />
    </div>
  );
}
