import { useState } from 'react';
import type { PageElement } from '../api/client';
import { count } from '../design/figures';
import { DimensionLine } from '../design/DimensionLine';

/** Lies over the page and measures the element that is pointed at; a click keeps it. */
export function Ruler({
  elements,
  scale,
  kept,
  onKeep,
}: {
  elements: readonly PageElement[];
  /** Pixels on the screen for one of the page. */
  scale: number;
  kept: PageElement | null;
  onKeep: (element: PageElement) => void;
}) {
  const [pointed, setPointed] = useState<PageElement | null>(null);
  const at = (event: React.PointerEvent<HTMLDivElement>) => {
    const room = event.currentTarget.getBoundingClientRect();
    return smallest(elements, (event.clientX - room.left) / scale, (event.clientY - room.top) / scale);
  };
  return (
    <div
      className="absolute inset-0 z-30 cursor-crosshair"
      data-testid="ruler"
      onPointerMove={(event) => setPointed(at(event))}
      onPointerLeave={() => setPointed(null)}
      onPointerDown={(event) => {
        const element = at(event);
        if (element) onKeep(element);
      }}
    >
      {kept && <Measured element={kept} scale={scale} kept />}
      {pointed && pointed !== kept && <Measured element={pointed} scale={scale} />}
    </div>
  );
}

/** The smallest element that a point of the page lies in. */
export function smallest(elements: readonly PageElement[], x: number, y: number): PageElement | null {
  let found: PageElement | null = null;
  for (const one of elements) {
    const { place } = one;
    const isIn = x >= place.x && x < place.x + place.width && y >= place.y && y < place.y + place.height;
    if (isIn && (!found || place.width * place.height <= found.place.width * found.place.height)) found = one;
  }
  return found;
}

function Measured({ element, scale, kept = false }: { element: PageElement; scale: number; kept?: boolean }) {
  const { x, y, width, height } = element.place;
  return (
    <div
      className={`pointer-events-none absolute outline-2 ${kept ? 'outline-accent' : 'outline-ink outline-dashed'}`}
      style={{ left: x * scale, top: y * scale, width: width * scale, height: height * scale }}
    >
      {/* The room inside of it, without padding and border. */}
      <div className="absolute top-1 left-1/2 -translate-x-1/2 bg-sheet text-ink">
        <DimensionLine along="width" length={element.inner * scale}>
          {count(element.inner)}
        </DimensionLine>
      </div>
    </div>
  );
}
