import { Link } from 'wouter';
import { usePageOfJob } from '../api/queries';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

const parts = [
  { key: 'bundle', name: t('handingOver.bundle'), path: '' },
  { key: 'receivers', name: t('handingOver.receivers'), path: '/receivers' },
  { key: 'pages', name: 'HTML', path: '/pages' },
  { key: 'live', name: t('handingOver.liveLinks'), path: '/live' },
  { key: 'old-page', name: t('handingOver.originalPage'), path: '/old-page' },
] as const;

/** What there is to hand over: the files themselves, and how pages show them. */
export function HandOverTabs({ part }: { part: (typeof parts)[number]['key'] }) {
  const store = useJobStore();
  const page = usePageOfJob(store.id);
  return (
    <nav
      aria-label={t('handingOver.handOverAs')}
      className="flex flex-wrap gap-1 border-b border-line bg-sheet px-4 py-1.5"
    >
      {parts
        // Most jobs were made of no page.
        .filter(({ key }) => key !== 'old-page' || page.data)
        .map(({ key, name, path }) => (
          <Link
            key={key}
            href={`/job/${store.id}/handing-over${path}`}
            aria-current={key === part ? 'page' : undefined}
            className={`rounded-md border px-3 py-0.5 ${key === part ? 'border-ink bg-sheet-2 font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
          >
            {name}
          </Link>
        ))}
    </nav>
  );
}
