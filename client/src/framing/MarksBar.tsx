import { useEffect, useState } from 'react';
import type { Decisions, JobPicture } from '../api/client';
import { Button, Key } from '../design/Button';
import { size } from '../design/figures';
import { t } from '../texts/texts';
import type { Tool } from './useStageGestures';

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
  /** To what is drawn over the picture. */
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
  const open = !marked && picture.suggestion && !decisions.suggestionRejected;
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
        <Button className="h-7!" onClick={onOver} title={t('framing.titleFadeAndColoursShownOn')}>
          {t('framing.textAndOverlay')} <Key>O</Key>
        </Button>
        <Button className="h-7!" onClick={onCopy} title={t('framing.copyFramesAndMarksToOther')}>
          {t('framing.copyToOthers')} <Key>C</Key>
        </Button>
        <Button className="h-7!" onClick={onNext} title={t('framing.theNextPicture')}>
          {t('framing.nextPicture')} <Key>N</Key>
        </Button>
      </div>
      <div className="flex items-center gap-1.5">
        <Button
          className={`h-7! ${on('keep')}`}
          aria-pressed={tool === 'keep'}
          onClick={() => onTool(tool === 'keep' ? 'frame' : 'keep')}
          title={t('framing.drawABoxAroundWhatMust')}
        >
          {t('framing.keepBox')} <Key>K</Key>
        </Button>
        <Button
          className={`h-7! ${on('focus')}`}
          aria-pressed={tool === 'focus'}
          onClick={() => onTool(tool === 'focus' ? 'frame' : 'focus')}
          title={t('framing.clickThePointThatEveryCrop')}
        >
          {t('framing.focus')} <Key>F</Key>
        </Button>
        {open && (
          <>
            <Button
              className="h-7!"
              onClick={onConfirm}
              title={t('framing.confirmTheSuggestedCropItBecomes')}
            >
              {t('framing.confirmCrop')} <Key>U</Key>
            </Button>
            <Button className="h-7!" onClick={onDecline} title={t('framing.cropFromTheMiddleInstead')}>
              {t('framing.reject')}
            </Button>
          </>
        )}
        {(marked || decisions.suggestionRejected) && (
          <Button className="h-7!" onClick={onClear} title={t('framing.removeTheMarks')}>
            {t('framing.clearMarks')}
          </Button>
        )}
        <span className="flex-1" />
        <label className="flex items-center gap-1.5">
          <span className="text-ink-2">{t('framing.straighten')}</span>
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
          aria-label={t('framing.turnLeftBy90Degrees')}
          title={t('framing.turnLeftBy90Degrees')}
        >
          −90°
        </Button>
        <Button
          className="h-7!"
          onClick={() => onTurn(quarters + 1, degrees)}
          aria-label={t('framing.turnRightBy90Degrees')}
          title={t('framing.turnRightBy90Degrees')}
        >
          +90°
        </Button>
      </div>
    </div>
  );
}
