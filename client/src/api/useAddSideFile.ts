import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Refusal } from './client';
import { fontsQuery, sideFilesQuery } from './queries';
import { t } from '../texts/texts';

/** Adds a mark or a font that rules can name, or exchanges the one of the same name. */
export function useAddSideFile(onAdded?: (name: string) => void) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async ({ name, content }: { name: string; content: Blob }) => {
      const answer = await fetch(`/api/side-files/${encodeURIComponent(name)}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/octet-stream' },
        body: content,
      });
      if (!answer.ok)
        throw new Refusal(
          ((await answer.json()) as { detail?: string }).detail ?? t('common.theFileWasRefused'),
        );
    },
    onSuccess: async (_, { name }) => {
      await cache.invalidateQueries({ queryKey: sideFilesQuery.queryKey });
      await cache.invalidateQueries({ queryKey: fontsQuery.queryKey });
      onAdded?.(name);
    },
  });
}
