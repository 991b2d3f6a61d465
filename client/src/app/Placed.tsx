import type { ReactNode } from 'react';
import type { Destination, Framing, Picture, Slot } from '../api/client';
import { type Place, useDestinations, useFraming, usePictures } from '../api/queries';
import { Notice } from '../design/Notice';

/** A picture, a slot, and how the one stands in the other. */
export interface PlacedPicture {
  place: Place;
  picture: Picture;
  destination: Destination;
  slot: Slot;
  framing: Framing;
}

/** Finds what an address names, and says so where there is no such thing. */
export function Placed({
  place,
  children,
}: {
  place: Place;
  children: (placed: PlacedPicture) => ReactNode;
}) {
  const pictures = usePictures();
  const destinations = useDestinations();
  const framing = useFraming(place);
  const picture = pictures.data?.find((one) => one.id === place.id);
  const destination = destinations.data?.find((one) => one.key === place.destination);
  const slot = destination?.slots.find((one) => one.key === place.slot);
  const fault = pictures.error ?? destinations.error ?? framing.error;
  if (fault) return <Notice>{fault.message}</Notice>;
  if (pictures.data && !picture) return <Notice>There is no such picture.</Notice>;
  if (!picture || !destination || !slot || !framing.data) return <Notice>Laying out the picture.</Notice>;
  return children({ place, picture, destination, slot, framing: framing.data });
}
