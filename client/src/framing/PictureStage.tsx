import { addresses, type Edges, type JobPicture } from '../api/client';
import { count } from '../design/figures';
import { useElementSize } from '../design/useElementSize';
import { type Corner, scaled } from '../domain/box';
import { toBox } from '../domain/solver';
import { t } from '../texts/texts';
import { CornerGrip, FaceMark, Focus, KeepBox, TrimMarks } from './StageMarks';
import { Measures } from './StageMeasures';
import type { FramingState } from './useFraming';
import { useStageGestures } from './useStageGestures';

const margin = 56;
const corners: Corner[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];

/** The picture large, the frames of all slots as thin lines, the active one with its measures; keep boxes and focus are set on it. */
export function PictureStage({
  framing,
  suggestion,
  onKeep,
  onFocus,
}: {
  framing: FramingState;
  suggestion: Edges | null;
  onKeep: (box: Edges, done: boolean) => void;
  onFocus: (at: { x: number; y: number }) => void;
}) {
  const { picture, slot, box, tool, hold, commit } = framing;
  const [room, size] = useElementSize<HTMLDivElement>();
  const scale = size
    ? Math.max(
        0.001,
        Math.min((size.width - 2 * margin) / picture.width, (size.height - 2 * margin) / picture.height),
      )
    : 0;
  const [width, height] = [picture.width * scale, picture.height * scale];
  const stage = useStageGestures({
    picture,
    slot,
    box,
    scale,
    tool,
    onHold: hold,
    onCommit: commit,
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
          <WholePicture picture={picture} />
          <OtherFrames framing={framing} scale={scale} />
          <ActiveFrame framing={framing} scale={scale} />
          <Marks framing={framing} scale={scale} suggestion={suggestion} />
          <Measures picture={picture} box={box} scale={scale} />
        </div>
      )}
    </div>
  );
}

function WholePicture({ picture: { picture, shown } }: { picture: JobPicture }) {
  return (
    <img
      src={addresses.preview(picture.id, shown, 1800)}
      alt={t('framing.nameWholePicture', { name: picture.name })}
      draggable={false}
      className={`block h-full w-full bg-cover ${picture.hasAlpha ? 'transparent-ground' : ''}`}
      style={
        picture.hasAlpha
          ? undefined
          : { backgroundImage: `url(${addresses.preview(picture.id, shown, 480)})` }
      }
    />
  );
}

interface OnStage {
  framing: FramingState;
  /** Pixels on the screen for one pixel of the picture. */
  scale: number;
}

function OtherFrames({ framing: { box, others, pointed }, scale }: OnStage) {
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden">
      <div className="absolute shadow-[0_0_0_9999px_rgb(60_60_60/0.5)]" style={scaled(box, scale)} />
      {others.map((other) =>
        pointed && other.slots.includes(pointed) ? (
          <div
            key={other.key}
            data-testid="other-frame"
            className="absolute border border-white/90 outline-1 -outline-offset-2 outline-black/35"
            style={scaled(other.box, scale)}
          >
            <span className="absolute right-0 bottom-0 bg-black/60 px-1 text-note leading-[14px] whitespace-nowrap text-white">
              {other.name}
            </span>
          </div>
        ) : (
          <TrimMarks key={other.key} style={scaled(other.box, scale)} />
        ),
      )}
    </div>
  );
}

function ActiveFrame({ framing: { box, tool }, scale }: OnStage) {
  return (
    <div
      data-part={tool === 'frame' ? 'frame' : undefined}
      role="application"
      aria-label={t('framing.frameWidthByHeightPixelsArrow', {
        width: count(box.width),
        height: count(box.height),
      })}
      tabIndex={0}
      className={`absolute outline-1 outline-white ${tool === 'frame' ? 'cursor-move' : 'pointer-events-none'}`}
      style={scaled(box, scale)}
    >
      <div className="pointer-events-none absolute inset-0 border border-black/60" />
      {tool === 'frame' && corners.map((corner) => <CornerGrip key={corner} corner={corner} />)}
    </div>
  );
}

const nameOf = (faces: number) =>
  faces === 0
    ? t('framing.suggested')
    : faces === 1
      ? t('framing.suggestedFace')
      : t('framing.suggestedFaces', { faces });

function Marks({
  framing: { picture, decisions },
  scale,
  suggestion,
}: OnStage & { suggestion: Edges | null }) {
  const { keep, focus } = decisions;
  return (
    <>
      {keep.map((edges, i) => (
        <KeepBox key={i} style={scaled(toBox(edges, picture), scale)} name={t('framing.keep')} />
      ))}
      {keep.length === 0 && !focus && suggestion && (
        <>
          {picture.faces.map((face, i) => (
            <FaceMark key={i} style={scaled(toBox(face, picture), scale)} />
          ))}
          <KeepBox
            style={scaled(toBox(suggestion, picture), scale)}
            name={nameOf(picture.faces.length)}
            suggested
          />
        </>
      )}
      {focus && <Focus x={focus.x * picture.width * scale} y={focus.y * picture.height * scale} />}
    </>
  );
}
