import { addresses, type Edges, type JobPicture, type JobSlot } from '../api/client';
import { DimensionLine } from '../design/DimensionLine';
import { count } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import { type Box, type Corner } from '../domain/box';
import { toBox } from '../domain/solver';
import { t } from '../texts/texts';
import { CornerGrip, KeepBox, TrimMarks } from './StageMarks';
import { type Tool, useStageGestures } from './useStageGestures';

const margin = 56;
const corners: Corner[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];

/** The picture large, the frames of all slots as thin lines, the active one with its measures; keep boxes and focus are set on it. */
export function PictureStage({
  picture,
  slot,
  box,
  others,
  pointed,
  keep,
  suggestion,
  focus,
  tool,
  onHold,
  onCommit,
  onKeep,
  onFocus,
}: {
  picture: JobPicture;
  slot: JobSlot;
  box: Box;
  /** The frames of the other slots, each shape once. */
  others: readonly { key: string; name: string; box: Box; slots: readonly string[] }[];
  /** The slot whose frame is shown whole. */
  pointed: string | null;
  keep: readonly Edges[];
  suggestion: Edges | null;
  focus: { x: number; y: number } | null;
  tool: Tool;
  onHold: (address: string, box: Box) => void;
  onCommit: (address: string, box: Box) => void;
  onKeep: (box: Edges, done: boolean) => void;
  onFocus: (at: { x: number; y: number }) => void;
}) {
  const [room, size] = useElementSize<HTMLDivElement>();
  const scale = size
    ? Math.max(
        0.001,
        Math.min((size.width - 2 * margin) / picture.width, (size.height - 2 * margin) / picture.height),
      )
    : 0;
  const [width, height] = [picture.width * scale, picture.height * scale];
  const place = (one: Box) => ({
    left: one.x * scale,
    top: one.y * scale,
    width: one.width * scale,
    height: one.height * scale,
  });
  const shown = place(box);
  const stage = useStageGestures({
    picture,
    slot,
    box,
    scale,
    tool,
    onHold,
    onCommit,
    onDraw: (edges, done) => {
      if (edges.right - edges.left > 0.005 && edges.bottom - edges.top > 0.005) onKeep(edges, done);
    },
    onFocus,
  });

  return (
    <div ref={room} className="relative min-h-0 overflow-hidden" data-testid="stage">
      {size && (
        <div
          ref={stage}
          className={`absolute touch-none select-none ${tool === 'frame' ? '' : 'cursor-crosshair'}`}
          style={{ left: (size.width - width) / 2, top: (size.height - height) / 2, width, height }}
        >
          <img
            src={addresses.preview(picture.picture.id, picture.shown, 1800)}
            alt={t('framing.nameWholePicture', { name: picture.picture.name })}
            draggable={false}
            className={`block h-full w-full bg-cover ${picture.picture.hasAlpha ? 'transparent-ground' : ''}`}
            style={
              picture.picture.hasAlpha
                ? undefined
                : { backgroundImage: `url(${addresses.preview(picture.picture.id, picture.shown, 480)})` }
            }
          />
          <div className="pointer-events-none absolute inset-0 overflow-hidden">
            <div className="absolute shadow-[0_0_0_9999px_rgb(60_60_60/0.5)]" style={shown} />
            {others.map((other) =>
              pointed && other.slots.includes(pointed) ? (
                <div
                  key={other.key}
                  data-testid="other-frame"
                  className="absolute border border-white/90 outline-1 -outline-offset-2 outline-black/35"
                  style={place(other.box)}
                >
                  <span className="absolute right-0 bottom-0 bg-black/60 px-1 text-note leading-[14px] whitespace-nowrap text-white">
                    {other.name}
                  </span>
                </div>
              ) : (
                <TrimMarks key={other.key} style={place(other.box)} />
              ),
            )}
          </div>
          <div
            data-part={tool === 'frame' ? 'frame' : undefined}
            role="application"
            aria-label={t('framing.frameWidthByHeightPixelsArrow', {
              width: count(box.width),
              height: count(box.height),
            })}
            tabIndex={0}
            className={`absolute outline-1 outline-white ${tool === 'frame' ? 'cursor-move' : 'pointer-events-none'}`}
            style={shown}
          >
            <div className="pointer-events-none absolute inset-0 border border-black/60" />
            {tool === 'frame' && corners.map((corner) => <CornerGrip key={corner} corner={corner} />)}
          </div>
          {keep.map((edges, i) => (
            <KeepBox key={i} style={place(toBox(edges, picture))} name={t('framing.keep')} />
          ))}
          {keep.length === 0 && !focus && suggestion && (
            <KeepBox style={place(toBox(suggestion, picture))} name={t('framing.suggested')} suggested />
          )}
          {focus && (
            <span
              aria-hidden
              data-testid="focus"
              className="pointer-events-none absolute h-6 w-6 -translate-x-1/2 -translate-y-1/2"
              style={{ left: focus.x * width, top: focus.y * height }}
            >
              <span className="absolute top-1/2 left-0 h-0.5 w-full -translate-y-1/2 bg-white outline-1 outline-black/60" />
              <span className="absolute top-0 left-1/2 h-full w-0.5 -translate-x-1/2 bg-white outline-1 outline-black/60" />
            </span>
          )}
          <div className="absolute text-surround-line" style={{ left: shown.left, top: -24 }}>
            <DimensionLine along="width" length={shown.width}>
              {shown.width > 90 ? t('framing.widthPx', { width: count(box.width) }) : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: shown.top, left: -24 }}>
            <DimensionLine along="height" length={shown.height}>
              {shown.height > 70 ? t('framing.heightPx', { height: count(box.height) }) : ''}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ left: 0, top: height + 8 }}>
            <DimensionLine along="width" length={width}>
              {t('framing.ofWidth', { width: count(picture.width) })}
            </DimensionLine>
          </div>
          <div className="absolute text-surround-line" style={{ top: 0, left: width + 8 }}>
            <DimensionLine along="height" length={height}>
              {t('framing.ofHeight', { height: count(picture.height) })}
            </DimensionLine>
          </div>
        </div>
      )}
    </div>
  );
}
