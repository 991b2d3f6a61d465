import { useMemo, useState } from 'react';
import { useSearchParams } from 'wouter';
import type { Picture } from '../api/client';
import { usePictures } from '../api/queries';
import { useKeys } from '../app/useKeys';
import { Button, Key } from '../design/Button';
import { Notice } from '../design/Notice';
import { PictureFacts } from './PictureFacts';
import { PictureSheet } from './PictureSheet';
import { PictureCare } from './PictureCare';
import { RemovedPictures } from './RemovedPictures';

/** Everything that has arrived, each with its measures; beside it the facts of one, and its originals. */
export function PicturesScreen({ onChoose }: { onChoose: () => void }) {
  const pictures = usePictures();
  const [search, setSearch] = useSearchParams();
  const [scale, setScale] = useState(190);
  const chosen = useMemo(
    () => pictures.data?.find((one) => one.id === search.get('picture')) ?? pictures.data?.[0],
    [pictures.data, search],
  );

  useKeys({ r: onChoose });
  if (pictures.isPending) return <Notice>Looking through the pictures.</Notice>;
  if (pictures.isError)
    return (
      <Notice action={<Button onClick={() => void pictures.refetch()}>Try again</Button>}>
        {pictures.error.message}
      </Notice>
    );
  if (pictures.data.length === 0) return <Empty onChoose={onChoose} />;

  const choose = (picture: Picture) => setSearch({ picture: picture.id }, { replace: true });
  return (
    <div className="grid h-full min-h-0 grid-cols-[1fr_348px]">
      <section className="flex min-h-0 flex-col" aria-label="Pictures">
        <header className="flex items-center gap-4 px-5 pt-4 pb-2">
          <h1 className="text-base">
            {pictures.data.length} {pictures.data.length === 1 ? 'picture' : 'pictures'}
          </h1>
          <span className="text-ink-2">Drop or paste files anywhere to read them in.</span>
          <span className="flex-1" />
          <label className="flex items-center gap-2">
            <span className="text-ink-2">Sheet size</span>
            <input
              type="range"
              min={130}
              max={320}
              step={10}
              value={scale}
              onChange={(event) => setScale(Number(event.target.value))}
              className="w-24 accent-(--pm-accent)"
            />
          </label>
          <RemovedPictures />
          <Button kind="main" onClick={onChoose}>
            Read pictures in <Key>R</Key>
          </Button>
        </header>
        <ul
          className="grid flex-1 content-start gap-x-6 gap-y-5 overflow-y-auto px-5 pt-2 pb-6"
          style={{ gridTemplateColumns: `repeat(auto-fill, minmax(${scale}px, 1fr))` }}
        >
          {pictures.data.map((picture) => (
            <PictureSheet
              key={picture.id}
              picture={picture}
              side={scale}
              chosen={picture.id === chosen?.id}
              onChoose={() => choose(picture)}
            />
          ))}
        </ul>
      </section>
      {chosen && (
        <aside
          className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
          aria-label="Facts and originals"
        >
          <PictureFacts picture={chosen} />
          <PictureCare key={chosen.id} picture={chosen} />
        </aside>
      )}
    </div>
  );
}

function Empty({ onChoose }: { onChoose: () => void }) {
  return (
    <div className="grid h-full place-items-center">
      <div className="max-w-md text-center">
        <h1 className="text-xl">No pictures yet</h1>
        <p className="mt-2 mb-5 text-ink-2">
          Drop pictures anywhere on this page, paste one, or choose files: JPEG, PNG, WebP, AVIF, GIF, TIFF or
          SVG, many at a time. They stay on this machine, and the originals are never changed.
        </p>
        <Button kind="main" onClick={onChoose}>
          Read pictures in
        </Button>
      </div>
    </div>
  );
}
