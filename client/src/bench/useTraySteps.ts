import { useLocation } from 'wouter';
import { useLackOf } from '../design/rights';
import { decisionFor } from '../domain/decisions';
import { benchActions, isBroken, type Chosen } from '../jobs/actions';
import type { JobStore } from '../jobs/JobStore';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { useCopyToAlike } from './useCopyToAlike';

/** Something that can be done to the chosen cells, with the key that does it as well. */
export interface Step {
  name: string;
  k: string;
  title?: string;
  act: () => void;
}

/** What can be done to the chosen cells now: the next step, and the others. What cannot be done is not there. */
export function useTraySteps(
  chosen: readonly Chosen[],
  focusAt: { x: number; y: number } | null,
): { next: Step | null; others: Step[] } {
  const store = useJobStore();
  const [, go] = useLocation();
  const one = chosen.length === 1 ? chosen[0]! : null;
  const frame = one && {
    name: t('bench.frame'),
    k: '↵',
    act: () => go(`/job/${store.id}/framing/${one.picture.picture.id}?slot=${one.slot.address}`),
  };
  const weigh = one &&
    one.cell.files.length > 0 && {
      name: t('bench.weigh'),
      k: 'W',
      act: () => go(`/job/${store.id}/weighing/${one.picture.picture.id}/${one.slot.address}`),
    };
  const alike = useCopyToAlike(one);
  const edits = useLackOf('edit') === null;
  const copy = alike && {
    name: t('bench.copyToAlike', { count: alike.count }),
    k: 'C',
    title: t('bench.showWhatChanges'),
    act: alike.act,
  };
  const all = [
    ...(edits ? cropSteps(store, chosen, focusAt) : []),
    ...[frame, weigh, edits && copy].filter((step) => !!step),
    ...(edits ? fileSteps(store, chosen) : []),
  ];
  const first = nextKey(chosen, one !== null);
  const next = all.find((step) => step.k === first) ?? null;
  return { next, others: all.filter((step) => step !== next) };
}

/** The key of the next step: what answers the question that the cells ask. */
function nextKey(chosen: readonly Chosen[], single: boolean): string | null {
  const asks = new Set(chosen.flatMap(({ cell }) => cell.toReview));
  if (asks.size === 0) return single ? '↵' : null;
  // Without a file there is nothing to accept.
  if (chosen.every(({ cell }) => cell.verdict === 'breaks' && !cell.files.some((file) => file.made)))
    return 'X';
  const onlyCrop = asks.size === 1 && asks.has('suggested');
  return onlyCrop && chosen.every(({ picture }) => picture.suggestion && !picture.parts) ? 'U' : 'A';
}

function cropSteps(
  store: JobStore,
  chosen: readonly Chosen[],
  focusAt: { x: number; y: number } | null,
): Step[] {
  const steps: Step[] = [];
  const isUnlinked = ({ picture, slot }: Chosen) => decisionFor(picture.decisions, slot.address).unlinked;
  // Pictures side by side are framed by the marks of each.
  const single = !chosen.some(({ picture }) => picture.parts);
  if (chosen.some(({ cell }) => cell.toReview.length > 0))
    steps.push({ name: t('bench.accept'), k: 'A', act: () => void benchActions.accept(store, chosen) });
  if (single && chosen.some(({ picture, cell }) => picture.suggestion && cell.state !== 'skipped'))
    steps.push({
      name: t('bench.confirmCrop'),
      k: 'U',
      title: t('bench.useTheSuggestedCropAsThe'),
      act: () => void benchActions.confirm(store, chosen),
    });
  if (single && focusAt)
    steps.push({
      name: t('bench.focusHere'),
      k: 'F',
      title: t('bench.centreTheCropOnThePoint'),
      act: () => void benchActions.focusHere(store, chosen, focusAt),
    });
  if (single && !chosen.every(isUnlinked))
    steps.push({
      name: t('bench.unlink'),
      k: 'L',
      title: t('bench.unlinkFromItsShapeThisSlot'),
      act: () => void benchActions.unlink(store, chosen),
    });
  if (single && chosen.some(isUnlinked))
    steps.push({
      name: t('bench.linkAgain'),
      k: 'T',
      title: t('bench.useTheSameFrameAsThe'),
      act: () => void benchActions.link(store, chosen),
    });
  return steps;
}

function fileSteps(store: JobStore, chosen: readonly Chosen[]): Step[] {
  const steps: Step[] = [];
  if (chosen.some(({ cell }) => cell.files.some((file) => file.made)))
    steps.push({ name: t('bench.remake'), k: 'M', act: () => void benchActions.remake(store, chosen) });
  steps.push({
    name: chosen.every(({ cell }) => cell.state === 'skipped') ? t('bench.include') : t('bench.skip'),
    k: 'X',
    act: () => void benchActions.skip(store, chosen),
  });
  if (chosen.some(({ cell }) => cell.files.some((file) => isBroken(file) && !file.allowed)))
    steps.push({
      name: t('bench.allowAnyway'),
      k: 'V',
      title: t('bench.deliverTheFileAlthoughItBreaks'),
      act: () => void benchActions.allowAnyway(store, chosen),
    });
  return steps;
}
