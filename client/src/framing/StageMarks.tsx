import { type Corner } from '../domain/box';

const trims = [
  'top-0 left-0 border-t border-l',
  'top-0 right-0 border-t border-r',
  'bottom-0 left-0 border-b border-l',
  'right-0 bottom-0 border-r border-b',
];

/** The corners of another shape's frame: lines that cross lines cannot be read. */
export function TrimMarks({ style }: { style: React.CSSProperties }) {
  return (
    <div data-testid="trim-marks" className="absolute" style={style}>
      {trims.map((corner) => (
        <span
          key={corner}
          className={`absolute h-2.5 w-2.5 border-white drop-shadow-[0_0_1px_black] ${corner}`}
        />
      ))}
    </div>
  );
}

export function KeepBox({
  style,
  name,
  suggested = false,
}: {
  style: { left: number; top: number; width: number; height: number };
  name: string;
  suggested?: boolean;
}) {
  return (
    <span
      aria-hidden
      data-testid={suggested ? 'suggestion' : 'keep'}
      className={`pointer-events-none absolute border-2 ${suggested ? 'border-dashed' : ''} border-white mix-blend-normal outline-1 outline-black/50`}
      style={style}
    >
      <span className="absolute top-0 left-0 bg-white px-1 text-note leading-[14px] text-black">{name}</span>
    </span>
  );
}

/** A face that was found: what the suggestion is kept whole for. */
export function FaceMark({ style }: { style: { left: number; top: number; width: number; height: number } }) {
  return (
    <span
      aria-hidden
      data-testid="face"
      className="pointer-events-none absolute rounded-[50%] border border-white/90 outline-1 outline-black/40"
      style={style}
    />
  );
}

export function CornerGrip({ corner }: { corner: Corner }) {
  const right = corner.endsWith('right');
  const bottom = corner.startsWith('bottom');
  return (
    <span
      data-part={corner}
      className={`absolute h-6 w-6 ${right ? '-right-3' : '-left-3'} ${bottom ? '-bottom-3' : '-top-3'} ${right === bottom ? 'cursor-nwse-resize' : 'cursor-nesw-resize'}`}
    >
      {/* Trim marks, as printers cut by: outside the frame, so that they cover nothing of it. */}
      <span
        aria-hidden
        className={`pointer-events-none absolute h-0.5 w-3 bg-white outline-1 outline-black/60 ${right ? 'left-3.5' : 'right-3.5'} ${bottom ? 'bottom-[11px]' : 'top-[11px]'}`}
      />
      <span
        aria-hidden
        className={`pointer-events-none absolute h-3 w-0.5 bg-white outline-1 outline-black/60 ${bottom ? 'top-3.5' : 'bottom-3.5'} ${right ? 'right-[11px]' : 'left-[11px]'}`}
      />
    </span>
  );
}

/** The point that every crop keeps in sight. */
export function Focus({ x, y }: { x: number; y: number }) {
  const line = 'absolute bg-white outline-1 outline-black/60';
  return (
    <span
      aria-hidden
      data-testid="focus"
      className="pointer-events-none absolute h-6 w-6 -translate-x-1/2 -translate-y-1/2"
      style={{ left: x, top: y }}
    >
      <span className={`${line} top-1/2 left-0 h-0.5 w-full -translate-y-1/2`} />
      <span className={`${line} top-0 left-1/2 h-full w-0.5 -translate-x-1/2`} />
    </span>
  );
}
