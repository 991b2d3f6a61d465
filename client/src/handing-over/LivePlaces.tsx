import { Link } from 'wouter';
import { addresses, type JobPicture, type PublishedPlace } from '../api/client';
import { Button } from '../design/Button';
import { count, weight } from '../design/figures';
import { useHead, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { StateMark } from './StateMark';

const words: Record<PublishedPlace['state'], string> = {
  fresh: t('handingOver.notLiveYet'),
  live: t('handingOver.liveAndCurrent'),
  differs: t('handingOver.unpublishedChanges'),
  gone: t('handingOver.noLongerInTheJob'),
};
/** What differs from what is live, side by side, and then every place of the job. */
export function LivePlaces({
  places,
  onPublish,
  onCopy,
}: {
  places: readonly PublishedPlace[];
  onPublish: (path: string) => void;
  onCopy: (place: PublishedPlace) => void;
}) {
  const head = useHead();
  const pictures = new Map(head.pictures.map((one) => [one.picture.id, one]));
  const differing = places.filter((place) => place.state === 'differs');
  return (
    <div className="min-h-0 overflow-y-auto px-5 py-4">
      {differing.length > 0 && (
        <section className="mb-5" aria-label={t('handingOver.unpublishedChanges')}>
          <h2>{t('handingOver.placesHaveUnpublishedChanges', { count: differing.length })}</h2>
          <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(min(340px,100%),1fr))] gap-3">
            {differing.map((place) => (
              <Differing
                key={place.path}
                place={place}
                picture={pictures.get(place.picture)}
                onPublish={() => onPublish(place.path)}
              />
            ))}
          </ul>
        </section>
      )}
      <section aria-label={t('handingOver.places')}>
        <h2>{t('handingOver.allPlaces')}</h2>
        <ul className="mt-1 border-t border-line bg-sheet">
          {[...Map.groupBy(places, (place) => place.picture)].map(([id, mine]) => (
            <PictureRow key={id} picture={pictures.get(id)} places={mine} onCopy={onCopy} />
          ))}
        </ul>
      </section>
    </div>
  );
}

/** What pages get now beside what the job has: one step makes it live. */
function Differing({
  place,
  picture,
  onPublish,
}: {
  place: PublishedPlace;
  picture: JobPicture | undefined;
  onPublish: () => void;
}) {
  return (
    <li className="border border-line bg-sheet" data-testid="differs">
      <div className="grid grid-cols-2 gap-px bg-line">
        {[
          { name: t('handingOver.liveNow'), src: place.before },
          { name: t('handingOver.inTheJob'), src: place.now && addresses.file(place.now) },
        ].map(({ name, src }) => (
          <figure key={name} className="bg-surround">
            <div className="grid h-36 place-items-center">
              {src ? (
                <img src={src} alt={name} className="max-h-36 max-w-full object-contain" />
              ) : (
                <span className="text-ink-2">{t('handingOver.beingMade')}</span>
              )}
            </div>
            <figcaption className="bg-sheet px-2 py-0.5 text-small text-ink-2">{name}</figcaption>
          </figure>
        ))}
      </div>
      <p className="flex items-center gap-2 px-2 py-1.5">
        <span className="min-w-0 flex-1 wrap-anywhere">
          {picture?.words ?? picture?.picture.name}, {place.name}
        </span>
        <Button needs="publish" className="h-7!" onClick={onPublish}>
          {t('handingOver.publish')}
        </Button>
      </p>
    </li>
  );
}

/** One picture, and how each of its places stands. */
function PictureRow({
  picture,
  places,
  onCopy,
}: {
  picture: JobPicture | undefined;
  places: readonly PublishedPlace[];
  onCopy: (place: PublishedPlace) => void;
}) {
  const states = Map.groupBy(places, (place) => place.state);
  return (
    <li className="grid grid-cols-[96px_150px_minmax(0,1fr)] gap-4 max-md:grid-cols-[minmax(0,1fr)] border-b border-line px-3 py-2.5">
      {picture ? (
        <img
          src={addresses.preview(picture.picture.id, picture.shown, 480)}
          alt=""
          loading="lazy"
          className="h-16 w-24 object-contain object-left"
        />
      ) : (
        <span />
      )}
      <div>
        <p className="font-semibold wrap-anywhere">
          {picture ? (picture.words ?? picture.picture.name) : places[0]!.path.split('/')[0]}
        </p>
        {[...states].map(([state, mine]) => (
          <p key={state} className="text-ink-2">
            {t('handingOver.placesInState', { count: mine.length, state: words[state] })}
          </p>
        ))}
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(230px,100%),1fr))] gap-x-5 gap-y-1.5">
        {places.map((place) => (
          <Place key={place.path} place={place} known={picture !== undefined} onCopy={() => onCopy(place)} />
        ))}
      </ul>
    </li>
  );
}

function Place({ place, known, onCopy }: { place: PublishedPlace; known: boolean; onCopy: () => void }) {
  const store = useJobStore();
  const quiet =
    'inline-flex min-h-6 min-w-6 items-center text-accent underline underline-offset-2 disabled:text-ink-2 disabled:no-underline';
  return (
    <li className="flex items-baseline gap-2" data-state={place.state}>
      <span className="relative shrink-0" title={words[place.state]}>
        <StateMark state={place.state} />
        <span className="sr-only">{words[place.state]}</span>
      </span>
      <span className="min-w-0">
        <span className="block wrap-anywhere">
          {known ? (
            <Link
              href={`/job/${store.id}/framing/${place.picture}?slot=${place.slot}`}
              className="inline-flex min-h-6 items-center hover:underline"
            >
              {place.name}
            </Link>
          ) : (
            place.name
          )}
        </span>
        <span className="flex flex-wrap items-center gap-x-3 text-small">
          {place.address && (
            <a href={place.address} target="_blank" rel="noreferrer" className={quiet}>
              {t('handingOver.open')}
            </a>
          )}
          <button type="button" disabled={!place.html} onClick={onCopy} className={quiet}>
            {t('handingOver.copy')}
          </button>
          {place.fetches > 0 && (
            <span className="text-ink-2">
              {t('handingOver.fetchesRequestsBytes', {
                fetches: count(place.fetches),
                bytes: weight(place.bytes),
              })}
            </span>
          )}
        </span>
      </span>
    </li>
  );
}
