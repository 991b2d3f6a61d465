import { useEffect, useRef, useState } from 'react';
import { useLocation, useRoute } from 'wouter';
import { api, take } from '../api/client';
import { useFolderIntake } from '../folders/useFolderIntake';
import { usePageIntake } from '../page-check/usePageIntake';
import { AddingPictures } from '../pictures/AddingPictures';
import { useIntake } from '../pictures/intake';
import { t } from '../texts/texts';
import { HeadPlaceProvider } from '../design/HeadPlace';
import { Entrance } from '../accounts/Entrance';
import { DropEverywhere } from './DropEverywhere';
import { GuestScreen } from './lazyScreens';
import { Screens } from './Screens';
import { TopBar } from './TopBar';

/** Whoever is known comes in; a guest to one job alone. */
export function App() {
  return (
    <Entrance guest={(job) => <GuestScreen job={job} />}>
      <Application />
    </Entrance>
  );
}

function Application() {
  const [, go] = useLocation();
  const [inJob, params] = useRoute('/job/:id/*?');
  const [inLibrary] = useRoute('/pictures');
  const [inPages] = useRoute('/page-checks/*?');
  const [inFolders] = useRoute('/folders/*?');
  const pages = usePageIntake();
  const folders = useFolderIntake();
  const job = inJob ? params.id : null;
  // Where files go is decided when they are dropped: into the job that is open, else into a new one.
  const destination = useRef<string | null>(job);
  const [fault, setFault] = useState<string | null>(null);
  const intake = useIntake((pictures, into) => {
    if (!into) return;
    take(api.POST('/api/jobs/{id}/pictures', { params: { path: { id: into } }, body: pictures })).then(
      () => setFault(null),
      (refusal: Error) => setFault(refusal.message),
    );
  });
  useEffect(() => {
    destination.current = job;
  });
  const add = async (files: Iterable<File>) => {
    const all = [...files];
    if (all.length === 0) return;
    if (inPages) {
      await pages.add(all);
      return;
    }
    if (inFolders) {
      await folders.add(all);
      return;
    }
    let into = destination.current;
    if (!into && !inLibrary) {
      try {
        into = (await take(api.POST('/api/jobs', { body: { name: null, pictures: null, slots: null } }))).id;
        go(`/job/${into}`);
      } catch (refusal) {
        setFault((refusal as Error).message);
        return;
      }
    }
    intake.add(all, into);
  };
  const chooser = useRef<HTMLInputElement>(null);
  const choose = () => chooser.current?.click();
  const [headPlace, setHeadPlace] = useState<HTMLElement | null>(null);

  return (
    <DropEverywhere onFiles={(files) => void add(files)}>
      <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
        <TopBar inJob={job !== null} fault={fault} onPlace={setHeadPlace} />
        <main className="min-h-0 overflow-hidden">
          <HeadPlaceProvider value={headPlace}>
            <Screens job={job} onChoose={choose} pages={pages} folders={folders} />
          </HeadPlaceProvider>
        </main>
        <AddingPictures arrivals={intake.arrivals} onStop={intake.stop} onClear={intake.clear} />
      </div>
      <input
        ref={chooser}
        type="file"
        multiple
        hidden
        aria-label={t('app.choosePictures')}
        accept="image/*,.svg,.avif,.webp,.tif,.tiff,.heic,.heif,.hif,.bmp,.jxl"
        onChange={(event) => {
          void add([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </DropEverywhere>
  );
}
