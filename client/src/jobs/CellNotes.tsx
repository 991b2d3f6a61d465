import { useEffect } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { cellKey } from '../domain/jobState';
import { t } from '../texts/texts';
import { Initials } from './OthersHere';
import { type PersonInJob } from './Together';
import { useComments } from './useComments';
import { useJob, useJobStore } from './useJob';

const nobody: readonly PersonInJob[] = [];

/** Reads what was said about cells again when something new was said. */
export function useCommentsKept() {
  const store = useJobStore();
  const cache = useQueryClient();
  const said = useJob((job) => job.together.said);
  useEffect(() => {
    if (said > 0) void cache.invalidateQueries({ queryKey: ['comments', store.id] });
  }, [said, cache, store.id]);
  const comments = useComments(store.id).data;
  useEffect(() => {
    if (comments) store.together.takeComments(comments);
  }, [comments, store]);
}

/** Who is at a cell, and how much was said about it that is not dealt with. */
export function CellNotes({ picture, slot }: { picture: string; slot: string }) {
  const key = cellKey(picture, slot);
  const here = useJob((job) => job.together.at.get(key)) ?? nobody;
  const open = useJob((job) => job.together.open.get(key) ?? 0);
  if (here.length === 0 && open === 0) return null;
  return (
    <span className="absolute top-0.5 left-0.5 z-10 flex gap-0.5">
      {here.slice(0, 2).map((one) => (
        <Initials key={one.window} person={one} />
      ))}
      {open > 0 && (
        <span
          title={t('jobs.openComments', { count: open })}
          className="flex h-5 items-center gap-1 rounded-sm border border-ink bg-sheet px-1 text-note leading-none font-semibold"
        >
          <CommentSign />
          {open}
        </span>
      )}
    </span>
  );
}

/** The sign of something that was said. */
export function CommentSign() {
  return (
    <svg viewBox="0 0 12 12" width="10" height="10" aria-hidden>
      <path d="M1.5 2h9v6H6L3.5 10.3V8h-2z" fill="none" stroke="currentColor" strokeWidth="1.3" />
    </svg>
  );
}
