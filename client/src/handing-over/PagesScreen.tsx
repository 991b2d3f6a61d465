import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useLocation } from 'wouter';
import { api, type JobPicture, take } from '../api/client';
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
  const head = useHead();
  const [base, setBase] = useState('');
  const [kind, setKind] = useState<MarkupKind>('html');
  const { said, copy, fail } = useCopy();
  const missing = head.pictures.filter(wantsText);
  const { picture, choose, nextMissing, next } = useChosenPicture(missing);
  const { pages, allMarkup } = usePages(picture, base);
  const store = useJobStore();
  const [, go] = useLocation();
  const copyAll = () =>
    allMarkup().then(
      (text) => copy(t('handingOver.theMarkupOfTheWholeJob'), String(text)),
      (refusal: Error) => fail(refusal.message),
    );
  const copyOne = () => {
    const texts = (pages.data ?? []).flatMap((page) => page[kind] ?? []);
    if (texts.length > 0) copy(t('handingOver.theMarkupOfThisPicture'), texts.join('\n\n'));
  };
  useShortcuts({
    c: copyOne,
    'shift+c': () => void copyAll(),
    e: nextMissing,
    n: (event) => next(event.shiftKey ? -1 : 1),
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
        <div className="grid min-h-0 grid-cols-[260px_minmax(0,1fr)_300px] max-md:block max-md:overflow-y-auto">
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

/** The picture whose markup is shown, and the ways to another. */
function useChosenPicture(missing: readonly JobPicture[]) {
  const { pictures } = useHead();
  const [chosen, choose] = useState<string | null>(null);
  const picture = pictures.find((one) => one.picture.id === chosen) ?? pictures[0];
  const after = (among: readonly JobPicture[], by: number) => {
    const at = among.findIndex((one) => one.picture.id === picture?.picture.id);
    const next = among[(at + by + among.length) % Math.max(1, among.length)];
    if (next) choose(next.picture.id);
  };
  return {
    ...{ picture, choose },
    nextMissing: () => after(missing, 1),
    next: (by: number) => after(pictures, by),
  };
}

/** The markup of one picture, and of all when it is asked for. */
function usePages(picture: JobPicture | undefined, base: string) {
  const store = useJobStore();
  const sequence = useJob((job) => job.sequence);
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
  const allMarkup = () =>
    take(
      api.GET('/api/jobs/{id}/pages.html', {
        params: { path: { id: store.id }, query: { base } },
        parseAs: 'text',
      }),
    );
  return { pages, allMarkup };
}
