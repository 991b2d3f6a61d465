import { Link } from 'wouter';
import type { JobPicture, PageView } from '../api/client';
import { Button } from '../design/Button';
import { sentence } from '../design/figures';
import { useJobStore } from '../jobs/useJob';
import { AlternativeField } from './Names';
import { t } from '../texts/texts';

const kinds = [
  { key: 'html', name: t('handingOver.picture') },
  { key: 'waiting', name: t('handingOver.withPlaceholder') },
  { key: 'css', name: t('handingOver.background') },
  { key: 'mail', name: t('handingOver.eMail') },
] as const;
export type MarkupKind = (typeof kinds)[number]['key'];

/** One picture's words, and its markup in every place. */
export function PageMarkup({
  picture,
  pages,
  fault,
  kind,
  onKind,
  onCopy,
}: {
  picture: JobPicture;
  pages: readonly PageView[] | undefined;
  fault: string | undefined;
  kind: MarkupKind;
  onKind: (kind: MarkupKind) => void;
  onCopy: (what: string, text: string) => void;
}) {
  return (
    <section className="min-h-0 overflow-y-auto px-5 py-4" aria-label={t('handingOver.markup')}>
      <AlternativeField key={picture.picture.id} picture={picture} />
      <div
        className="mt-4 flex flex-wrap items-center gap-1"
        role="group"
        aria-label={t('handingOver.kindOfMarkup')}
      >
        {kinds.map(({ key, name }) => (
          <Button
            key={key}
            aria-pressed={key === kind}
            className={`h-7! ${key === kind ? 'border-ink! bg-sheet-2!' : ''}`}
            onClick={() => onKind(key)}
          >
            {name}
          </Button>
        ))}
      </div>
      {fault ? (
        <p role="alert" className="mt-4 text-breaks">
          {fault}
        </p>
      ) : (
        pages?.map((page) => (
          <Place
            key={`${page.destination}/${page.key}`}
            page={page}
            kind={kind}
            picture={picture}
            onCopy={(text) => onCopy(t('handingOver.theMarkupForName', { name: page.name }), text)}
          />
        ))
      )}
    </section>
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
  kind: MarkupKind;
  picture: JobPicture;
  onCopy: (text: string) => void;
}) {
  const store = useJobStore();
  const text = page[kind];
  return (
    <article className="mt-3 border border-line bg-sheet" aria-label={page.name}>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1.5">
        <h2 className="min-w-0 wrap-anywhere">{page.name}</h2>
        <span className="min-w-0 wrap-anywhere text-ink-2">{page.destination}</span>
        <span className="flex-1" />
        {page.colour && (
          <span
            className="flex items-center gap-1.5 text-ink-2"
            title={t('handingOver.backgroundColourThatContinuesItsEdge')}
          >
            <span className="h-3.5 w-3.5 border border-ink-2" style={{ background: page.colour }} />
            {page.colour}
          </span>
        )}
        {page.placeholder && (
          <img
            src={page.placeholder}
            alt={t('handingOver.thePlaceholder')}
            title={t('handingOver.shownUntilTheFileIsLoaded')}
            className="h-6 w-auto"
          />
        )}
        <Link
          href={`/job/${store.id}/responsive/${picture.picture.id}/${page.slots[0]}`}
          className="text-accent underline underline-offset-2"
        >
          {t('handingOver.whatEachScreenLoads')}
        </Link>
        <Button className="h-7!" disabled={!text} onClick={() => onCopy(text!)}>
          {t('handingOver.copy')}
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
          className="max-h-56 overflow-auto px-3 py-2 font-mono text-small leading-[1.5] whitespace-pre-wrap [overflow-wrap:anywhere]"
          tabIndex={0}
          aria-label={t('handingOver.markupForName', { name: page.name })}
        >
          {shortened(text)}
        </pre>
      ) : (
        <p className="px-3 py-2 text-ink-2">
          {kind === 'mail' && page.html ? t('handingOver.theJobHasNoFileOf') : t('handingOver.noFilesYet')}
        </p>
      )}
    </article>
  );
}

/** Data fills the screen and says nothing: what is copied has all of it. */
const shortened = (text: string) => text.replace(/(data:image\/[a-z]+;base64,.{24})[\w+/=]+/g, '$1…');
