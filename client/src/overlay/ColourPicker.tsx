import { useEffect, useRef, useState } from 'react';

/** How many pixels the glass shows across, and how large each. */
const across = 11;
const grain = 9;

const hex = (pixel: Uint8ClampedArray) =>
  `#${[...pixel.slice(0, 3)].map((value) => value.toString(16).padStart(2, '0')).join('')}`;

function inkAt(pixels: HTMLCanvasElement, { x, y }: { x: number; y: number }, width: number, height: number) {
  const place = (value: number, all: number, most: number) =>
    Math.min(most - 1, Math.max(0, Math.floor((value / all) * most)));
  const [px, py] = [place(x, width, pixels.width), place(y, height, pixels.height)];
  return { x, y, px, py, ink: hex(pixels.getContext('2d')!.getImageData(px, py, 1, 1).data) };
}

function magnify(context: CanvasRenderingContext2D, pixels: HTMLCanvasElement, px: number, py: number) {
  context.imageSmoothingEnabled = false;
  context.fillStyle = '#808080';
  context.fillRect(0, 0, across * grain, across * grain);
  const half = (across - 1) / 2;
  context.drawImage(pixels, px - half, py - half, across, across, 0, 0, across * grain, across * grain);
  context.strokeStyle = '#ffffff';
  context.strokeRect(half * grain + 0.5, half * grain + 0.5, grain - 1, grain - 1);
  context.strokeStyle = '#000000';
  context.strokeRect(half * grain - 0.5, half * grain - 0.5, grain + 1, grain + 1);
}

/** A magnifying glass over the picture: the pixel in its middle is the ink. */
export function ColourPicker({
  source,
  width,
  height,
  onPick,
}: {
  source: string;
  width: number;
  height: number;
  onPick: (ink: string | null) => void;
}) {
  const glass = useRef<HTMLCanvasElement>(null);
  const [pixels, setPixels] = useState<HTMLCanvasElement | null>(null);
  const [point, setPoint] = useState<{ x: number; y: number } | null>(null);
  useEffect(() => {
    const image = new Image();
    image.src = source;
    let gone = false;
    void image.decode().then(() => {
      if (gone) return;
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
      canvas.getContext('2d', { willReadFrequently: true })!.drawImage(image, 0, 0);
      setPixels(canvas);
    });
    return () => {
      gone = true;
    };
  }, [source]);
  // A hand that rests there before the picture has come sees it when it comes.
  const at = pixels && point ? inkAt(pixels, point, width, height) : null;
  const [px, py] = [at?.px, at?.py];
  useEffect(() => {
    const context = glass.current?.getContext('2d');
    if (context && pixels && px !== undefined && py !== undefined) magnify(context, pixels, px, py);
  }, [pixels, px, py]);
  const look = (event: React.PointerEvent<HTMLDivElement>) => {
    const edges = event.currentTarget.getBoundingClientRect();
    setPoint({ x: event.clientX - edges.left, y: event.clientY - edges.top });
  };
  const side = across * grain;
  return (
    <div
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerMove={look}
      onPointerDown={look}
      onPointerUp={() => at && onPick(at.ink)}
      data-testid="ink-picker"
    >
      <div
        className="pointer-events-none absolute border border-black bg-sheet"
        style={{
          visibility: at ? 'visible' : 'hidden',
          left: Math.min((at?.x ?? 0) + 18, width - side - 2),
          top: Math.min((at?.y ?? 0) + 18, height - side - 22),
          width: side + 2,
        }}
      >
        <canvas ref={glass} width={side} height={side} className="block" />
        <p className="bg-sheet text-center text-small leading-5" data-testid="picked">
          {at?.ink}
        </p>
      </div>
    </div>
  );
}
