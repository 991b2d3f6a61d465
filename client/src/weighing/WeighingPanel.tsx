import {
  addresses,
  type LikenessWord,
  type Picture,
  type Plan,
  type Slot,
  type Variant,
} from '../api/client';
import { Beam } from '../design/Beam';
import { Button, Key, MainLink } from '../design/Button';
import { count, sentence, size, trim, weight } from '../design/figures';
import { VerdictMark } from '../design/VerdictMark';
import { QualityControl } from './QualityControl';

/** The words of the core, as they stand on a screen. */
const likenessWords: Record<LikenessWord, string> = {
  noDifference: 'No difference at 100 %',
  hardToSee: 'Hard to see',
  slight: 'Slight difference',
  visible: 'Visible difference',
  rough: 'Rough',
};

/** The figures of the very file that is downloaded, and the few choices there are about it. */
export function WeighingPanel({
  picture,
  slot,
  plans,
  variant,
  working,
  density,
  onDensity,
  format,
  onFormat,
  quality,
  onQuality,
  onWorst,
}: {
  picture: Picture;
  slot: Slot;
  plans: readonly Plan[];
  variant: Variant | null;
  working: boolean;
  density: number;
  onDensity: (density: number) => void;
  format: string | null;
  onFormat: (format: string | null) => void;
  quality: number | null;
  onQuality: (quality: number | null) => void;
  onWorst: () => void;
}) {
  const file = variant?.file ?? null;
  const kept = variant?.verdict === 'meets' || variant?.verdict === 'concedes';
  return (
    <aside
      className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet"
      aria-label="Weight"
    >
      {plans.length > 1 && (
        <section className="flex items-center gap-1.5 border-b border-line px-5 py-3" aria-label="Density">
          {plans.map((plan) => (
            <Button
              key={plan.density}
              aria-pressed={plan.density === density}
              className={plan.density === density ? 'border-ink! bg-sheet-2!' : ''}
              onClick={() => onDensity(plan.density)}
            >
              {plan.density}x {plan.verdict !== 'meets' && <VerdictMark verdict={plan.verdict} />}
            </Button>
          ))}
        </section>
      )}
      <section className="border-b border-line px-5 pt-4 pb-5" aria-label="The file" aria-busy={working}>
        {variant && (
          <p className="flex items-center justify-between">
            <VerdictMark verdict={variant.verdict} withWord />
            {working && <span className="text-ink-2">weighing</span>}
          </p>
        )}
        {file && (
          <>
            <p className="mt-2 text-[22px] leading-tight font-semibold" data-testid="weight">
              {weight(file.bytes)}
              {slot.maxBytes != null && (
                <span className="text-[14px] font-normal text-ink-2"> of {weight(slot.maxBytes)}</span>
              )}
            </p>
            <p className="mb-2 text-ink-2">
              <span data-testid="bytes" data-bytes={file.bytes}>
                {count(file.bytes)}
              </span>{' '}
              bytes, {size(file.width, file.height)}
            </p>
            <Beam bytes={file.bytes} limit={slot.maxBytes} />
            <p className="mt-4">
              {file.bytes < picture.bytes
                ? `${trim(picture.bytes / file.bytes, 1)} times lighter than the original's ${weight(picture.bytes)}.`
                : `The original weighs ${weight(picture.bytes)}.`}
            </p>
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
        {variant?.reasons.map((reason) => (
          <p key={reason.code} className="mt-2 border-l-2 border-ink-2 pl-2.5">
            {sentence(reason.message)}
          </p>
        ))}
      </section>
      <QualityControl
        slot={slot}
        file={file}
        format={format}
        onFormat={onFormat}
        quality={quality}
        onQuality={onQuality}
      />
      <p className="px-5 py-4 text-ink-2">
        Drag the divider, or hold <Key>S</Key> to see through to the picture without loss. Drag the picture to
        look around: one of its pixels is one of the screen's.
      </p>
      <section
        className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3"
        aria-label="Hand over"
      >
        {file && !kept && (
          <p className="mb-2">
            It breaks a limit, so it is not handed over. Lower the quality, or let it be found automatically.
          </p>
        )}
        {file && (
          <p className="mb-2 break-all text-ink-2" data-testid="file-name">
            {file.name}
          </p>
        )}
        {file && kept && !working ? (
          <MainLink data-download href={addresses.download(file.id)} download={file.name} className="w-full">
            Download <Key>D</Key>
          </MainLink>
        ) : (
          <Button kind="main" disabled className="w-full">
            Download
          </Button>
        )}
      </section>
    </aside>
  );
}
