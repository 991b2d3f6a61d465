import { useState } from 'react';
import { useLocation } from 'wouter';
import type { VariantWish } from '../api/client';
import { useVariant } from '../api/queries';
import type { PlacedPicture } from '../app/Placed';
import { StageHeader } from '../app/StageHeader';
import { useKeys } from '../app/useKeys';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import { Compare } from './Compare';
import { WeighingPanel } from './WeighingPanel';

/** One variant on the beam: before and after, the weight, the download. */
export function WeighingScreen({ place, picture, destination, slot, framing }: PlacedPicture) {
  const [, go] = useLocation();
  const [density, setDensity] = useState(slot.densities[0] ?? 1);
  const [quality, setQuality] = useState<number | null>(null);
  const [format, setFormat] = useState<string | null>(null);
  // Raised each time the worst place is asked for.
  const [worst, setWorst] = useState(0);
  const wish: VariantWish = {
    pictureId: picture.id,
    destination: destination.key,
    slot: slot.key,
    density,
    format,
    quality,
  };
  const variant = useVariant(wish, true);
  const file = variant.data?.file ?? null;
  const step = (by: number) => () =>
    setQuality(Math.min(100, Math.max(1, (quality ?? file?.quality ?? slot.qualityCeiling) + by)));
  useKeys({
    '+': step(1),
    '=': step(1),
    '-': step(-1),
    a: () => setQuality(null),
    w: () => setWorst((times) => times + 1),
    d: () => document.querySelector<HTMLAnchorElement>('a[data-download]')?.click(),
    b: () => go(`/picture/${place.id}/${place.destination}/${place.slot}/framing`),
    p: () => go('/'),
  });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
      <StageHeader place={place} picture={picture} destination={destination} slot={slot} stage="weighing" />
      <div className="grid min-h-0 grid-cols-[1fr_348px]">
        {variant.isError ? (
          <Notice>{variant.error.message}</Notice>
        ) : variant.data && !file ? (
          <Notice>{variant.data.reasons.map((reason) => sentence(reason.message)).join(' ')}</Notice>
        ) : (
          <Compare file={file} working={variant.isFetching} worst={worst} />
        )}
        <WeighingPanel
          picture={picture}
          slot={slot}
          plans={framing.plans}
          variant={variant.data ?? null}
          working={variant.isFetching}
          density={density}
          onDensity={setDensity}
          format={format}
          onFormat={setFormat}
          quality={quality}
          onQuality={setQuality}
          onWorst={() => setWorst((times) => times + 1)}
        />
      </div>
    </div>
  );
}
