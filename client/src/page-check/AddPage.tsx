import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useLocation } from 'wouter';
import { api, take } from '../api/client';
import { Button } from '../design/Button';
import { t } from '../texts/texts';
import type { usePageIntake } from './usePageIntake';

/** A page by its address, or one that is uploaded from this machine. */
export function AddPage({ intake }: { intake: ReturnType<typeof usePageIntake> }) {
  const [, go] = useLocation();
  const cache = useQueryClient();
  const [address, setAddress] = useState('');
  const [hosts, setHosts] = useState('');
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
        <Button
          needs="checkPages"
          kind="main"
          type="submit"
          disabled={address.trim() === '' || add.isPending}
        >
          {t('pageCheck.measure')}
        </Button>
        <OwnPage intake={intake} />
      </form>
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

function OwnPage({ intake }: { intake: ReturnType<typeof usePageIntake> }) {
  const file = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const taken = (event: React.ChangeEvent<HTMLInputElement>) => {
    void intake.add([...(event.target.files ?? [])]);
    event.target.value = '';
  };
  return (
    <>
      <span className="flex h-8 items-center text-ink-2">{t('pageCheck.orAPageFromThisMachine')}</span>
      <Button needs="checkPages" onClick={() => folder.current?.click()} disabled={intake.sent !== null}>
        {t('pageCheck.folder')}
      </Button>
      <Button needs="checkPages" onClick={() => file.current?.click()} disabled={intake.sent !== null}>
        {t('pageCheck.zIPOrSavedPage')}
      </Button>
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
    </>
  );
}
