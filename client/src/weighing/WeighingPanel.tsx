import { useEffect, useState } from 'react';
import { Link } from 'wouter';
import { addresses, type Cell, type Choice, type JobPicture, type JobSlot, type Trial } from '../api/client';
import { Beam } from '../design/Beam';
import { Button, buttonShape, Key, KeyButton, MainLink } from '../design/Button';
import { count, sentence, size, trim, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { VerdictMark } from '../design/VerdictMark';
import { typeNames } from '../design/typeNames';
import { descriptorsOf } from '../jobs/decisions';
import { useJobStore } from '../jobs/useJob';
import { typesOf } from './useCurves';
import type { Wish } from './WeighingScreen';
import { Reached } from '../over/InkPart';

/** The words of the core, as they stand on a screen. */
const settleAfter = 150;
const rates = [1.5, 5, 20, 100];
const rateKey = 'pantomet-rate';

/** The figures of the very file that is handed over, and the choice there is about it. */
export function WeighingPanel({
  picture,
  slot,
  cell,
  variant,
  working,
  wish,
  tried,
  onDescriptor,
  onTry,
  onKeep,
  onAutomatic,
  onWorst,
}: {
  picture: JobPicture;
  slot: JobSlot;
  cell: Cell | undefined;
  variant: Trial | null;
  working: boolean;
  wish: Wish;
  /** True while something else is looked at than what was decided. */
  tried: boolean;
  onDescriptor: (descriptor: string) => void;
  onTry: (choice: Choice) => void;
  onKeep: (where: 'cell' | 'slot' | 'all') => void;
  onAutomatic: () => void;
  onWorst: () => void;
}) {
  const store = useJobStore();
  const file = variant?.file ?? null;
  const descriptors = descriptorsOf(cell, slot);
  const types = typesOf(slot.slot.types);
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label="Weight"
    >
      <header className="flex items-center gap-1.5 border-b border-line px-5 py-2">
        <div className="min-w-0 flex-1">
          <h2 className="truncate">{slot.slot.name}</h2>
          <p className="truncate text-[12px] text-ink-2">
            {picture.words ?? picture.picture.name}, {slot.destinationName}
          </p>
        </div>
        {(slot.slot.responsive || slot.slot.group) && (
          <Link
            href={`/job/${store.id}/ladder/${picture.picture.id}/${slot.address}`}
            className={`${buttonShape} h-7! border-line bg-sheet hover:border-ink-2`}
            title="Which screen loads which file"
          >
            Screens
          </Link>
        )}
        {descriptors.length > 4 ? (
          <select
            className="h-7 rounded-md border border-line bg-sheet px-1.5"
            aria-label="Width"
            value={wish.descriptor}
            onChange={(event) => onDescriptor(event.target.value)}
          >
            {descriptors.map((descriptor) => (
              <option key={descriptor}>{descriptor}</option>
            ))}
          </select>
        ) : (
          descriptors.length > 1 &&
          descriptors.map((descriptor) => (
            <Button
              key={descriptor}
              aria-pressed={descriptor === wish.descriptor}
              className={`h-7! ${descriptor === wish.descriptor ? 'border-ink! bg-sheet-2!' : ''}`}
              onClick={() => onDescriptor(descriptor)}
            >
              {descriptor}
            </Button>
          ))
        )}
      </header>
      <section className="border-b border-line px-5 pt-3 pb-4" aria-label="The file" aria-busy={working}>
        {variant && (
          <p className="flex items-center justify-between">
            <VerdictMark verdict={variant.verdict} withWord />
            {working && <span className="text-ink-2">weighing</span>}
          </p>
        )}
        {file && (
          <>
            <p className="mt-1.5 text-[22px] leading-tight font-semibold" data-testid="weight">
              {weight(file.bytes)}
              {slot.slot.maxBytes != null && (
                <span className="text-[14px] font-normal text-ink-2"> of {weight(slot.slot.maxBytes)}</span>
              )}
            </p>
            <p className="mb-1.5 text-ink-2">
              <span data-testid="bytes" data-bytes={file.bytes}>
                {count(file.bytes)}
              </span>{' '}
              bytes, {size(file.width, file.height)}
            </p>
            <Beam bytes={file.bytes} limit={slot.slot.maxBytes} />
            <Loading file={file.bytes} original={picture.picture.bytes} />
          </>
        )}
        {file?.likenessWord && file.likeness != null && (
          <div className="mt-3 flex items-center justify-between gap-3" data-testid="likeness">
            <p>
              <span className="font-semibold">{likenessWords[file.likenessWord]}</span>{' '}
              <span className="block text-ink-2">likeness {file.likeness.toFixed(3)}</span>
            </p>
            {file.likeness < 1 && (
              <Button onClick={onWorst} title="Bring the place that differs most to the middle">
                Worst place <Key>W</Key>
              </Button>
            )}
          </div>
        )}
        {file?.dress && <Reached dress={file.dress} outlined />}
        {variant?.reasons.map((reason) => (
          <p key={reason.code} className="mt-2 border-l-2 border-ink-2 pl-2.5">
            {sentence(reason.message)}
          </p>
        ))}
      </section>
      <section className="border-b border-line px-5 py-3" aria-label="Quality">
        {types.length > 1 && (
          <div className="mb-2.5 flex flex-wrap items-center gap-1.5">
            {types.map((one) => (
              <Button
                key={one}
                aria-pressed={one === file?.format}
                className={`h-7! ${one === file?.format ? 'border-ink! bg-sheet-2!' : ''}`}
                onClick={() => onTry({ format: one, quality: null })}
              >
                {typeNames[one] ?? one}
              </Button>
            ))}
          </div>
        )}
        {file && file.quality === null ? (
          <p className="text-ink-2">{typeNames[file.format]} here has no quality to choose.</p>
        ) : (
          <QualityRange
            wish={wish}
            found={file?.quality ?? null}
            ceiling={slot.slot.qualityCeiling}
            onTry={onTry}
          />
        )}
        <Button
          className="mt-2 h-7!"
          disabled={wish.quality === null && wish.format === null}
          onClick={onAutomatic}
        >
          Automatic quality <Key>A</Key>
        </Button>
      </section>
      <section className="border-b border-line px-5 py-3" aria-label="Keep the choice">
        <h3 className="mb-1.5 text-ink-2">{tried ? 'Keep this choice for' : 'This is what was decided.'}</h3>
        {tried && (
          <div className="grid grid-cols-3 gap-1.5">
            <KeyButton name="This one" k="1" act={() => onKeep('cell')} off={!file} />
            <KeyButton name="This slot" k="2" act={() => onKeep('slot')} off={!file} />
            <KeyButton name="All slots" k="3" act={() => onKeep('all')} off={!file} />
          </div>
        )}
      </section>
      <p className="px-5 py-3 text-ink-2">
        Drag the divider, or hold <Key>S</Key> to see the lossless picture. One of its pixels is one of the
        screen&apos;s.
      </p>
      <section
        className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3"
        aria-label="Hand over"
      >
        {file && variant?.verdict === 'breaks' && (
          <p className="mb-2">
            {cell?.files.some((one) => one.id === file.id && one.letThrough)
              ? 'It breaks a limit and was allowed anyway.'
              : 'It breaks a limit, so it stays out of the bundle until it is allowed.'}
          </p>
        )}
        {file && (
          <p className="mb-2 break-all text-ink-2" data-testid="file-name">
            {file.name}
          </p>
        )}
        {file && !working ? (
          <MainLink
            data-download
            href={addresses.download(file.id, file.name)}
            download={file.name}
            className="w-full"
          >
            Download this file <Key>D</Key>
          </MainLink>
        ) : (
          <Button kind="main" disabled className="w-full">
            Download this file
          </Button>
        )}
      </section>
    </aside>
  );
}

