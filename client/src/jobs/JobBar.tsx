import { Link } from 'wouter';
import { useShortcuts } from '../design/useShortcuts';
import { Button } from '../design/Button';
import { useDraft } from '../design/useDraft';
import { useHead, useJob, useJobStore } from './useJob';
import { Progress } from './Progress';
import { t } from '../texts/texts';

export type Stage = 'bench' | 'framing' | 'weighing' | 'handing-over';

/** Which job, at which stage, and how far its files are. */
export function JobBar({ stage, at }: { stage: Stage; at?: { picture: string; slot?: string } }) {
  const store = useJobStore();
  const head = useHead();
  const fault = useJob((job) => job.fault);
  const away = useJob((job) => job.away);
  const onTheirWay = useJob((job) => job.onTheirWay);
  useShortcuts({
    'ctrl+z': () => void store.undo(),
    'ctrl+shift+z': () => void store.redo(),
    'ctrl+y': () => void store.redo(),
  });
  return (
    <>
      <div
        className="flex h-11 items-center gap-3 border-b border-line bg-sheet px-5"
        data-testid="job-bar"
        data-on-their-way={onTheirWay}
      >
        <Link href="/" className="text-accent hover:underline">
          {t('jobs.jobs')}
        </Link>
        <span className="text-ink-2" aria-hidden>
          ╱
        </span>
        <JobName />
        <Progress />
        <span className="flex-1" />
        <Button className="h-7!" disabled={!head.canUndo} onClick={() => void store.undo()} title="Ctrl Z">
          {t('jobs.undo')}
        </Button>
        <Button
          className="h-7!"
          disabled={!head.canRedo}
          onClick={() => void store.redo()}
          title="Ctrl Shift Z"
        >
          {t('jobs.redo')}
        </Button>
        <Stages stage={stage} at={at} />
      </div>
      {(fault || away) && (
        <div
          role="alert"
          className="flex items-center gap-3 border-b border-line bg-sheet px-5 py-1.5 text-breaks"
        >
          <span>{away ? t('jobs.pantometDoesNotAnswerYouSee') : fault}</span>
          {fault && (
            <Button className="h-6!" onClick={() => store.dismiss()}>
              {t('jobs.close')}
            </Button>
          )}
        </div>
      )}
    </>
  );
}

/** The ways to the stages of the job, with the picture that is shown. */
function Stages({ stage, at }: { stage: Stage; at?: { picture: string; slot?: string } }) {
  const store = useJobStore();
  const head = useHead();
  const first = at?.picture ?? head.pictures[0]?.picture.id;
  const slot = at?.slot ?? head.slots[0]?.address;
  const stages = [
    { key: 'bench', name: t('jobs.bench'), href: `/job/${store.id}` },
    {
      key: 'framing',
      name: t('jobs.framing'),
      href: first && `/job/${store.id}/framing/${first}${at?.slot ? `?slot=${at.slot}` : ''}`,
    },
    {
      key: 'weighing',
      name: t('jobs.weighing'),
      href: first && slot && `/job/${store.id}/weighing/${first}/${slot}`,
    },
    { key: 'handing-over', name: t('jobs.handingOver'), href: `/job/${store.id}/handing-over` },
  ] as const;
  return (
    <nav aria-label={t('jobs.stages')} className="flex h-full items-stretch">
      {stages.map(({ key, name, href }) =>
        href ? (
          <Link
            key={key}
            href={href}
            aria-current={key === stage ? 'step' : undefined}
            className={`flex items-center border-b-2 px-3 ${key === stage ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
          >
            {name}
          </Link>
        ) : (
          <span
            key={key}
            className="flex items-center border-b-2 border-transparent px-3 text-ink-2"
            aria-disabled
          >
            {name}
          </span>
        ),
      )}
    </nav>
  );
}

function JobName() {
  const store = useJobStore();
  const head = useHead();
  const { field } = useDraft(
    head.name,
    (name) => void store.name({ name }),
    (name) => name !== '',
  );
  return (
    <h1 className="min-w-0">
      <input
        aria-label={t('jobs.nameOfTheJob')}
        className="w-52 truncate rounded-sm border border-transparent bg-transparent px-1 py-0.5 font-semibold hover:border-line focus:border-line"
        {...field}
      />
    </h1>
  );
}
