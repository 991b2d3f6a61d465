import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useLocation } from 'wouter';
import { api, type PageCheck, take } from '../api/client';
import { usePageChecks } from '../api/queries';
import { Button } from '../design/Button';
import { weight } from '../design/figures';
import { Notice } from '../design/Notice';
import { progressWords } from './progress';
import type { usePageIntake } from './usePageIntake';
import { list } from '../texts/numbers';
import { t } from '../texts/texts';

/** The pages that were measured; another one is the next step. */
export function PageChecksScreen({ intake }: { intake: ReturnType<typeof usePageIntake> }) {
  const checks = usePageChecks();
  const cache = useQueryClient();
  const remove = useMutation({
    mutationFn: (id: string) => take(api.DELETE('/api/page-checks/{id}', { params: { path: { id } } })),
    onSettled: () => void cache.invalidateQueries({ queryKey: ['page-checks'] }),
  });
  if (checks.isPending) return <Notice>{t('pageCheck.loadingThePages')}</Notice>;
  if (checks.isError)
    return (
      <Notice action={<Button onClick={() => void checks.refetch()}>{t('pageCheck.tryAgain')}</Button>}>
        {checks.error.message}
      </Notice>
    );
  return (
    <div className="h-full overflow-y-auto px-5 pt-4 pb-8">
      <header className="flex items-center gap-4">
        <h1 className="text-head">{t('pageCheck.pageChecks')}</h1>
        <span className="text-ink-2">{t('pageCheck.aPageCheckOpensAPage')}</span>
      </header>
      <AddPage intake={intake} />
      {checks.data.length === 0 ? (
        <p className="mt-16 text-center text-ink-2">{t('pageCheck.noPagesYetEnterAnAddress')}</p>
      ) : (
        <ul className="mt-4 flex flex-col border-t border-line bg-sheet">
          {checks.data.map((check) => (
            <CheckLine key={check.id} check={check} onRemove={() => remove.mutate(check.id)} />
          ))}
        </ul>
      )}
    </div>
  );
}

function AddPage({ intake }: { intake: ReturnType<typeof usePageIntake> }) {
  const [, go] = useLocation();
  const cache = useQueryClient();
  const [address, setAddress] = useState('');
  const [hosts, setHosts] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const add = useMutation({
    mutationFn: () =>
      take(
        api.POST('/api/page-checks', {
          body: { address, allowed: hosts.split(/[\s,]+/).filter((host) => host.length > 0) },
        }),
      ),
    onSuccess: (check) => {
      void cache.invalidateQueries({ queryKey: ['page-checks'] });
      go(`/page-checks/${check.id}`);
    },
  });
  const fault = add.error?.message ?? intake.fault;
  const field = 'h-8 rounded-md border border-line bg-sheet px-2 hover:border-ink-2';
  const taken = (event: React.ChangeEvent<HTMLInputElement>) => {
    void intake.add([...(event.target.files ?? [])]);
    event.target.value = '';
  };
  return (
    <section aria-label={t('pageCheck.addAPage')} className="mt-4 border border-line bg-sheet px-4 py-3">
      <form
        className="flex flex-wrap items-end gap-x-4 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <label className="flex min-w-64 flex-1 flex-col gap-1">
          <span>{t('pageCheck.addressOfYourPage')}</span>
          <input
            value={address}
            onChange={(event) => setAddress(event.target.value)}
            placeholder="https://"
            className={field}
          />
        </label>
        <label className="flex w-60 flex-col gap-1">
          <span>{t('pageCheck.otherHostsThatThePageMay')}</span>
          <input
            value={hosts}
            onChange={(event) => setHosts(event.target.value)}
            placeholder={t('pageCheck.none')}
            className={field}
          />
        </label>
        <Button kind="main" type="submit" disabled={address.trim() === '' || add.isPending}>
          {t('pageCheck.measure')}
        </Button>
        <span className="flex h-8 items-center text-ink-2">{t('pageCheck.orAPageFromThisMachine')}</span>
        <Button onClick={() => folder.current?.click()} disabled={intake.sent !== null}>
          {t('pageCheck.folder')}
        </Button>
        <Button onClick={() => file.current?.click()} disabled={intake.sent !== null}>
          {t('pageCheck.zIPOrSavedPage')}
        </Button>
      </form>
      <input
        ref={file}
        type="file"
        hidden
        aria-label={t('pageCheck.chooseAPage')}
        accept=".zip,.html,.htm,.mhtml,.mht"
        onChange={taken}
      />
      <input
        ref={folder}
        type="file"
        hidden
        multiple
        aria-label={t('pageCheck.chooseAPagesFolder')}
        {...{ webkitdirectory: '' }}
        onChange={taken}
      />
      {intake.sent && (
        <p role="status" className="mt-2 text-ink-2">
          {t('pageCheck.nameDoneOfOfFilesUploaded', {
            name: intake.sent.name,
            done: intake.sent.done,
            of: intake.sent.of,
          })}
        </p>
      )}
      {fault && (
        <p role="alert" className="mt-2 text-breaks">
          {fault}
        </p>
      )}
    </section>
  );
}

function CheckLine({ check, onRemove }: { check: PageCheck; onRemove: () => void }) {
  return (
    <li className="grid grid-cols-[minmax(180px,1fr)_minmax(260px,360px)_auto] items-center gap-6 border-b border-line px-4 py-3">
      <Link href={`/page-checks/${check.id}`} className="group min-w-0">
        <span className="block truncate text-head font-semibold group-hover:underline">{check.name}</span>
        <span className="block text-ink-2">
          {t('pageCheck.viewportsPxAtDensities', {
            viewports: check.viewports.join(', '),
            densities: list(check.densities.map((one) => `${one}x`)),
          })}
        </span>
      </Link>
      <span>
        {check.state === 'done' && check.mean != null && check.possible != null && check.images != null ? (
          <>
            <span className="block">
              {t('pageCheck.meanLoadedPerScreenPossibleWould', {
                mean: weight(check.mean),
                possible: weight(check.possible),
              })}
            </span>
            <span className="block text-ink-2">{t('common.pictures', { count: check.images })}</span>
          </>
        ) : (
          <span className={check.state === 'failed' ? 'text-breaks' : 'text-ink-2'}>
            {progressWords(check)}
          </span>
        )}
      </span>
      <Button onClick={onRemove} aria-label={t('pageCheck.removeName', { name: check.name })}>
        {t('pageCheck.remove')}
      </Button>
    </li>
  );
}
