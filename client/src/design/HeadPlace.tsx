import { createContext, type ReactNode, useContext } from 'react';
import { createPortal } from 'react-dom';

const Place = createContext<HTMLElement | null>(null);

/** Where the one head over all screens has room for what the screen below puts there. */
export const HeadPlaceProvider = Place.Provider;

/** Shows its children in the head; nothing before the head is there. */
export function InHead({ children }: { children: ReactNode }) {
  const place = useContext(Place);
  return place && createPortal(children, place);
}
