import { Suspense, useEffect } from 'react';
import { Link, Route, Switch } from 'wouter';
import { BenchScreen } from '../bench/BenchScreen';
import { Notice } from '../design/Notice';
import { useFolderIntake } from '../folders/useFolderIntake';
import { JobBar } from '../jobs/JobBar';
import { JobsScreen } from '../jobs/JobsScreen';
import { SaidOfJob } from '../jobs/receiverAnswersOfJob';
import { JobRoom } from '../jobs/useJob';
import { usePageIntake } from '../page-check/usePageIntake';
import { t } from '../texts/texts';
import {
  DestinationsScreen,
  FolderScreen,
  FoldersScreen,
  FramingScreen,
  HandingOverScreen,
  LiveScreen,
  LogScreen,
  MyAccountScreen,
  OriginalPageScreen,
  PageCheckScreen,
  PageChecksScreen,
  PagesScreen,
  PeopleScreen,
  PicturesScreen,
  ReceiversScreen,
  ResponsiveScreen,
  WeighingScreen,
  fetchScreens,
} from './lazyScreens';

/** After so long the first screen is drawn, and the others are fetched; in milliseconds. */
const whenQuiet = 1500;

/** Everything that happens to one job. */
function Job({ id, onChoose }: { id: string; onChoose: () => void }) {
  return (
    <JobRoom id={id}>
      <SaidOfJob job={id}>
        <Suspense>
          <Switch>
            <Route path="/job/:id">
              <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
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
        </Suspense>
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

/** The screen of an address. */
export function Screens({
  job,
  onChoose,
  pages,
  folders,
}: {
  job: string | null;
  onChoose: () => void;
  pages: ReturnType<typeof usePageIntake>;
  folders: ReturnType<typeof useFolderIntake>;
}) {
  useEffect(() => {
    const timer = setTimeout(fetchScreens, whenQuiet);
    return () => clearTimeout(timer);
  }, []);
  return (
    <Suspense>
      <Switch>
        <Route path="/">
          <JobsScreen />
        </Route>
        <Route path="/pictures">
          <PicturesScreen onChoose={onChoose} />
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
        <Route path="/account">
          <MyAccountScreen />
        </Route>
        <Route path="/people">
          <PeopleScreen />
        </Route>
        <Route path="/log">
          <LogScreen />
        </Route>
        <Route path="/job/:id/*?">{job && <Job id={job} onChoose={onChoose} />}</Route>
        <Route>
          <Nowhere />
        </Route>
      </Switch>
    </Suspense>
  );
}
