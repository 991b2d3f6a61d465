import { useState } from 'react';
import { Button } from '../design/Button';
import { useAhead } from '../design/useAhead';
import { moment } from '../texts/numbers';
import { t } from '../texts/texts';
import { actorName } from './actors';
import { type Comment, useCommenting } from './useComments';

/** What was said about one cell, and another thing to say. */
export function CommentList({
  job,
  picture,
  slot,
  comments,
  canResolve,
}: {
  job: string;
  picture: string;
  slot: string;
  comments: readonly Comment[];
  /** True for those who work in the job: they say what was dealt with. */
  canResolve: boolean;
}) {
  const { add, resolve } = useCommenting(job);
  return (
    <div>
      {comments.length > 0 && (
        <ul className="border-t border-line" aria-label={t('jobs.comments')}>
          {comments.map((one) => (
            <li key={one.id} className="border-b border-line py-1.5">
              <p className={`text-small text-ink-2 ${one.isResolved ? '' : 'font-semibold'}`}>
                {actorName(one.actor)}, {moment(one.at)}
                {one.accepted && `, ${t('jobs.acceptedIt')}`}
              </p>
              {one.text !== '' && (
                <p className={`wrap-anywhere whitespace-pre-line ${one.isResolved ? 'text-ink-2' : ''}`}>
                  {one.text}
                </p>
              )}
              {canResolve && one.text !== '' && (
                <Resolved
                  stored={one.isResolved}
                  onSet={(resolved) => resolve.mutateAsync({ comment: one.id, resolved })}
                />
              )}
            </li>
          ))}
        </ul>
      )}
      <AddComment
        onSay={(text, accepts) => add.mutateAsync({ picture, slot, text, accepts })}
        guest={!canResolve}
        busy={add.isPending}
      />
      {(add.error ?? resolve.error) && (
        <p role="alert" className="mt-1 text-breaks">
          {(add.error ?? resolve.error)!.message}
        </p>
      )}
    </div>
  );
}

function AddComment({
  onSay,
  guest,
  busy,
}: {
  onSay: (text: string, accepts: boolean) => Promise<unknown>;
  guest: boolean;
  busy: boolean;
}) {
  const [text, setText] = useState('');
  const say = (accepts: boolean) =>
    void onSay(text, accepts).then(
      () => setText(''),
      // What was refused is said below; what was written stays.
      () => undefined,
    );
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        say(false);
      }}
    >
      <textarea
        aria-label={t('jobs.comment')}
        placeholder={t('jobs.comment')}
        rows={2}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="w-full resize-y rounded-md border border-line bg-sheet px-2 py-1 placeholder:text-ink-2 hover:border-ink-2"
      />
      <div className="mt-1 flex flex-wrap gap-2">
        <Button type="submit" className="h-7!" disabled={text.trim() === '' || busy}>
          {t('jobs.addComment')}
        </Button>
        {guest && (
          <Button kind="main" className="h-7!" disabled={busy} onClick={() => say(true)}>
            {t('jobs.accept')}
          </Button>
        )}
      </div>
    </form>
  );
}

function Resolved({ stored, onSet }: { stored: boolean; onSet: (resolved: boolean) => Promise<unknown> }) {
  const [resolved, choose] = useAhead(stored);
  return (
    <label className="flex items-center gap-1.5 text-small text-ink-2">
      <input
        type="checkbox"
        className="size-3.5 accent-(--pm-accent)"
        checked={resolved}
        onChange={({ target }) => {
          const { checked } = target;
          choose(checked, () => onSet(checked));
        }}
      />
      {t('jobs.dealtWith')}
    </label>
  );
}
