import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'wouter';
import type { Picture } from '../api/client';
import { useLibraryPage, usePicture } from '../api/queries';
import { useShortcuts } from '../design/useShortcuts';
import { Button, Key } from '../design/Button';
import { Notice } from '../design/Notice';
import { LibraryGrid } from './LibraryGrid';
import { PictureFacts } from './PictureFacts';
import { PictureCare } from './PictureCare';
import { RemovedPictures } from './RemovedPictures';
import { StorageSheet } from './StorageSheet';
import { t } from '../texts/texts';

/** Everything that has arrived, each with its measures; beside it the facts of one, and its originals. */
export function PicturesScreen({ onChoose }: { onChoose: () => void }) {
  const [params, setParams] = useSearchParams();
  const [scale, setScale] = useState(190);
  const [search, setSearch] = useState('');
  const [asked, setAsked] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const pictures = useLibraryPage(asked, 0);
  const named = usePicture(params.get('picture'));
  const chosen = named.data ?? pictures.data?.pictures[0];
  // Searched for when the hand rests, not for each letter.
  useEffect(() => {
    const timer = setTimeout(() => setAsked(search.trim()), 120);
    return () => clearTimeout(timer);
  }, [search]);

  const to = useRef(setParams);
  useEffect(() => {
    to.current = setParams;
  });
  const choose = useCallback(
    (picture: Picture) => to.current({ picture: picture.id }, { replace: true }),
    [],
  );

  useShortcuts({ r: onChoose, '/': () => field.current?.focus() });
  if (pictures.isPending) return <Notice>{t('pictures.loadingThePictures')}</Notice>;
  if (pictures.isError)
    return (
      <Notice action={<Button onClick={() => void pictures.refetch()}>{t('pictures.tryAgain')}</Button>}>
        {pictures.error.message}
      </Notice>
    );
  const { total } = pictures.data;
  if (total === 0 && asked === '') return <Empty onChoose={onChoose} />;

  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_348px] max-md:block max-md:overflow-y-auto">
      <section className="flex min-h-0 flex-col" aria-label={t('pictures.pictures')}>
        <Head
          total={total}
          field={field}
          search={search}
          onSearch={setSearch}
          scale={scale}
          onScale={setScale}
          onChoose={onChoose}
        />
        {total === 0 ? (
          <p className="grid flex-1 place-items-center">{t('pictures.noPictureHasThisInIts')}</p>
        ) : (
          <LibraryGrid
            key={asked}
            search={asked}
            total={total}
            side={scale}
            chosen={chosen?.id}
            onChoose={choose}
          />
        )}
      </section>
      {chosen && (
        <aside
          className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
          aria-label={t('pictures.detailsAndOriginals')}
          // Whoever does something with the first one that was found has chosen it: it stays, whatever is found then.
          onFocusCapture={() => choose(chosen)}
          onChangeCapture={() => choose(chosen)}
        >
          <PictureFacts picture={chosen} />
          <PictureCare key={chosen.id} picture={chosen} />
        </aside>
      )}
    </div>
  );
}

function Head({
  total,
  field,
  search,
  onSearch,
  scale,
  onScale,
  onChoose,
}: {
  total: number;
  field: RefObject<HTMLInputElement | null>;
  search: string;
  onSearch: (search: string) => void;
  /** The longest side of a small copy, in pixels. */
  scale: number;
  onScale: (scale: number) => void;
  onChoose: () => void;
}) {
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-2 px-5 pt-4 pb-2">
      <h1 className="text-head">{t('common.pictures', { count: total })}</h1>
      <input
        ref={field}
        type="search"
        aria-label={t('pictures.searchByNameAndText')}
        placeholder={t('pictures.searchByNameAndText2')}
        value={search}
        maxLength={200}
        onChange={(event) => onSearch(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.blur()}
        className="w-60 rounded-md border border-line bg-sheet px-2 py-1 placeholder:text-ink-2"
      />
      <span className="flex-1" />
      <label className="flex items-center gap-2">
        <span className="text-ink-2">{t('pictures.thumbnailSize')}</span>
        <input
          type="range"
          min={130}
          max={320}
          step={10}
          value={scale}
          onChange={(event) => onScale(Number(event.target.value))}
          className="w-24 accent-(--pm-accent)"
        />
      </label>
      <StorageSheet />
      <RemovedPictures />
      <Button needs="edit" kind="main" onClick={onChoose}>
        {t('pictures.addPictures')} <Key>R</Key>
      </Button>
    </header>
  );
}

function Empty({ onChoose }: { onChoose: () => void }) {
  return (
    <div className="grid h-full place-items-center">
      <div className="max-w-md text-center">
        <h1 className="text-title">{t('pictures.noPicturesYet')}</h1>
        <p className="mt-2 mb-5 text-ink-2">{t('pictures.dropPicturesAnywhereOnThisPage')}</p>
        <Button needs="edit" kind="main" onClick={onChoose}>
          {t('pictures.addPictures')}
        </Button>
      </div>
    </div>
  );
}
