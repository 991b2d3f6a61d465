import { useQuery } from '@tanstack/react-query';
import { Link } from 'wouter';
import type { Destination, DraftCheck, Slot } from '../api/client';
import { Button } from '../design/Button';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import type { Rule } from '../forms/rule';
import { CommonShapes } from './CommonShapes';
import { RuleTrialFigures } from './RuleTrialFigures';
import { SlotDrawing } from './SlotDrawing';
import {
  keyOf,
  type SlotDraft,
  SlotFormContext,
  slotQuery,
  useSaveSlot,
  useSlotForm,
  useSlotFormHere,
} from '../forms/slotForm';
import { SlotGroups } from './SlotGroups';
import { UsesOfSlot } from './SlotUses';
import { t } from '../texts/texts';
import { useClear } from './SeenFields';
import { useRuleTrial } from './useRuleTrial';

const newRule: Rule = {
  key: 'new-slot',
  name: t('destinations.newSlot'),
  size: { ratio: '3:2', width: 1200 },
};
const placesOfFields =
  /^(name|pattern|size|fit|densities|types|limits|aims|clear|subjectShare|background|ppi|key|responsive|group|media|inline|toward|extend|pair|dress)/;

interface EditorProps {
  destination: Destination;
  known: Slot | undefined;
  onSaved: (book: Destination[], key: string) => void;
  onRetire: (retired: boolean) => void;
}

/** Every key of a slot's rule; checked while it is written, set when asked. */
export function SlotEditor({ slotKey, ...props }: EditorProps & { slotKey: string }) {
  const { destination } = props;
  const isNew = slotKey === 'new';
  const stored = useQuery({
    ...slotQuery(destination.key, slotKey),
    enabled: !isNew,
    gcTime: 0,
    staleTime: 0,
  });
  if (stored.isError) return <Notice>{stored.error.message}</Notice>;
  if (!isNew && !stored.data) return <Notice>{t('destinations.loadingTheRule')}</Notice>;
  const start: SlotDraft = isNew
    ? { rule: { ...newRule, key: freshKey(destination) }, pattern: '' }
    : { rule: stored.data!.rule as Rule, pattern: stored.data!.pattern ?? '' };
  return <Editor {...props} isNew={isNew} start={start} />;
}

function freshKey(destination: Destination): string {
  const taken = new Set(destination.slots.map((one) => one.key));
  let fresh = 'new-slot';
  for (let n = 2; taken.has(fresh); n++) fresh = `new-slot-${n}`;
  return fresh;
}

function Editor({
  destination,
  isNew,
  start,
  known,
  onSaved,
  onRetire,
}: EditorProps & { isNew: boolean; start: SlotDraft }) {
  const here = useSlotForm(destination.key, start);
  const { form, draft, check } = here;
  const save = useSaveSlot(here, destination.key, onSaved);
  const changed = form.formState.isDirty;
  return (
    <SlotFormContext.Provider value={here}>
      <header className="flex items-center gap-2 border-b border-line px-5 py-2.5">
        <h2 className="min-w-0 flex-1 wrap-anywhere text-head">{String(draft.rule.name ?? keyOf(draft))}</h2>
        {!isNew && (
          <Button needs="edit" className="h-7!" onClick={() => onRetire(!known?.retired)}>
            {known?.retired ? t('destinations.useAgain') : t('destinations.retire')}
          </Button>
        )}
      </header>
      {!isNew && <UsesOfSlot address={`${destination.key}/${keyOf(start)}`} />}
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Drawing destination={destination.key} slot={check?.slot ?? known} />
        {isNew && <CommonShapes />}
        <SlotGroups isNew={isNew} />
      </div>
      <footer className="border-t border-line px-5 py-3">
        <Fault check={check} />
        {check && !check.fault && check.delivered > 0 && <Breaches check={check} />}
        {save.isError && (
          <p role="alert" className="mb-2 text-breaks">
            {save.error.message}
          </p>
        )}
        <div className="flex items-center gap-2">
          <Button disabled={!changed} onClick={() => form.reset()}>
            {t('destinations.discardChanges')}
          </Button>
          <span className="flex-1" />
          <Button
            needs="edit"
            kind="main"
            disabled={(!changed && !isNew) || check?.fault != null || save.isPending}
            onClick={() => save.mutate(structuredClone(form.getValues()))}
          >
            {isNew ? t('destinations.addSlot') : t('destinations.saveRule')}
          </Button>
        </div>
      </footer>
    </SlotFormContext.Provider>
  );
}

function Drawing({ destination, slot }: { destination: string; slot: Slot | undefined }) {
  const { clear, set } = useClear();
  const trial = useRuleTrial(destination, useSlotFormHere());
  return (
    slot && (
      <SlotDrawing slot={slot} file={trial.trial?.file ?? null} clear={clear} onClear={set}>
        <RuleTrialFigures of={trial} />
      </SlotDrawing>
    )
  );
}

/** What is wrong, with the place where no field says it. */
function Fault({ check }: { check: DraftCheck | null }) {
  if (!check?.fault) return null;
  const { place, message } = check.fault;
  return (
    <p className="mb-2 text-breaks">
      {placesOfFields.test(place)
        ? t('destinations.theRuleCannotBeSavedYet', { message })
        : `${place}: ${message}`}
    </p>
  );
}

/** The files that were delivered and would no longer meet the rule. */
function Breaches({ check }: { check: DraftCheck }) {
  const { breaches, delivered } = check;
  return (
    <div className="mb-2 max-h-32 overflow-y-auto" data-testid="breaches">
      <p className={breaches.length > 0 ? 'font-semibold' : 'text-ink-2'}>
        {breaches.length === 0
          ? t('destinations.allDeliveredDeliveredFilesMeetThis', { delivered })
          : t('destinations.breachesOfDeliveredDeliveredFilesNo', { breaches: breaches.length, delivered })}
      </p>
      {breaches.slice(0, 50).map((one) => (
        <p key={`${one.job}${one.path}`} className="mt-0.5">
          <Link href={`/job/${one.job}`} className="text-accent underline underline-offset-2">
            {one.path}
          </Link>{' '}
          <span className="text-ink-2">
            {one.reasons.map((reason) => sentence(reason.message)).join(' ')}
          </span>
        </p>
      ))}
    </div>
  );
}
