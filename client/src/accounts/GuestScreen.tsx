import { Suspense, useState } from 'react';
import { addresses, type Cell, type JobPicture, type JobSlot } from '../api/client';
import { Crop } from '../design/Crop';
import { ProductSign } from '../design/ProductSign';
import { CommentSign, useCommentsKept } from '../jobs/CellNotes';
import { CommentList } from '../jobs/CommentList';
import { type Comment, useComments } from '../jobs/useComments';
import { JobRoom, useCells, useHead } from '../jobs/useJob';
import { t } from '../texts/texts';
import { AccountMenu } from './AccountMenu';

interface Shown {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell;
}

const rowHeight = 150;
const widest = 300;

/** What a guest sees of a job: every file by picture, the one in hand large, what was said about it, and the way to accept it. */
export function GuestScreen({ job }: { job: string }) {
  return (
    <Suspense>
      <JobRoom id={job}>
        <Gallery job={job} />
      </JobRoom>
    </Suspense>
  );
}

function Gallery({ job }: { job: string }) {
  const head = useHead();
  const cells = useCells();
  const comments = useComments(job).data ?? [];
  useCommentsKept();
  const [at, setAt] = useState<string | null>(null);
  const rows = head.pictures.map((picture) => ({
    picture,
    shown: head.slots.flatMap((slot): Shown[] => {
      const cell = cells.at(picture.picture.id, slot.address);
      return cell && cell.state !== 'skipped' ? [{ picture, slot, cell }] : [];
    }),
  }));
  const all = rows.flatMap((row) => row.shown);
  const inHand = all.find((one) => keyOf(one) === at) ?? all[0];
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex min-h-11 items-center gap-3 border-b border-line bg-sheet px-5">
        <ProductSign />
        <h1 className="min-w-0 flex-1 truncate text-head font-semibold">{head.name}</h1>
        <AccountMenu small={false} />
      </header>
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_380px] grid-rows-[minmax(0,1fr)] max-md:grid-cols-1 max-md:grid-rows-none max-md:overflow-y-auto">
        <div className="min-h-0 overflow-y-auto px-5 pt-4 pb-8 max-md:order-last max-md:overflow-visible">
          {all.length === 0 && <p>{t('accounts.noPicturesYet')}</p>}
          {rows
            .filter((row) => row.shown.length > 0)
            .map(({ picture, shown }) => (
              <section key={picture.picture.id} className="mb-6" aria-label={picture.picture.name}>
                <h2 className="mb-1.5 text-ink">{picture.picture.name}</h2>
                <div className="flex flex-wrap items-end gap-4">
                  {shown.map((one) => (
                    <CellButton
                      key={keyOf(one)}
                      shown={one}
                      active={one === inHand}
                      comments={about(one, comments)}
                      onPick={() => setAt(keyOf(one))}
                    />
                  ))}
                </div>
              </section>
            ))}
        </div>
        {inHand && <InHand job={job} shown={inHand} comments={about(inHand, comments)} />}
      </div>
    </div>
  );
}

const keyOf = ({ picture, slot }: Shown) => `${picture.picture.id}|${slot.address}`;

const about = ({ picture, slot }: Shown, comments: readonly Comment[]) =>
  comments.filter((one) => one.picture === picture.picture.id && one.slot === slot.address);

const isAccepted = (comments: readonly Comment[]) => comments.some((one) => one.accepted);

/** The size at which a cell is drawn within a width and a height. */
function fitted({ cell }: Shown, width: number, height: number) {
  const ratio = cell.width / cell.height;
  const wide = Math.min(width, height * ratio);
  return { width: Math.round(wide), height: Math.round(wide / ratio) };
}

function File({
  shown,
  width,
  height,
  large,
}: {
  shown: Shown;
  width: number;
  height: number;
  large: boolean;
}) {
  const { picture, slot, cell } = shown;
  const made = cell.files.filter((one) => one.made).toSorted((a, b) => a.width - b.width);
  const file = made.find((one) => one.width >= width) ?? made.at(-1);
  return file && cell.state === 'done' ? (
    <img
      src={large ? addresses.file(file.id) : addresses.small(file.id)}
      alt={`${picture.picture.name}, ${slot.slot.name}`}
      style={{ width, height }}
      className="block object-fill"
    />
  ) : (
    <span className="relative block" style={{ width, height }}>
      <Crop
        picture={picture}
        slot={slot.slot}
        frame={cell.frame}
        width={width}
        height={height}
        side={large ? 1800 : 480}
      />
    </span>
  );
}

function CellButton({
  shown,
  active,
  comments,
  onPick,
}: {
  shown: Shown;
  active: boolean;
  comments: readonly Comment[];
  onPick: () => void;
}) {
  const words = comments.filter((one) => one.text !== '').length;
  return (
    <button
      type="button"
      aria-pressed={active}
      onClick={onPick}
      className={`p-1 text-left ${active ? 'bg-sheet outline-2 outline-accent' : 'hover:bg-sheet'}`}
    >
      <File shown={shown} {...fitted(shown, widest, rowHeight)} large={false} />
      <span className="mt-1 flex items-center gap-2 text-small">
        <span className="flex-1">{shown.slot.slot.name}</span>
        {words > 0 && (
          <span className="flex items-center gap-1" title={t('jobs.comments')}>
            <CommentSign /> {words}
          </span>
        )}
        {isAccepted(comments) && <span className="text-meets">{t('accounts.accepted')}</span>}
      </span>
    </button>
  );
}

function InHand({ job, shown, comments }: { job: string; shown: Shown; comments: readonly Comment[] }) {
  return (
    <aside
      className="min-h-0 overflow-y-auto border-l border-line bg-sheet px-5 pt-4 pb-6 max-md:overflow-visible max-md:border-b max-md:border-l-0"
      aria-label={t('accounts.pictureInHand')}
    >
      <div className="grid place-items-center bg-surround p-3">
        <File shown={shown} {...fitted(shown, 314, 300)} large />
      </div>
      <h2 className="mt-3 font-semibold">{shown.slot.slot.name}</h2>
      <p className="text-ink-2 wrap-anywhere">
        {shown.slot.destinationName}, {shown.picture.picture.name}
      </p>
      <div className="mt-3">
        <CommentList
          key={keyOf(shown)}
          job={job}
          picture={shown.picture.picture.id}
          slot={shown.slot.address}
          comments={comments}
          canResolve={false}
        />
      </div>
    </aside>
  );
}
