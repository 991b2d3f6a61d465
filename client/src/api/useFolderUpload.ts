import { useQueryClient } from '@tanstack/react-query';
import pLimit from 'p-limit';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { Refusal } from './client';
import { t } from '../texts/texts';

/** Where a folder is sent to. */
export interface UploadTarget {
  /** Begins it under a name, and gives its identity. */
  begin: (name: string) => Promise<string>;
  /** The address that takes one of its files. */
  file: (id: string, path: string, changed: number) => string;
  /** Says that all are there. */
  finish: (id: string) => Promise<unknown>;
  /** Removes it: half of it is of no use. */
  drop: (id: string) => Promise<unknown>;
  /** The page that shows it. */
  page: (id: string) => string;
  /** What is asked for anew afterwards. */
  key: string;
}

/** Sends one file, or a folder of them, file by file. */
export function useFolderUpload({ begin, file, finish, drop, page, key }: UploadTarget) {
  const cache = useQueryClient();
  const [, go] = useLocation();
  const [sent, setSent] = useState<{ name: string; done: number; of: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const add = async (files: readonly File[]) => {
    const [first] = files;
    if (!first || sent) return;
    setFault(null);
    const paths = files.map((one) => one.webkitRelativePath || one.name);
    // A folder's own name is what it is called, and no part of its paths.
    const root = paths.every((path) => path.includes('/'))
      ? paths[0]!.slice(0, paths[0]!.indexOf('/'))
      : null;
    const inFolder = root !== null && paths.every((path) => path.startsWith(`${root}/`));
    const name = inFolder ? root : first.name;
    setSent({ name, done: 0, of: files.length });
    let id: string | null = null;
    try {
      const begun = await begin(name);
      id = begun;
      const limit = pLimit(4);
      await Promise.all(
        files.map((one, i) =>
          limit(async () => {
            const path = inFolder ? paths[i]!.slice(root.length + 1) : paths[i]!;
            await put(file(begun, encodeURIComponent(path), one.lastModified), path, one);
            setSent((now) => now && { ...now, done: now.done + 1 });
          }),
        ),
      );
      await finish(begun);
      go(page(begun));
    } catch (refusal) {
      setFault((refusal as Error).message);
      if (id) await drop(id);
    } finally {
      setSent(null);
      void cache.invalidateQueries({ queryKey: [key] });
    }
  };
  return { add, sent, fault };
}

async function put(address: string, path: string, file: File) {
  const answer = await fetch(address, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: file,
  }).catch(() => null);
  if (!answer) throw new Refusal(t('app.pantometDoesNotAnswerCheckThat'));
  if (!answer.ok) {
    const problem = (await answer.json().catch(() => null)) as { detail?: string } | null;
    throw new Refusal(problem?.detail ?? t('app.pathCouldNotBeSent', { path }));
  }
}
