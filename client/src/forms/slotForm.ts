import { useMutation, useQueryClient } from '@tanstack/react-query';
import { createContext, useContext, useEffect, useState } from 'react';
import { useForm, type UseFormReturn, useWatch } from 'react-hook-form';
import { api, type Asked, type Destination, type DraftCheck, take } from '../api/client';
import { type Rule, valueAt, withValue } from './rule';

/** A slot while it is written: its rule as in a rules file, and the pattern of its files' names. */
export interface SlotDraft {
  rule: Rule;
  pattern: string;
}

/** The form of one slot, with what the server says of it as it stands. */
export interface SlotForm {
  form: UseFormReturn<SlotDraft>;
  draft: SlotDraft;
  check: DraftCheck | null;
}

const pause = 250;

export const SlotFormContext = createContext<SlotForm | null>(null);

export const slotQuery = (destination: string, slot: string) => ({
  queryKey: ['slot', destination, slot],
  queryFn: ({ signal }: Asked) =>
    take(
      api.GET('/api/destinations/{destination}/slots/{slot}', {
        signal,
        params: { path: { destination, slot } },
      }),
    ),
});

export const keyOf = (draft: SlotDraft) => String(draft.rule.key ?? '');

/** Opens a form on a slot's rule; it is checked while it is written. */
export function useSlotForm(destination: string, start: SlotDraft): SlotForm {
  const form = useForm<SlotDraft>({ defaultValues: start });
  const draft = useWatch({ control: form.control }) as SlotDraft;
  const [check, setCheck] = useState<DraftCheck | null>(null);
  const sent = JSON.stringify(draft);
  useEffect(() => {
    const body = JSON.parse(sent) as SlotDraft;
    // An older answer that comes late says nothing of what is written now: its request is given up.
    const asked = new AbortController();
    const timer = setTimeout(() => {
      take(
        api.POST('/api/destinations/{destination}/slots/{slot}/check', {
          signal: asked.signal,
          params: { path: { destination, slot: keyOf(body) || 'new-slot' } },
          body,
        }),
      ).then(
        (answer) => !asked.signal.aborted && setCheck(answer),
        () => undefined,
      );
    }, pause);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [sent, destination]);
  return { form, draft, check };
}

/** Sets the rule; the form then takes over what the server wrote down. */
export function useSaveSlot(
  { form }: SlotForm,
  destination: string,
  onSaved: (book: Destination[], key: string) => void,
) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (sent: SlotDraft) =>
      take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: { destination, slot: keyOf(sent) } },
          body: sent,
        }),
      ),
    onSuccess: async (book, sent) => {
      onSaved(book, keyOf(sent));
      const kept = await cache.fetchQuery({ ...slotQuery(destination, keyOf(sent)), staleTime: 0 });
      const now = structuredClone(form.getValues());
      form.reset({ rule: kept.rule as Rule, pattern: kept.pattern ?? '' });
      // What was typed meanwhile stays.
      if (JSON.stringify(now) === JSON.stringify(sent)) return;
      form.setValue('rule', now.rule, { shouldDirty: true });
      form.setValue('pattern', now.pattern, { shouldDirty: true });
    },
  });
}

export function useSlotFormHere(): SlotForm {
  const here = useContext(SlotFormContext);
  if (!here) throw new Error('A field of a slot stands outside of its form.');
  return here;
}

/** One place of the rule, like "limits.maxBytes": its value, the way to set it, and what is wrong with it. */
export function usePlace(place: string): {
  value: unknown;
  set: (value: unknown) => void;
  fault: string | undefined;
} {
  const { form, draft, check } = useSlotFormHere();
  const at = check?.fault?.place ?? '';
  const mine = at === place || at.startsWith(`${place}.`) || at.startsWith(`${place}[`);
  return {
    value: valueAt(draft.rule, place),
    set: (value) =>
      form.setValue('rule', withValue(form.getValues('rule'), place, value), { shouldDirty: true }),
    fault: check?.fault && mine ? check.fault.message : undefined,
  };
}
