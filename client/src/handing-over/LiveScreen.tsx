import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'wouter';
import { addresses, api, type JobPicture, type PublishedPlace, take } from '../api/client';
import { useKeys } from '../app/useKeys';
import { Button, Key } from '../design/Button';
import { count, weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';

const words: Record<PublishedPlace['state'], string> = {
  fresh: 'Not live yet',
  live: 'Live as it is here',
  differs: 'Differs from what is live',
  gone: 'No longer in the job',
};
/** How long the numbers of fetches stand before they are asked for again, in milliseconds. */
const again = 15_000;

/** Addresses on this server that pages can use: what answers there, against the job as it is. */
export function LiveScreen() {
  const store = useJobStore();
  const head = useHead();
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [copied, setCopied] = useState<string | null>(null);
  const [fixed, setFixed] = useState(false);
  const sequence = useJob((job) => job.sequence);
  const key = ['publication', store.id];
  const look = useQuery({
    queryKey: [...key, sequence],
    queryFn: () =>
      take(
        api.GET('/api/jobs/{id}/publication', {
          params: { path: { id: store.id }, query: { base: location.origin } },
        }),
      ),
    placeholderData: (previous) => previous,
    refetchInterval: again,
    gcTime: 5_000,
  });
  const change = useMutation({
    mutationFn: (what: { path: string | null } | 'withdraw') =>
      what === 'withdraw'
        ? take(api.DELETE('/api/jobs/{id}/publication', { params: { path: { id: store.id } } }))
        : take(api.POST('/api/jobs/{id}/publication', { params: { path: { id: store.id } }, body: what })),
    onSettled: () => cache.invalidateQueries({ queryKey: key }),
  });
  const publication = look.data;
  const places = publication?.places ?? [];
  const differing = places.filter((place) => place.state === 'differs');
  const fresh = places.filter((place) => place.state === 'fresh');
  const open = differing.length + fresh.length;
  const published = publication?.key != null;
  const publish = () => change.mutate({ path: null });
  const copy = (what: string, text: string) =>
    void navigator.clipboard.writeText(text).then(() => setCopied(what));
  const copyAll = () =>
    copy(
      'The markup of the whole job',
      places.flatMap((place) => (fixed ? place.htmlFixed : place.html) ?? []).join('\n\n'),
    );
  useKeys({ p: publish, 'shift+c': copyAll, b: () => go(`/job/${store.id}`) });
  const pictures = new Map(head.pictures.map((one) => [one.picture.id, one]));
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" />
      </div>
      <HandOverTabs part="live" />
      {look.isError ? (
        <Notice>{look.error.message}</Notice>
      ) : !publication ? (
        <Notice>Looking at what is live.</Notice>
      ) : places.length === 0 ? (
        <Notice>The job has no file that could be made live yet.</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[1fr_300px]">
          <div className="min-h-0 overflow-y-auto px-5 py-4">
            {differing.length > 0 && (
              <section className="mb-5" aria-label="Differs from what is live">
                <h2>
                  {differing.length} {differing.length === 1 ? 'place differs' : 'places differ'} from what is
                  live
                </h2>
                <ul className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-3">
                  {differing.map((place) => (
                    <Differing
                      key={place.path}
                      place={place}
                      picture={pictures.get(place.picture)}
                      onPublish={() => change.mutate({ path: place.path })}
                    />
                  ))}
                </ul>
              </section>
            )}
            <section aria-label="Places">
              <h2>Every picture in every place</h2>
              <ul className="mt-1 border-t border-line bg-sheet">
                {places.map((place) => (
                  <Row
                    key={place.path}
                    place={place}
                    picture={pictures.get(place.picture)}
                    onCopy={() =>
                      copy(`The markup for ${place.path}`, (fixed ? place.htmlFixed : place.html) ?? '')
                    }
                  />
                ))}
              </ul>
            </section>
          </div>
          <aside
            className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
            aria-label="The publication"
          >
            <section className="border-b border-line px-5 py-4">
              {published ? (
                <>
                  <h2 className="break-all">/live/{publication.key}/</h2>
                  <p className="mt-1 text-ink-2">
                    Live since {new Date(publication.at!).toLocaleString()}. What was live before a change
                    answers for {publication.oldAnswersDays} more days under its own address.
                  </p>
                </>
              ) : (
                <>
                  <h2>Not live</h2>
                  <p className="mt-1 text-ink-2">
                    Make the job live, and every picture gets an address on this server that pages can use:
                    the type and the width follow who asks.
                  </p>
                </>
              )}
            </section>
            {published && (
              <section className="border-b border-line px-5 py-3" aria-label="Addresses">
                <label className="flex items-start gap-2">
                  <input
                    type="checkbox"
                    className="mt-0.5 h-4 w-4 accent-(--pm-accent)"
                    checked={fixed}
                    onChange={(event) => setFixed(event.target.checked)}
                  />
                  <span>
                    Addresses of this version
                    <span className="block text-[12px] text-ink-2">
                      {fixed
                        ? 'They never change, and are kept for a year.'
                        : 'Now: those that lead to the newest. A change shows within a minute.'}
                    </span>
                  </span>
                </label>
                <p className="mt-3 text-ink-2" data-testid="fetches">
                  Fetched {count(places.reduce((sum, place) => sum + place.fetches, 0))} times,{' '}
                  {weight(places.reduce((sum, place) => sum + place.bytes, 0))};{' '}
                  {count(places.reduce((sum, place) => sum + place.unchanged, 0))} times still the same.
                </p>
              </section>
            )}
            <section
              className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3"
              aria-label="Publish"
            >
              {change.isError && (
                <p role="alert" className="text-breaks">
                  {change.error.message}
                </p>
              )}
              {copied && (
                <p role="status" data-testid="copied">
                  {copied} is copied.
                </p>
              )}
              {published && (
                <>
                  <Button onClick={() => change.mutate('withdraw')} disabled={change.isPending}>
                    Withdraw
                  </Button>
                  <Button onClick={copyAll}>
                    Copy the whole job <Key>⇧ C</Key>
                  </Button>
                </>
              )}
              <Button kind="main" onClick={publish} disabled={change.isPending || (published && open === 0)}>
                {!published
                  ? 'Make the job live'
                  : open === 0
                    ? 'All of it is live'
                    : `Make ${open === 1 ? 'the change' : `${open} changes`} live`}{' '}
                <Key>P</Key>
              </Button>
            </section>
          </aside>
        </div>
      )}
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
          { name: 'Live now', src: place.fixed },
          { name: 'In the job', src: place.now && addresses.file(place.now) },
        ].map(({ name, src }) => (
          <figure key={name} className="bg-surround">
            <div className="grid h-36 place-items-center">
              {src ? (
                <img src={src} alt={name} className="max-h-36 max-w-full object-contain" />
              ) : (
                <span className="text-ink-2">being made</span>
              )}
            </div>
            <figcaption className="bg-sheet px-2 py-0.5 text-[12px] text-ink-2">{name}</figcaption>
          </figure>
        ))}
      </div>
      <p className="flex items-center gap-2 px-2 py-1.5">
        <span className="min-w-0 flex-1 truncate">
          {picture?.words ?? picture?.picture.name}, {place.name}
        </span>
        <Button className="h-7!" onClick={onPublish}>
          Make it live
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
      <span className="truncate">
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
      <span className="truncate">
        <StateMark state={place.state} /> {words[place.state]}
      </span>
      <span className="text-right text-ink-2">
        {place.fetches > 0 && `${count(place.fetches)} × fetched, ${weight(place.bytes)}`}
      </span>
      <span className="flex gap-1.5">
        {place.address && (
          <a
            href={place.address}
            target="_blank"
            rel="noreferrer"
            className="inline-flex h-7 items-center rounded-md border border-line px-2 font-medium hover:border-ink-2"
          >
            Open
          </a>
        )}
        <Button className="h-7!" disabled={!place.html} onClick={onCopy}>
          Copy
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
