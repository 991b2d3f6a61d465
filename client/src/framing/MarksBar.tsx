import { useEffect, useState } from 'react';
import type { Decisions, JobPicture } from '../api/client';
import { Button, Key } from '../design/Button';
import { size } from '../design/figures';
import type { Tool } from './PictureStage';

const settleAfter = 250;

/** What is said about the picture as a whole: keep boxes, focus, its suggestion, how it is turned. */
export function MarksBar({
  picture,
  decisions,
  tool,
  onTool,
  onConfirm,
  onDecline,
  onClear,
  onTurn,
  onOver,
  onCopy,
  onNext,
}: {
  picture: JobPicture;
  decisions: Decisions;
  tool: Tool;
  onTool: (tool: Tool) => void;
  onConfirm: () => void;
  onDecline: () => void;
  onClear: () => void;
  onTurn: (quarters: number, degrees: number) => void;
  /** To what is laid over the picture. */
  onOver: () => void;
  onCopy: () => void;
  onNext: () => void;
}) {
  const { quarters, degrees } = decisions.turn;
  const [slant, setSlant] = useState<number | null>(null);
  useEffect(() => {
    if (slant === null) return;
    const timer = setTimeout(() => {
      if (slant !== degrees) onTurn(quarters, slant);
      setSlant(null);
    }, settleAfter);
    return () => clearTimeout(timer);
  }, [slant, quarters, degrees, onTurn]);
  const marked = decisions.keep.length > 0 || decisions.focus !== null;
  const open = !marked && picture.suggestion && !decisions.noSuggestion;
  const on = (one: Tool) => (tool === one ? 'border-ink! bg-sheet-2!' : '');
  return (
    <div className="border-b border-line bg-sheet px-5 py-1.5">
      <div className="flex items-center gap-1.5 pb-1.5">
        <h2 className="min-w-0 truncate">{picture.words ?? picture.picture.name}</h2>
        <span className="min-w-0 truncate text-ink-2">
          {picture.words ? `${picture.picture.name}, ` : ''}
          {size(picture.width, picture.height)}
        </span>
        <span className="flex-1" />
        <Button
          className="h-7!"
          onClick={onOver}
          title="A title, a fade, its colours, looked at on the slot's own file"
        >
          Text and overlay <Key>O</Key>
        </Button>
        <Button className="h-7!" onClick={onCopy} title="Give other pictures the same frames and marks">
          Copy to others <Key>C</Key>
        </Button>
        <Button className="h-7!" onClick={onNext} title="The next picture">
          Next picture <Key>N</Key>
        </Button>
      </div>
      <div className="flex items-center gap-1.5">
        <Button
          className={`h-7! ${on('keep')}`}
          aria-pressed={tool === 'keep'}
          onClick={() => onTool(tool === 'keep' ? 'frame' : 'keep')}
          title="Draw a box that must stay whole in every slot"
        >
          Keep box <Key>K</Key>
        </Button>
        <Button
          className={`h-7! ${on('focus')}`}
          aria-pressed={tool === 'focus'}
          onClick={() => onTool(tool === 'focus' ? 'frame' : 'focus')}
          title="Click the point that every frame should centre on"
        >
          Focus <Key>F</Key>
        </Button>
        {open && (
          <>
            <Button
              className="h-7!"
              onClick={onConfirm}
              title="Confirm the suggested crop: it becomes the keep box"
            >
              Confirm suggestion <Key>U</Key>
            </Button>
            <Button className="h-7!" onClick={onDecline} title="Frame from the middle instead">
              Reject
            </Button>
          </>
        )}
        {(marked || decisions.noSuggestion) && (
          <Button className="h-7!" onClick={onClear} title="Remove the marks">
            Clear marks
          </Button>
        )}
        <span className="flex-1" />
        <label className="flex items-center gap-1.5">
          <span className="text-ink-2">Straighten</span>
          <input
            type="range"
            min={-15}
            max={15}
            step={0.1}
            value={slant ?? degrees}
            onChange={(event) => setSlant(Number(event.target.value))}
            className="w-24 accent-(--pm-accent)"
          />
          <span className="w-10 text-right">{(slant ?? degrees).toFixed(1)}°</span>
        </label>
        <Button
          className="h-7!"
          onClick={() => onTurn(quarters - 1, degrees)}
          aria-label="A quarter turn to the left"
          title="A quarter turn to the left"
        >
          −90°
        </Button>
        <Button
          className="h-7!"
          onClick={() => onTurn(quarters + 1, degrees)}
          aria-label="A quarter turn to the right"
          title="A quarter turn to the right"
        >
          +90°
        </Button>
      </div>
    </div>
  );
}
