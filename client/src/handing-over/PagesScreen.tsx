import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type JobPicture, type PageView, take } from '../api/client';
import { useKeys } from '../app/useKeys';
import { Button, Key } from '../design/Button';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { PagePictures } from './PagePictures';
import { AlternativeField } from './Names';

const kinds = [
  { key: 'html', name: 'Picture' },
  { key: 'waiting', name: 'With stand-in' },
  { key: 'css', name: 'Background' },
  { key: 'mail', name: 'For a mail' },
] as const;
type Kind = (typeof kinds)[number]['key'];

/** True where nobody said yet what a picture shows. */
export const wantsText = (one: JobPicture) => !one.decisions.ornament && one.decisions.alternative === '';

/** How pages show the pictures: markup by picture and place, copied with one key. */
export function PagesScreen() {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const [chosen, choose] = useState<string | null>(null);
  const [base, setBase] = useState('');
  const [kind, setKind] = useState<Kind>('html');
  const [copied, setCopied] = useState<string | null>(null);
  const sequence = useJob((job) => job.sequence);
  const picture = head.pictures.find((one) => one.picture.id === chosen) ?? head.pictures[0];
  const missing = head.pictures.filter(wantsText);
  const pages = useQuery({
    queryKey: ['pages', store.id, picture?.picture.id, base, sequence],
    queryFn: () =>
      take(
        api.GET('/api/jobs/{id}/pages', {
          params: { path: { id: store.id }, query: { picture: picture!.picture.id, base } },
        }),
      ),
    enabled: picture !== undefined,
    placeholderData: (previous) => previous,
    gcTime: 5_000,
    retry: false,
  });
  const copy = (what: string, text: string) =>
    void navigator.clipboard.writeText(text).then(
      () => setCopied(what),
      () => setCopied('The browser did not let it be copied; mark the text and copy it by hand'),
    );
  const copyAll = async () => {
    const answer = await fetch(`/api/jobs/${store.id}/pages.html?base=${encodeURIComponent(base)}`);
    copy('The markup of the whole job', await answer.text());
  };
  const copyOne = () => {
    const texts = (pages.data ?? []).flatMap((page) => page[kind] ?? []);
    if (texts.length > 0) copy('The markup of this picture', texts.join('\n\n'));
  };
  const nextMissing = () => {
    const at = missing.findIndex((one) => one.picture.id === picture?.picture.id);
    const next = missing[(at + 1) % Math.max(1, missing.length)];
    if (next) choose(next.picture.id);
  };
  useKeys({
    c: copyOne,
    'shift+c': () => void copyAll(),
    e: nextMissing,
    n: (event) => {
      const at = head.pictures.findIndex((one) => one === picture);
      const by = event.shiftKey ? head.pictures.length - 1 : 1;
      choose(head.pictures[(at + by) % head.pictures.length]?.picture.id ?? null);
    },
    b: () => go(`/job/${store.id}`),
  });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" at={picture && { picture: picture.picture.id }} />
      </div>
      <HandOverTabs part="pages" />
      {!picture ? (
        <Notice>The job has no pictures yet.</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[260px_1fr_300px]">
          <PagePictures chosen={picture} onChoose={choose} />
          <section className="min-h-0 overflow-y-auto px-5 py-4" aria-label="Markup">
            <AlternativeField key={picture.picture.id} picture={picture} />
            <div className="mt-4 flex items-center gap-1" role="group" aria-label="Kind of markup">
              {kinds.map(({ key, name }) => (
                <Button
                  key={key}
                  aria-pressed={key === kind}
                  className={`h-7! ${key === kind ? 'border-ink! bg-sheet-2!' : ''}`}
                  onClick={() => setKind(key)}
                >
                  {name}
                </Button>
              ))}
            </div>
            {pages.isError ? (
              <p role="alert" className="mt-4 text-breaks">
                {pages.error.message}
              </p>
            ) : (
              pages.data?.map((page) => (
                <Place
                  key={`${page.destination}/${page.key}`}
                  page={page}
                  kind={kind}
                  picture={picture}
                  onCopy={(text) => copy(`The markup for ${page.name}`, text)}
                />
              ))
            )}
          </section>
          <aside
            className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
            aria-label="The pages"
          >
            <section className="border-b border-line px-5 py-4">
              <label className="block">
                <span className="text-ink-2">Addresses begin with</span>
                <input
                  className="mt-0.5 h-7 w-full rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2"
                  value={base}
                  placeholder="beside the page"
                  onChange={(event) => setBase(event.target.value)}
                  spellCheck={false}
                />
              </label>
              <p className="mt-1 text-[12px] text-ink-2">https://your.site/pictures, or /pictures</p>
            </section>
            <section className="border-b border-line px-5 py-3" aria-label="Alternative text">
              {missing.length === 0 ? (
                <p>Every picture says what it shows.</p>
              ) : (
                <>
                  <p>
                    <b className="font-semibold" data-testid="no-text">
                      {missing.length}
                    </b>{' '}
                    {missing.length === 1
                      ? 'picture does not say what it shows.'
                      : 'pictures do not say what they show.'}
                  </p>
                  <Button className="mt-2 w-full" onClick={nextMissing}>
                    Next without a text <Key>E</Key>
                  </Button>
                </>
              )}
            </section>
            <section className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3" aria-label="Copy">
              {copied && (
                <p role="status" data-testid="copied">
                  {copied}
                  {copied.startsWith('The markup') ? ' is copied.' : '.'}
                </p>
              )}
              <Button onClick={() => void copyAll()}>
                Copy the whole job <Key>⇧ C</Key>
              </Button>
              <Button kind="main" onClick={copyOne} disabled={!pages.data?.some((page) => page[kind])}>
                Copy for this picture <Key>C</Key>
              </Button>
            </section>
          </aside>
        </div>
      )}
    </div>
  );
}

