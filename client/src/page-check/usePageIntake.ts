import { useQueryClient } from '@tanstack/react-query';
import pLimit from 'p-limit';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, Refusal, take } from '../api/client';

/** Sends a page - one file or a folder of them - and has it measured. */
export function usePageIntake() {
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [sent, setSent] = useState<{ name: string; done: number; of: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const add = async (files: readonly File[]) => {
    const [first] = files;
    if (!first || sent) return;
    setFault(null);
    const paths = files.map((file) => file.webkitRelativePath || file.name);
    // A folder's own name is what the page is called, and no part of its paths.
    const root = paths.every((path) => path.includes('/'))
      ? paths[0]!.slice(0, paths[0]!.indexOf('/'))
      : null;
    const inFolder = root !== null && paths.every((path) => path.startsWith(`${root}/`));
    const name = inFolder ? root : first.name;
    setSent({ name, done: 0, of: files.length });
    let id: string | null = null;
    try {
      const check = await take(api.POST('/api/page-checks', { body: { name } }));
      id = check.id;
      const limit = pLimit(4);
      await Promise.all(
        files.map((file, i) =>
          limit(async () => {
            await put(check.id, inFolder ? paths[i]!.slice(root.length + 1) : paths[i]!, file);
            setSent((now) => now && { ...now, done: now.done + 1 });
          }),
        ),
      );
      await take(api.POST('/api/page-checks/{id}/start', { params: { path: { id } } }));
      go(`/page-checks/${id}`);
    } catch (refusal) {
      setFault((refusal as Error).message);
      // Half a page is no page.
      if (id) await api.DELETE('/api/page-checks/{id}', { params: { path: { id } } });
    } finally {
      setSent(null);
      void cache.invalidateQueries({ queryKey: ['page-checks'] });
    }
  };
  return { add, sent, fault };
}

async function put(id: string, path: string, file: File) {
  const answer = await fetch(`/api/page-checks/${id}/files?path=${encodeURIComponent(path)}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: file,
  }).catch(() => null);
  if (!answer) throw new Refusal('Pantomet does not answer. Is it still running?');
  if (!answer.ok) {
    const problem = (await answer.json().catch(() => null)) as { detail?: string } | null;
    throw new Refusal(problem?.detail ?? `${path} could not be sent.`);
  }
}
