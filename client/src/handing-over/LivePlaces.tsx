import { Link } from 'wouter';
import { addresses, type JobPicture, type PublishedPlace } from '../api/client';
import { Button } from '../design/Button';
import { count, weight } from '../design/figures';
import { useHead, useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

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
          <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-3">
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
          {places.map((place) => (
            <Row
              key={place.path}
              place={place}
              picture={pictures.get(place.picture)}
              onCopy={() => onCopy(place)}
            />
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
        <Button className="h-7!" onClick={onPublish}>
          {t('handingOver.publish')}
        </Button>
      </p>
    </li>
  );
}

function Row({
  place,
  picture,
  onCopy,
}: {
  place: PublishedPlace;
  picture: JobPicture | undefined;
  onCopy: () => void;
}) {
  const store = useJobStore();
  return (
    <li
      className="grid grid-cols-[56px_minmax(0,1.2fr)_minmax(0,1fr)_150px_auto] items-center gap-3 border-b border-line px-3 py-1.5"
      data-state={place.state}
    >
      {picture ? (
        <img
          src={addresses.preview(picture.picture.id, picture.shown, 480)}
          alt=""
          loading="lazy"
          className="h-8 w-14 object-contain"
        />
      ) : (
        <span />
      )}
      <span className="wrap-anywhere">
        {picture ? (
          <Link
            href={`/job/${store.id}/framing/${place.picture}?slot=${place.slot}`}
            className="text-accent underline underline-offset-2"
          >
            {picture.words ?? picture.picture.name}
          </Link>
        ) : (
          place.path.split('/')[0]
        )}
        , {place.name}
      </span>
      <span className="wrap-anywhere">
        <StateMark state={place.state} /> {words[place.state]}
      </span>
      <span className="text-right text-ink-2">
        {place.fetches > 0 &&
          t('handingOver.fetchesRequestsBytes', {
            fetches: count(place.fetches),
            bytes: weight(place.bytes),
          })}
      </span>
      <span className="flex gap-1.5">
        {place.address && (
          <a
            href={place.address}
            target="_blank"
            rel="noreferrer"
            className="inline-flex h-7 items-center rounded-md border border-line px-2 font-medium hover:border-ink-2"
          >
            {t('handingOver.open')}
          </a>
        )}
        <Button className="h-7!" disabled={!place.html} onClick={onCopy}>
          {t('handingOver.copy')}
        </Button>
      </span>
    </li>
  );
}

/** Full, half or empty: told apart by shape as well as by words. */
function StateMark({ state }: { state: PublishedPlace['state'] }) {
  return (
    <svg viewBox="0 0 12 12" width="11" height="11" aria-hidden className="inline -translate-y-px">
      <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" strokeWidth="1.4" />
      {state !== 'fresh' && (
        <rect
          x="1"
          y="1"
          width={state === 'live' ? 10 : 5}
          height="10"
          fill="currentColor"
          className={state === 'live' ? 'text-meets' : 'text-concedes'}
        />
      )}
    </svg>
  );
}