/** What a visitor is saved, in bytes and in time at a stated connection. */
function Loading({ file, original }: { file: number; original: number }) {
  const [rate, setRate] = useState(() => Number(localStorage.getItem(rateKey)) || 5);
  const seconds = (bytes: number) => (bytes * 8) / (rate * 1e6);
  const time = (bytes: number) => {
    const value = seconds(bytes);
    return value < 1 ? `${Math.max(1, Math.round(value * 1000))} ms` : `${trim(value, value < 10 ? 1 : 0)} s`;
  };
  return (
    <div className="mt-3" data-testid="loading">
      <p>
        {file < original
          ? `A visitor is saved ${weight(original - file)} of the original's ${weight(original)}: ${trim(original / file, 1)} times lighter.`
          : `The original weighs ${weight(original)}.`}
      </p>
      <p className="mt-1 text-ink-2">
        Loads in {time(file)}
        {file < original && `, the original in ${time(original)}`}, at{' '}
        <select
          aria-label="Connection"
          className="rounded-sm border border-line bg-sheet px-1"
          value={rate}
          onChange={(event) => {
            setRate(Number(event.target.value));
            localStorage.setItem(rateKey, event.target.value);
          }}
        >
          {rates.map((one) => (
            <option key={one} value={one}>
              {one} Mbit/s
            </option>
          ))}
        </select>
      </p>
    </div>
  );
}

function QualityRange({
  wish,
  found,
  ceiling,
  onTry,
}: {
  wish: Wish;
  found: number | null;
  ceiling: number;
  onTry: (choice: Choice) => void;
}) {
  // What the hand shows while it moves; taken over when it rests.
  const [draft, setDraft] = useState<number | null>(null);
  useEffect(() => {
    if (draft === null) return;
    const timer = setTimeout(() => {
      onTry({ format: wish.format, quality: draft });
      setDraft(null);
    }, settleAfter);
    return () => clearTimeout(timer);
  }, [draft, wish.format, onTry]);
  const value = draft ?? wish.quality ?? found ?? ceiling;
  return (
    <>
      <div className="flex items-center justify-between">
        <label htmlFor="quality" className="font-semibold">
          Quality {value}
        </label>
        <span className="text-ink-2">
          {wish.quality === null && draft === null ? 'found automatically' : 'by hand'}
        </span>
      </div>
      <input
        id="quality"
        type="range"
        min={1}
        max={100}
        value={value}
        onChange={(event) => setDraft(Number(event.target.value))}
        className="mt-1 w-full accent-(--pm-accent)"
      />
    </>
  );
}