/** One place of the picture: its markup, and what is missing. */
function Place({
  page,
  kind,
  picture,
  onCopy,
}: {
  page: PageView;
  kind: Kind;
  picture: JobPicture;
  onCopy: (text: string) => void;
}) {
  const store = useJobStore();
  const text = page[kind];
  return (
    <article className="mt-3 border border-line bg-sheet" aria-label={page.name}>
      <header className="flex items-center gap-3 border-b border-line px-3 py-1.5">
        <h2 className="min-w-0 truncate">{page.name}</h2>
        <span className="min-w-0 truncate text-ink-2">{page.destination}</span>
        <span className="flex-1" />
        {page.colour && (
          <span className="flex items-center gap-1.5 text-ink-2" title="The colour that continues its edge">
            <span className="h-3.5 w-3.5 border border-ink-2" style={{ background: page.colour }} />
            {page.colour}
          </span>
        )}
        {page.standIn && (
          <img
            src={page.standIn}
            alt="The stand-in"
            title="What stands in until the file is there"
            className="h-6 w-auto"
          />
        )}
        <Link
          href={`/job/${store.id}/ladder/${picture.picture.id}/${page.slots[0]}`}
          className="text-accent underline underline-offset-2"
        >
          What each screen takes
        </Link>
        <Button className="h-7!" disabled={!text} onClick={() => onCopy(text!)}>
          Copy
        </Button>
      </header>
      {page.reasons
        .filter((reason) => reason.code !== 'no-alt')
        .map((reason) => (
          <p key={reason.message} className="border-b border-line px-3 py-1.5">
            {sentence(reason.message)}
          </p>
        ))}
      {text ? (
        <pre
          className="max-h-56 overflow-auto px-3 py-2 font-mono text-[12px] leading-[1.5] whitespace-pre-wrap [overflow-wrap:anywhere]"
          tabIndex={0}
          aria-label={`Markup for ${page.name}`}
        >
          {shortened(text)}
        </pre>
      ) : (
        <p className="px-3 py-2 text-ink-2">
          {kind === 'mail' && page.html
            ? 'No file of a type that mail shows goes out.'
            : 'Nothing to show yet.'}
        </p>
      )}
    </article>
  );
}

/** Data fills the screen and says nothing: what is copied has all of it. */
const shortened = (text: string) => text.replace(/(data:image\/[a-z]+;base64,.{24})[\w+/=]+/g, '$1…');
