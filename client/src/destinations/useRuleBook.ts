import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, type Destination, Refusal, take } from '../api/client';
import { t } from '../texts/texts';

/** What can be done with destinations as a whole; each answers with all of them. */
export function useRuleBook() {
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [naming, setNaming] = useState('');
  const taken = (book: Destination[]) => {
    cache.setQueryData(['destinations'], book);
    return book;
  };
  const make = useMutation({
    mutationFn: async (name: string) => taken(await take(api.POST('/api/destinations', { body: { name } }))),
    onSuccess: (book) => {
      setNaming('');
      const made = book.at(-1)!;
      go(`/destinations/${made.key}/${made.slots[0]!.key}`);
    },
  });
  const copy = useMutation({
    mutationFn: async (key: string) =>
      taken(
        await take(
          api.POST('/api/destinations/{destination}/copy', { params: { path: { destination: key } } }),
        ),
      ),
  });
  const rename = useMutation({
    mutationFn: async ({ key, name }: { key: string; name: string }) =>
      taken(
        await take(
          api.PUT('/api/destinations/{destination}/name', {
            params: { path: { destination: key } },
            body: { name },
          }),
        ),
      ),
  });
  const retire = useMutation({
    mutationFn: async (request: { slots: string[]; retired: boolean }) =>
      taken(await take(api.PUT('/api/destinations/retired', { body: request }))),
  });
  const load = useMutation({
    mutationFn: async (chosen: File) => {
      const answer = await fetch('/api/destinations/import', {
        method: 'POST',
        body: await chosen.text(),
        headers: { 'Content-Type': 'application/json' },
      });
      const body = (await answer.json()) as Destination[] & { detail?: string };
      if (!answer.ok)
        throw new Refusal(`${chosen.name}: ${body.detail ?? t('destinations.theNameWasRefused')}`);
      return taken(body);
    },
  });
  return {
    ...{ naming, setNaming, taken, make, copy, rename, retire, load },
    fault: make.error ?? copy.error ?? rename.error ?? retire.error ?? load.error,
  };
}

export type RuleBookState = ReturnType<typeof useRuleBook>;
