import { useEffect, useRef, useState } from 'react';
import { Link, Route, Switch, useLocation, useRoute } from 'wouter';
import { api, take } from '../api/client';
import { BenchScreen } from '../bench/BenchScreen';
import { Notice } from '../design/Notice';
import { DestinationsScreen } from '../destinations/DestinationsScreen';
import { FolderScreen } from '../folders/FolderScreen';
import { FoldersScreen } from '../folders/FoldersScreen';
import { useFolderIntake } from '../folders/useFolderIntake';
import { FramingScreen } from '../framing/FramingScreen';
import { HandingOverScreen } from '../handing-over/HandingOverScreen';
import { LiveScreen } from '../handing-over/LiveScreen';
import { OriginalPageScreen } from '../handing-over/OriginalPageScreen';
import { PagesScreen } from '../handing-over/PagesScreen';
import { ReceiversScreen } from '../handing-over/ReceiversScreen';
import { JobBar } from '../jobs/JobBar';
import { JobsScreen } from '../jobs/JobsScreen';
import { SaidOfJob } from '../jobs/receiverAnswersOfJob';
import { JobRoom } from '../jobs/useJob';
import { PageCheckScreen } from '../page-check/PageCheckScreen';
import { PageChecksScreen } from '../page-check/PageChecksScreen';
import { usePageIntake } from '../page-check/usePageIntake';
import { AddingPictures } from '../pictures/AddingPictures';
import { useIntake } from '../pictures/intake';
import { PicturesScreen } from '../pictures/PicturesScreen';
import { ResponsiveScreen } from '../responsive/ResponsiveScreen';
import { t } from '../texts/texts';
import { WeighingScreen } from '../weighing/WeighingScreen';
import { DropEverywhere } from './DropEverywhere';
import { TopBar } from './TopBar';

export function App() {
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

  return (
    <DropEverywhere onFiles={(files) => void add(files)}>
      <div className="grid h-full grid-rows-[44px_1fr_auto]">
        <TopBar inJob={job !== null} fault={fault} />
        <main className="min-h-0 overflow-hidden">
          <Switch>
            <Route path="/">
              <JobsScreen />
            </Route>
            <Route path="/pictures">
              <PicturesScreen onChoose={choose} />
            </Route>
            <Route path="/destinations/:destination?/:slot?">
              {(place) => <DestinationsScreen destination={place.destination} slot={place.slot} />}
            </Route>
            <Route path="/folders">
              <FoldersScreen intake={folders} />
            </Route>
            <Route path="/folders/:id">{(place) => <FolderScreen id={place.id} />}</Route>
            <Route path="/page-checks">
              <PageChecksScreen intake={pages} />
            </Route>
            <Route path="/page-checks/:id">{(place) => <PageCheckScreen id={place.id} />}</Route>
            <Route path="/job/:id/*?">{job && <Job id={job} onChoose={choose} />}</Route>
            <Route>
              <Nowhere />
            </Route>
          </Switch>
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

/** Everything that happens to one job. */
function Job({ id, onChoose }: { id: string; onChoose: () => void }) {
  return (
    <JobRoom id={id}>
      <SaidOfJob job={id}>
        <Switch>
          <Route path="/job/:id">
            <div className="grid h-full min-h-0 grid-rows-[auto_1fr]">
              <div>
                <JobBar stage="bench" />
              </div>
              <BenchScreen onChoose={onChoose} />
            </div>
          </Route>
          <Route path="/job/:id/framing/:picture">
            {(place) => <FramingScreen pictureId={place.picture} />}
          </Route>
          <Route path="/job/:id/weighing/:picture/:destination/:slot">
            {(place) => (
              <WeighingScreen pictureId={place.picture} address={`${place.destination}/${place.slot}`} />
            )}
          </Route>
          <Route path="/job/:id/responsive/:picture/:destination/:slot">
            {(place) => (
              <ResponsiveScreen pictureId={place.picture} address={`${place.destination}/${place.slot}`} />
            )}
          </Route>
          <Route path="/job/:id/handing-over">
            <HandingOverScreen />
          </Route>
          <Route path="/job/:id/handing-over/receivers/:receiver?">
            {(place) => <ReceiversScreen receiver={place.receiver} />}
          </Route>
          <Route path="/job/:id/handing-over/live">
            <LiveScreen />
          </Route>
          <Route path="/job/:id/handing-over/old-page">
            <OriginalPageScreen />
          </Route>
          <Route path="/job/:id/handing-over/pages">
            <PagesScreen />
          </Route>
          <Route>
            <Nowhere />
          </Route>
        </Switch>
      </SaidOfJob>
    </JobRoom>
  );
}

function Nowhere() {
  return (
    <Notice
      action={
        <Link href="/" className="text-accent underline">
          {t('app.goToJobs')}
        </Link>
      }
    >
      {t('app.thereIsNoPageAtThis')}
    </Notice>
  );
}
