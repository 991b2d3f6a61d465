import { useDrag } from '@use-gesture/react';
import type { ReactNode } from 'react';
import { addresses, type Slot, type VariantFile } from '../api/client';
import { Covered } from '../design/Covered';
import { DimensionLine } from '../design/DimensionLine';
import { count } from '../design/figures';
import { t } from '../texts/texts';

const most = { width: 300, height: 150 };

/** The slot to scale with its measures, and in it the file that its rule leads to; the clear area is drawn by its edges. */
export function SlotDrawing({
  slot,
  file,
  clear,
  onClear,
  children,
}: {
  slot: Slot;
  file: VariantFile | null;
  clear: readonly number[];
  onClear: (clear: number[]) => void;
  /** What is said of the file. */
  children?: ReactNode;
}) {
  // Where the picture gives the shape, it is the file's.
  const across = slot.width;
  const down = slot.shape == null && file ? (slot.width * file.height) / file.width : slot.height;
  const scale = Math.min(most.width / across, most.height / down);
  const [width, height] = [Math.max(24, across * scale), Math.max(24, down * scale)];
  return (
    <div className="grid justify-items-center gap-8 bg-surround px-5 pt-5 pb-3">
      <div className="relative" style={{ width, height }}>
        <span
          className={`absolute inset-0 bg-white ${slot.shape == null ? 'border border-dashed border-ink-2' : 'outline-1 outline-ink-2'}`}
        />
        {slot.fit === 'mat' && !file && <span className="absolute inset-2 bg-black/15" />}
        {file && (
          <img
            src={addresses.file(file.id)}
            alt={t('destinations.theFileOfThisRule')}
            draggable={false}
            data-testid="trial-file"
            className="absolute inset-0 h-full w-full object-contain select-none"
          />
        )}
        <Covered clear={clear} />
        {([0, 1, 2, 3] as const).map((edge) => (
          <Edge key={edge} edge={edge} clear={clear} width={width} height={height} onClear={onClear} />
        ))}
        <span className="absolute left-0" style={{ top: height + 6 }}>
          <DimensionLine along="width" length={width} className="text-surround-line">
            {t('destinations.widthPx', { width: count(slot.width) })}
          </DimensionLine>
        </span>
        <span className="absolute top-0" style={{ left: width + 6 }}>
          <DimensionLine along="height" length={height} className="text-surround-line">
            {height > 50 ? count(Math.round(down)) : ''}
          </DimensionLine>
        </span>
      </div>
      {children}
    </div>
  );
}

const edgeNames = [
  t('destinations.left'),
  t('destinations.top'),
  t('destinations.right'),
  t('destinations.bottom'),
];

function Edge({
  edge,
  clear,
  width,
  height,
  onClear,
}: {
  edge: 0 | 1 | 2 | 3;
  clear: readonly number[];
  width: number;
  height: number;
  onClear: (clear: number[]) => void;
}) {
  const across = edge === 0 || edge === 2;
  const limit = (value: number) => {
    const other = clear[edge < 2 ? edge + 2 : edge - 2]!;
    const inside = edge < 2 ? Math.min(value, other - 0.05) : Math.max(value, other + 0.05);
    return Math.round(Math.min(1, Math.max(0, inside)) * 100) / 100;
  };
  const set = (value: number) => onClear(clear.map((now, i) => (i === edge ? limit(value) : now)));
  const bind = useDrag(
    ({ movement: [mx, my], memo = clear[edge] }) => {
      set((memo as number) + (across ? mx / width : my / height));
      return memo as number;
    },
    { pointer: { keys: false } },
  );
  const at = `${clear[edge]! * 100}%`;
  return (
    <span
      {...bind()}
      role="slider"
      tabIndex={0}
      aria-label={t('destinations.clearAreaEdge', { edge: edgeNames[edge]! })}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(clear[edge]! * 100)}
      className={`absolute touch-none ${across ? 'top-0 h-full w-3 -translate-x-1/2 cursor-ew-resize' : 'left-0 h-3 w-full -translate-y-1/2 cursor-ns-resize'}`}
      style={across ? { left: at } : { top: at }}
      onKeyDown={(event) => {
        const step = { ArrowLeft: -0.01, ArrowUp: -0.01, ArrowRight: 0.01, ArrowDown: 0.01 }[event.key];
        if (step === undefined) return;
        event.preventDefault();
        set(clear[edge]! + step);
      }}
    />
  );
}
