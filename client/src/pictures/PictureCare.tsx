import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { addresses, api, type Picture, Refusal, take } from '../api/client';
import { useRevisions } from '../api/queries';
import { Button } from '../design/Button';
import { FixOriginal } from './FixOriginal';
import { RemovePicture } from './RemovePicture';
import { t } from '../texts/texts';

/** What the server is asked for with a picture of the library. */
function useCare(picture: Picture) {
  const cache = useQueryClient();
  const [, go] = useLocation();
  const settled = () => void cache.invalidateQueries({ queryKey: ['pictures'] });
  const replace = useMutation({
    mutationFn: async (file: File) => {
      const answer = await fetch(
        `/api/pictures/${picture.id}/revisions?name=${encodeURIComponent(file.name)}`,
        { method: 'POST', body: file, headers: { 'Content-Type': 'application/octet-stream' } },
      );
      if (!answer.ok)
        throw new Refusal(
          ((await answer.json()) as { detail?: string }).detail ?? t('pictures.theFileWasRefused'),
        );
    },
    onSettled: settled,
  });
  const restore = useMutation({
    mutationFn: (number: number) =>
      take(
        api.POST('/api/pictures/{id}/revisions/{number}/restore', {
          params: { path: { id: picture.id, number } },
        }),
      ),
    onSettled: settled,
  });
  const remove = useMutation({
    mutationFn: (unpublish: boolean) =>
      take(api.DELETE('/api/pictures/{id}', { params: { path: { id: picture.id }, query: { unpublish } } })),
    onSettled: settled,
  });
  const start = useMutation({
    mutationFn: () =>
      take(api.POST('/api/jobs', { body: { name: null, pictures: [picture.id], slots: null } })),
    onSuccess: (job) => go(`/job/${job.id}`),
  });
  return { replace, restore, remove, start };
}

/** What can be done with a picture of the library: a job from it, a newer original, an earlier one, removing it. */
export function PictureCare({ picture }: { picture: Picture }) {
  const chooser = useRef<HTMLInputElement>(null);
  const [sure, setSure] = useState(false);
  const { replace, restore, remove, start } = useCare(picture);
  const fault = replace.error ?? restore.error ?? remove.error ?? start.error;
  return (
    <section className="px-5 pt-4 pb-6" aria-label={t('pictures.originals')}>
      <div className="flex flex-wrap gap-2">
        <Button needs="edit" kind="main" onClick={() => start.mutate()}>
          {t('pictures.newJobWithIt')}
        </Button>
        <Button needs="edit" onClick={() => chooser.current?.click()} disabled={replace.isPending}>
          {replace.isPending ? t('pictures.addingOriginal') : t('pictures.replaceTheOriginal')}
        </Button>
      </div>
      <input
        ref={chooser}
        type="file"
        hidden
        aria-label={t('pictures.chooseANewerOriginal')}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) replace.mutate(file);
          event.target.value = '';
        }}
      />
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault.message}
        </p>
      )}
      <h3 className="mt-4 text-ink-2">{t('pictures.originalsTheNewestFirst')}</h3>
      <Revisions picture={picture} onRestore={(number) => restore.mutate(number)} />
      <p className="mt-2 text-ink-2">{t('pictures.framesAndMarksStayIfThe')}</p>
      <FixOriginal picture={picture} />
      <div className="mt-4 border-t border-line pt-3">
        {sure ? (
          <RemovePicture
            picture={picture}
            onRemove={(unpublish) => remove.mutate(unpublish)}
            onKeep={() => setSure(false)}
          />
        ) : (
          <Button needs="edit" onClick={() => setSure(true)}>
            {t('pictures.removeFromTheLibrary')}
          </Button>
        )}
      </div>
    </section>
  );
}

function Revisions({ picture, onRestore }: { picture: Picture; onRestore: (number: number) => void }) {
  const revisions = useRevisions(picture.id, picture.revision);
  return (
    <ul className="mt-1 border-t border-line">
      {revisions.data?.map((one) => (
        <li key={one.number} className="flex items-center gap-2 border-b border-line py-1.5">
          <span className="w-5 text-ink-2">{one.number}</span>
          <a
            className="min-w-0 flex-1 wrap-anywhere text-accent underline underline-offset-2"
            href={`${addresses.original(picture.id)}?revision=${one.number}`}
            download={one.name}
          >
            {one.name}
          </a>
          {one.current ? (
            <span className="text-ink-2">{t('pictures.inUse')}</span>
          ) : (
            <Button needs="edit" className="h-7!" onClick={() => onRestore(one.number)}>
              {t('pictures.restoreOriginal')}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
