import { Link } from 'wouter';
import { useJobStore } from '../jobs/useJob';

const parts = [
  { key: 'bundle', name: 'Bundle', path: '' },
  { key: 'pages', name: 'On pages', path: '/pages' },
  { key: 'live', name: 'Live links', path: '/live' },
] as const;

/** What there is to hand over: the files themselves, and how pages show them. */
export function HandOverTabs({ part }: { part: (typeof parts)[number]['key'] }) {
  const store = useJobStore();
  return (
    <nav aria-label="Hand over as" className="flex gap-1 border-b border-line bg-sheet px-4 py-1.5">
      {parts.map(({ key, name, path }) => (
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
