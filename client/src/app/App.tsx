import { useRef } from 'react';
import { Link, Route, Switch } from 'wouter';
import type { Place } from '../api/queries';
import { Notice } from '../design/Notice';
import { FramingScreen } from '../framing/FramingScreen';
import { Arrivals } from '../pictures/Arrivals';
import { useIntake } from '../pictures/intake';
import { PicturesScreen } from '../pictures/PicturesScreen';
import { WeighingScreen } from '../weighing/WeighingScreen';
import { DropEverywhere } from './DropEverywhere';
import { Placed } from './Placed';
import { KeysHelp } from './KeysHelp';
import { SurroundSwitch } from './SurroundSwitch';

/** A screen starts anew for another picture or slot: nothing of the last one's undo or quality may linger. */
const addressOf = (place: Place) => `${place.id}/${place.destination}/${place.slot}`;

export function App() {
  const intake = useIntake();
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <DropEverywhere onFiles={intake.add}>
      <div className="grid h-full grid-rows-[44px_1fr_auto]">
        <header className="flex items-center gap-4 border-b border-line bg-sheet px-5">
          <Link href="/" className="flex items-center gap-2.5 text-[15px] font-bold">
            <svg viewBox="0 0 32 20" width="30" height="19" aria-hidden className="text-accent">
              <path d="M3 1v18M29 1v18M3 10h8M21 10h8" stroke="currentColor" strokeWidth="2.4" fill="none" />
              <path
                d="M13 10h6"
                stroke="currentColor"
                strokeWidth="2.4"
                strokeDasharray="1.6 1.6"
                fill="none"
              />
            </svg>
            Pantomet
          </Link>
          <span className="flex-1" />
          <SurroundSwitch />
          <KeysHelp />
        </header>
        <main className="min-h-0 overflow-hidden">
          <Switch>
            <Route path="/">
              <PicturesScreen onChoose={() => chooser.current?.click()} />
            </Route>
            <Route path="/picture/:id/:destination/:slot/framing">
              {(place) => (
                <Placed place={place}>
                  {(placed) => <FramingScreen key={addressOf(place)} {...placed} />}
                </Placed>
              )}
            </Route>
            <Route path="/picture/:id/:destination/:slot/weighing">
              {(place) => (
                <Placed place={place}>
                  {(placed) => <WeighingScreen key={addressOf(place)} {...placed} />}
                </Placed>
              )}
            </Route>
            <Route>
              <Notice
                action={
                  <Link href="/" className="text-accent underline">
                    Go to the pictures
                  </Link>
                }
              >
                There is nothing at this address.
              </Notice>
            </Route>
          </Switch>
        </main>
        <Arrivals arrivals={intake.arrivals} onStop={intake.stop} onClear={intake.clear} />
      </div>
      <input
        ref={chooser}
        type="file"
        multiple
        hidden
        aria-label="Choose pictures"
        accept="image/*,.svg,.avif,.webp,.tif,.tiff"
        onChange={(event) => {
          intake.add(event.target.files ?? []);
          event.target.value = '';
        }}
      />
    </DropEverywhere>
  );
}
