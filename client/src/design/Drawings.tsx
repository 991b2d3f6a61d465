import type { ReactNode } from 'react';
import { DimensionLine } from './DimensionLine';

/** A part of the drawn scene, in its own units of 300 x 200: left, top, width, height. */
type Part = readonly [number, number, number, number];

const whole: Part = [0, 0, 300, 200];

/** A made-up picture: a buoy with its lamp on calm water. What is drawn of it is a true crop. */
function Scene({ part = whole, width }: { part?: Part; width: number }) {
  const [left, top, across, down] = part;
  return (
    <svg
      viewBox={`${left} ${top} ${across} ${down}`}
      width={width}
      height={(width * down) / across}
      className="block"
    >
      <rect width="300" height="200" className="fill-sheet" />
      <rect y="120" width="300" height="80" className="fill-line" />
      <path d="M0 150h64M96 172h120M196 142h104M20 190h90M230 186h70" className="stroke-sheet" fill="none" />
      <path d="M168 132 L176 78 h28 L212 132 q-22 12 -44 0z" className="fill-accent" />
      <path d="M173 104h34" className="stroke-sheet" strokeWidth="6" />
      <path d="M184 78v-18h12v18" className="fill-none stroke-ink-2" strokeWidth="3" />
      <circle cx="190" cy="54" r="9" className="fill-concedes" />
    </svg>
  );
}

function Measured({ width, words, children }: { width: number; words: string; children: ReactNode }) {
  return (
    <div style={{ width }}>
      <div className="outline-1 outline-surround-line">{children}</div>
      <DimensionLine along="width" length={width} className="mt-1.5">
        {words}
      </DimensionLine>
    </div>
  );
}

const crops: readonly (readonly [string, number, Part])[] = [
  ['2:1', 148, [50, 42, 250, 125]],
  ['1:1', 92, [130, 32, 120, 120]],
  ['4:5', 78, [140, 32, 100, 125]],
  ['5:1', 148, [0, 66, 300, 60]],
];

/** One picture, and what becomes of it in slots of several shapes. */
export const FramesDrawing = () => (
  <>
    <Measured width={210} words="3:2">
      <Scene width={210} />
    </Measured>
    {crops.map(([words, width, part]) => (
      <Measured key={words} width={width} words={words}>
        <Scene width={width} part={part} />
      </Measured>
    ))}
  </>
);

const screens: readonly (readonly [string, number])[] = [
  ['1440 px', 260],
  ['820 px', 170],
  ['390 px', 92],
];

/** One page on screens of several widths. */
export const ScreensDrawing = () => (
  <>
    {screens.map(([words, width]) => (
      <Measured key={words} width={width} words={words}>
        <div className="flex h-[150px] flex-col gap-2 overflow-hidden bg-sheet p-2.5">
          <span className="h-1.5 w-1/3 shrink-0 bg-line" />
          <span className="shrink-0 self-stretch outline-1 outline-line">
            <Scene width={width - 20} part={[0, 40, 300, 92]} />
          </span>
          {[1, 0.9, 0.95, 0.6, 0.9, 0.8].map((share, i) => (
            <span key={i} className="h-1.5 shrink-0 bg-line" style={{ width: `${share * 100}%` }} />
          ))}
        </div>
      </Measured>
    ))}
  </>
);

/** The same picture before and after, and what both weigh. */
export const LighterDrawing = () => (
  <>
    {[1, 0.34].map((share) => (
      <div key={share} className="w-[240px]">
        <div className="outline-1 outline-surround-line">
          <Scene width={240} />
        </div>
        <div className="mt-3 h-2 border border-surround-line">
          <div
            className={`h-full ${share === 1 ? 'bg-surround-line' : 'bg-accent'}`}
            style={{ width: `${share * 100}%` }}
          />
        </div>
      </div>
    ))}
  </>
);
