import { DividerLabel } from '../design/DividerLabel';
import type { ReactNode } from 'react';
import { addresses, type VariantFile } from '../api/client';
import { Divider } from '../design/Divider';
import { t } from '../texts/texts';
import { useComparison } from './useComparison';

/** Before and after at true pixels: one pixel of the file is one pixel of the screen. A divider is dragged between them. */
export function Compare({
  file,
  meanwhile,
  working,
  worst,
}: {
  file: VariantFile | null;
  /** What stands there until the file does. */
  meanwhile: ReactNode;
  working: boolean;
  /** Counts how often the worst place was asked for. */
  worst: number;
}) {
  const view = useComparison(file, worst);
  const { room, size, divider, from, to, whole, isThere, share, setShare, seeThrough } = view;
  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="compare">
      {working && (
        <div
          className="absolute inset-x-0 top-0 z-20 h-0.5 overflow-hidden bg-line"
          role="progressbar"
          aria-label={t('weighing.weighing')}
        >
          <span className="working-bar absolute inset-y-0 w-1/4 bg-accent" />
        </div>
      )}
      {!isThere && meanwhile}
      {!file && meanwhile && (
        <span className="pointer-events-none absolute top-3 left-3 z-10 bg-sheet px-2 py-0.5 text-ink">
          {t('weighing.aSmallPreviewTheFileIs')}
        </span>
      )}
      {file && size && (
        <>
          <Files file={file} view={view} width={size.width} />
          {!seeThrough && <Outlines file={file} view={view} />}
          {!seeThrough && <Divider share={share} onShare={setShare} from={from} to={to} />}
          <DividerLabel
            side="left"
            text={whole ? t('weighing.lossless') : t('weighing.losslessLoading')}
            at={divider}
            shown={divider - from > (whole ? 110 : 160)}
          />
          <DividerLabel
            side="right"
            text={`${file.formatLabel}${file.quality != null ? ` ${file.quality}` : ''}`}
            at={size.width - divider}
            shown={to - divider > 90}
          />
        </>
      )}
    </div>
  );
}

type View = ReturnType<typeof useComparison>;

/** The file, and over it up to the divider the same pixels uncompressed. */
function Files({ file, view, width }: { file: VariantFile; view: View; width: number }) {
  const { panning, isThere, place, setArrived, divider, whole, setCompared } = view;
  const picture = 'pointer-events-none absolute max-w-none select-none [image-rendering:auto]';
  return (
    <div {...panning()} className="absolute inset-0 cursor-grab touch-none active:cursor-grabbing">
      {isThere && <div className="transparent-ground absolute" style={place} />}
      <img
        key={file.sha256}
        onLoad={() => setArrived(file.id)}
        src={addresses.file(file.id)}
        alt={t('weighing.nameAsDelivered', { name: file.name })}
        className={picture}
        style={place}
        data-testid="after"
      />
      <div
        className="absolute inset-0"
        style={{
          clipPath: `inset(0 ${width - divider}px 0 0)`,
          visibility: whole ? 'visible' : 'hidden',
        }}
      >
        <div className="transparent-ground absolute" style={place} />
        <img
          src={addresses.reference(file.id)}
          alt={t('weighing.theSamePixelsLossless')}
          className={picture}
          style={place}
          data-testid="before"
          onLoad={() => setCompared(file.id)}
        />
      </div>
    </div>
  );
}

/** The worst place, and where the contrast is lowest. */
function Outlines({ file, view }: { file: VariantFile; view: View }) {
  const { spot, answered, left, top, ratio } = view;
  return (
    <>
      {spot && answered > 0 && <Outline name="worst" box={spot} {...{ left, top, ratio }} />}
      {file.dress?.last && (
        <Outline
          name="reached-last"
          title={t('weighing.theLowestContrastIsHere')}
          box={file.dress.last}
          {...{ left, top, ratio }}
        />
      )}
    </>
  );
}

/** A place of the file, outlined. */
function Outline({
  name,
  box,
  title,
  left,
  top,
  ratio,
}: {
  name: string;
  /** Left, top, right, bottom in pixels of the file. */
  box: readonly number[];
  title?: string;
  left: number;
  top: number;
  ratio: number;
}) {
  return (
    <div
      data-testid={name}
      title={title}
      className="pointer-events-none absolute border border-white outline-1 outline-black"
      style={{
        left: left + box[0]! / ratio,
        top: top + box[1]! / ratio,
        width: (box[2]! - box[0]!) / ratio,
        height: (box[3]! - box[1]!) / ratio,
      }}
    />
  );
}
