import { useEffect, useState } from 'react';
import { addresses, type JobPicture, type PreviewView, type Slot } from '../api/client';
import { Crop } from '../design/Crop';
import { size as sizeWords } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import type { Area } from '../domain/overlay';
import { ColourPicker } from './ColourPicker';
import { PlacedArea } from './PlacedArea';
import { t } from '../texts/texts';

const margin = 40;

/** The very file of a slot, with what is drawn over it; where it may stand is placed by hand. */
export function OverlayStage({
  name,
  look,
  crop,
  expected,
  area,
  plain,
  onArea,
  onPick,
}: {
  name: string;
  look: PreviewView | null;
  /** The crop as it is known at once, until the file is drawn; null where the cell is not there yet. */
  crop: { picture: JobPicture; slot: Slot; frame: readonly number[] } | null;
  /** How large the file will be, as far as the slot says it: so that nothing moves once it is there. */
  expected: { width: number; height: number };
  /** Where the title or what is written may stand; null where nothing is placed. */
  area: Area | null;
  /** The pixels without anything over them, while an ink is picked. */
  plain: string | null;
  /** Placed; while the hand still holds it, it is not done. */
  onArea: (area: Area, done: boolean) => void;
  onPick: (ink: string | null) => void;
}) {
  const [room, inside] = useElementSize<HTMLDivElement>();
  const shown = useLoaded(look);
  const file = shown ?? expected;
  const scale = inside
    ? Math.min(1, (inside.width - 2 * margin) / file.width, (inside.height - 2 * margin) / file.height)
    : 0;
  const [width, height] = [file.width * scale, file.height * scale];
  const part = (box: readonly number[]) => ({
    left: box[0]! * scale,
    top: box[1]! * scale,
    width: (box[2]! - box[0]!) * scale,
    height: (box[3]! - box[1]!) * scale,
  });
  const [left, top] = inside ? [(inside.width - width) / 2, (inside.height - height) / 2] : [0, 0];
  const last = shown?.dress?.last;
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden select-none" data-testid="over-stage">
      {inside && (
        <>
          <Size shown={shown} expected={expected} scale={scale} left={left} top={top} />
          <div className="absolute bg-sheet-2" style={{ left, top, width, height }}>
            {!shown && crop && <Crop {...crop} width={width} height={height} side={1800} />}
            {shown && (
              <img
                src={addresses.look(shown.id)}
                alt={t('overlay.nameAsDelivered', { name })}
                draggable={false}
                className="block h-full w-full select-none"
                data-testid="over-look"
              />
            )}
            {last && !plain && (
              <span
                className="pointer-events-none absolute border border-white outline-1 outline-black"
                style={part(last)}
                title={t('overlay.theLowestContrastIsHere')}
                data-testid="over-last"
              />
            )}
            {area && !plain && <PlacedArea area={area} width={width} height={height} onArea={onArea} />}
            {plain && shown && (
              <ColourPicker source={addresses.look(plain)} width={width} height={height} onPick={onPick} />
            )}
          </div>
        </>
      )}
    </div>
  );
}

/** How large the file is, and at which scale it is shown. */
function Size({
  shown,
  expected,
  scale,
  left,
  top,
}: {
  shown: PreviewView | null;
  expected: { width: number; height: number };
  scale: number;
  left: number;
  top: number;
}) {
  return (
    <p className="absolute text-small leading-5" style={{ left, top: top - 22 }}>
      {shown
        ? `${sizeWords(shown.width, shown.height)}${scale < 1 ? t('overlay.shownAtScale', { scale: Math.round(scale * 100) }) : t('overlay.shownAt100')}`
        : sizeWords(expected.width, expected.height)}
    </p>
  );
}

/** A look once its pixels are there; the one before until then, so that nothing flickers. */
function useLoaded(look: PreviewView | null): PreviewView | null {
  const [shown, setShown] = useState<PreviewView | null>(null);
  useEffect(() => {
    if (!look) return;
    let gone = false;
    const image = new Image();
    image.src = addresses.look(look.id);
    void image
      .decode()
      .then(() => !gone && setShown(look))
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [look]);
  return shown;
}
