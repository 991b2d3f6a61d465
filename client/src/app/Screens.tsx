import { Link, Route, Switch } from 'wouter';
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
import { PicturesScreen } from '../pictures/PicturesScreen';
import { ResponsiveScreen } from '../responsive/ResponsiveScreen';
import { t } from '../texts/texts';
import { WeighingScreen } from '../weighing/WeighingScreen';

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
  return (
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
      <Route path="/job/:id/*?">{job && <Job id={job} onChoose={onChoose} />}</Route>
      <Route>
        <Nowhere />
      </Route>
    </Switch>
  );
}
