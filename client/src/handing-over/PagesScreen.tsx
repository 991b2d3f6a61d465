import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, take } from '../api/client';
import { useShortcuts } from '../design/useShortcuts';
import { Notice } from '../design/Notice';
import { wantsText } from '../domain/decisions';
import { JobBar } from '../jobs/JobBar';
import { useHead, useJob, useJobStore } from '../jobs/useJob';
import { HandOverTabs } from './HandOverTabs';
import { type MarkupKind, PageMarkup } from './PageMarkup';
import { PagePictures } from './PagePictures';
import { PagesAside } from './PagesAside';
import { useCopy } from '../design/useCopy';
import { t } from '../texts/texts';

/** How pages show the pictures: markup by picture and place, copied with one key. */
export function PagesScreen() {
  const store = useJobStore();
  const head = useHead();
  const [, go] = useLocation();
  const [chosen, choose] = useState<string | null>(null);
  const [base, setBase] = useState('');
  const [kind, setKind] = useState<MarkupKind>('html');
  const { said, copy, fail } = useCopy();
  const sequence = useJob((job) => job.sequence);
  const picture = head.pictures.find((one) => one.picture.id === chosen) ?? head.pictures[0];
  const missing = head.pictures.filter(wantsText);
  const pages = useQuery({
    queryKey: ['pages', store.id, picture?.picture.id, base, sequence],
    queryFn: ({ signal }) =>
      take(
        api.GET('/api/jobs/{id}/pages', {
          signal,
          params: { path: { id: store.id }, query: { picture: picture!.picture.id, base } },
        }),
      ),
    enabled: picture !== undefined,
    placeholderData: (previous) => previous,
    gcTime: 5_000,
    retry: false,
  });
  const copyAll = () =>
    take(
      api.GET('/api/jobs/{id}/pages.html', {
        params: { path: { id: store.id }, query: { base } },
        parseAs: 'text',
      }),
    ).then(
      (text) => copy(t('handingOver.theMarkupOfTheWholeJob'), String(text)),
      (refusal: Error) => fail(refusal.message),
    );
  const copyOne = () => {
    const texts = (pages.data ?? []).flatMap((page) => page[kind] ?? []);
    if (texts.length > 0) copy(t('handingOver.theMarkupOfThisPicture'), texts.join('\n\n'));
  };
  const nextMissing = () => {
    const at = missing.findIndex((one) => one.picture.id === picture?.picture.id);
    const next = missing[(at + 1) % Math.max(1, missing.length)];
    if (next) choose(next.picture.id);
  };
  useShortcuts({
    c: copyOne,
    'shift+c': () => void copyAll(),
    e: nextMissing,
    n: (event) => {
      const at = head.pictures.findIndex((one) => one === picture);
      const by = event.shiftKey ? head.pictures.length - 1 : 1;
      choose(head.pictures[(at + by) % head.pictures.length]?.picture.id ?? null);
    },
    b: () => go(`/job/${store.id}`),
  });
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_1fr]">
      <div>
        <JobBar stage="handing-over" at={picture && { picture: picture.picture.id }} />
      </div>
      <HandOverTabs part="pages" />
      {!picture ? (
        <Notice>{t('handingOver.theJobHasNoPicturesYet')}</Notice>
      ) : (
        <div className="grid min-h-0 grid-cols-[260px_1fr_300px]">
          <PagePictures chosen={picture} onChoose={choose} />
          <PageMarkup
            picture={picture}
            pages={pages.data}
            fault={pages.error?.message}
            kind={kind}
            onKind={setKind}
            onCopy={copy}
          />
          <PagesAside
            base={base}
            onBase={setBase}
            missing={missing.length}
            said={said}
            onNextMissing={nextMissing}
            onCopyAll={() => void copyAll()}
            onCopy={pages.data?.some((page) => page[kind]) ? copyOne : null}
          />
        </div>
      )}
    </div>
  );
}
