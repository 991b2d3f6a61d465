import { useEffect } from 'react';
import { Link } from 'wouter';
import { InHead } from '../design/HeadPlace';
import { useLackOf } from '../design/rights';
import { useShortcuts } from '../design/useShortcuts';
import { Button } from '../design/Button';
import { useDraft } from '../design/useDraft';
import { useHead, useJob, useJobStore } from './useJob';
import { useCommentsKept } from './CellNotes';
import { OthersHere } from './OthersHere';
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
  const edits = useLackOf('edit') === null;
  useCommentsKept();
  useEffect(() => {
    // On the bench, the cell in hand is where one is.
    if (stage !== 'bench') store.together.moveTo(at?.picture ?? null, at?.slot ?? null);
  }, [store, stage, at?.picture, at?.slot]);
  useShortcuts({
    'ctrl+z': () => void store.undo(),
    'ctrl+shift+z': () => void store.redo(),
    'ctrl+y': () => void store.redo(),
  });
  return (
    <>
      <InHead>
        <div
          className="flex min-h-[43px] min-w-0 flex-1 items-center gap-3 max-md:flex-wrap max-md:gap-x-2 @max-[760px]:gap-2"
          data-testid="job-bar"
          data-on-their-way={onTheirWay}
        >
          <span className="text-ink-2" aria-hidden>
            ╱
          </span>
          <JobName />
          <Progress />
          <span className="flex-1" />
          <OthersHere />
          <Step back off={!head.canUndo || !edits} act={() => void store.undo()} />
          <Step off={!head.canRedo || !edits} act={() => void store.redo()} />
          <Stages stage={stage} at={at} />
        </div>
      </InHead>
      {stage !== 'handing-over' && (
        <p className="border-b border-line bg-sheet px-5 py-1.5 text-ink-2 min-[800px]:hidden">
          {t('jobs.thisScreenNeedsRoom')}
        </p>
      )}
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

/** A step back, or forward again. */
function Step({ back = false, off, act }: { back?: boolean; off: boolean; act: () => void }) {
  const name = back ? t('jobs.undo') : t('jobs.redo');
  return (
    <button
      type="button"
      aria-label={name}
      title={`${name}, ${back ? 'Ctrl Z' : 'Ctrl Shift Z'}`}
      disabled={off}
      onClick={act}
      className="-mx-1 grid size-7 shrink-0 place-items-center rounded-md enabled:hover:bg-sheet-2 disabled:opacity-50"
    >
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden className={back ? '' : '-scale-x-100'}>
        <path
          d="M6 3 2.5 6.5 6 10M2.5 6.5H10a3.5 3.5 0 0 1 0 7H6"
          stroke="currentColor"
          strokeWidth="1.5"
          fill="none"
        />
      </svg>
    </button>
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
    <nav
      aria-label={t('jobs.stages')}
      className="flex h-[43px] shrink-0 items-stretch max-md:shrink max-md:flex-wrap"
    >
      {stages.map(({ key, name, href }) =>
        href ? (
          <Link
            key={key}
            href={href}
            aria-current={key === stage ? 'step' : undefined}
            className={`flex items-center border-b-2 px-2.5 @max-[760px]:px-1.5 ${key === stage ? 'border-accent font-semibold' : 'border-transparent text-ink-2 hover:text-ink'}`}
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
    <h1 className="min-w-0 shrink">
      <input
        aria-label={t('jobs.nameOfTheJob')}
        title={head.name}
        className="field-sizing-content max-w-[min(18rem,100%)] min-w-24 truncate @max-[760px]:max-w-[min(10rem,100%)] rounded-sm border border-transparent bg-transparent px-1 py-0.5 font-semibold not-read-only:hover:border-line focus:border-line"
        {...field}
      />
    </h1>
  );
}
