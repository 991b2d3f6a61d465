import { moment } from '../texts/numbers';
import type { PublicationView } from '../api/client';
import { Button, Key } from '../design/Button';
import { count, weight } from '../design/figures';
import { t } from '../texts/texts';

/** Whether the job is live, how often it was fetched, and how it is published and unpublished. */
export function Publication({
  publication,
  changes,
  fixed,
  said,
  failed,
  busy,
  onFixed,
  onPublish,
  onUnpublish,
  onCopyAll,
}: {
  publication: PublicationView;
  /** How many places would change. */
  changes: number;
  /** True for addresses of this very version. */
  fixed: boolean;
  said: string | null;
  failed: boolean;
  busy: boolean;
  onFixed: (fixed: boolean) => void;
  onPublish: () => void;
  onUnpublish: () => void;
  onCopyAll: () => void;
}) {
  const published = publication.key !== null;
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label={t('handingOver.thePublication')}
    >
      <Since publication={publication} />
      {published && <Addresses publication={publication} fixed={fixed} onFixed={onFixed} />}
      <section
        className="mt-auto flex flex-col gap-2 border-t border-line px-5 py-3"
        aria-label={t('handingOver.publish')}
      >
        {said && (
          <p
            role={failed ? 'alert' : 'status'}
            className={failed ? 'text-breaks' : undefined}
            data-testid="copied"
          >
            {said}
          </p>
        )}
        {published && (
          <>
            <Button needs="publish" onClick={onUnpublish} disabled={busy}>
              {t('handingOver.unpublish')}
            </Button>
            <Button onClick={onCopyAll}>
              {t('handingOver.copyAllMarkup')} <Key>⇧ C</Key>
            </Button>
          </>
        )}
        <Button
          needs="publish"
          kind="main"
          onClick={onPublish}
          disabled={busy || (published && changes === 0)}
        >
          {!published
            ? t('handingOver.publishTheJob')
            : changes === 0
              ? t('handingOver.everythingIsLive')
              : t('handingOver.publishChanges', { count: changes })}{' '}
          <Key>P</Key>
        </Button>
      </section>
    </aside>
  );
}

function Since({ publication }: { publication: PublicationView }) {
  return (
    <section className="border-b border-line px-5 py-4">
      {publication.key !== null ? (
        <>
          <h2 className="break-all">/live/{publication.key}/</h2>
          <p className="mt-1 text-ink-2">
            {t('handingOver.liveSince', {
              moment: moment(publication.at!),
              days: publication.oldAnswersDays,
            })}
          </p>
        </>
      ) : (
        <>
          <h2>{t('handingOver.notLive')}</h2>
          <p className="mt-1 text-ink-2">{t('handingOver.publishTheJobToGiveEvery')}</p>
        </>
      )}
    </section>
  );
}

function Addresses({
  publication,
  fixed,
  onFixed,
}: {
  publication: PublicationView;
  fixed: boolean;
  onFixed: (fixed: boolean) => void;
}) {
  const sum = (of: (place: PublicationView['places'][number]) => number) =>
    publication.places.reduce((all, place) => all + of(place), 0);
  return (
    <section className="border-b border-line px-5 py-3" aria-label={t('handingOver.addresses')}>
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          className="mt-0.5 h-4 w-4 accent-(--pm-accent)"
          checked={fixed}
          onChange={(event) => onFixed(event.target.checked)}
        />
        <span>
          {t('handingOver.addressesOfThisVersion')}
          <span className="block text-small text-ink-2">
            {fixed
              ? t('handingOver.browsersKeepTheseFilesForA')
              : t('handingOver.offTheAddressesAlwaysShowThe')}
          </span>
        </span>
      </label>
      <p className="mt-3 text-ink-2" data-testid="fetches">
        {t('handingOver.valueRequestsValue2SentValue3Answered', {
          value: count(sum((place) => place.fetches)),
          value2: weight(sum((place) => place.bytes)),
          value3: count(sum((place) => place.unchanged)),
        })}
      </p>
    </section>
  );
}
