import { type ComponentProps, useEffect, useState } from 'react';
import { Button, Key } from '../design/Button';
import { size } from '../design/figures';
import { useOffWithout } from '../design/rights';
import { t } from '../texts/texts';
import type { FramingState } from './useFraming';
import type { Tool } from './useStageGestures';

const settleAfter = 250;

const Low = (props: ComponentProps<typeof Button>) => (
  <Button {...props} className={`h-7! ${props.className ?? ''}`} />
);

/** What is said about the picture as a whole: keep boxes, focus, its suggestion, how it is turned. */
export function MarksBar({ framing }: { framing: FramingState }) {
  const { picture, going, actions } = framing;
  return (
    <div className="border-b border-line bg-sheet px-5 py-1.5 max-[1100px]:[&_kbd]:hidden">
      <div className="flex flex-wrap items-center gap-1.5 pb-1.5">
        <div className="min-w-0 flex-1 basis-60 wrap-anywhere">
          <h2 className="inline">{picture.words ?? picture.picture.name}</h2>{' '}
          <span className="text-ink-2">
            {picture.words ? `${picture.picture.name}, ` : ''}
            {size(picture.width, picture.height)}
          </span>
        </div>
        <div className="flex flex-wrap gap-1.5">
          <Low onClick={going.over} title={t('framing.titleFadeAndColoursShownOn')}>
            {t('framing.textAndOverlay')} <Key>O</Key>
          </Low>
          <Low needs="edit" onClick={actions.copy} title={t('framing.copyFramesAndMarksToOther')}>
            {t('framing.copyToOthers')} <Key>C</Key>
          </Low>
          <Low onClick={() => going.neighbour(1)} title={t('framing.theNextPicture')}>
            {t('framing.nextPicture')} <Key>N</Key>
          </Low>
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-1.5">
        <Marks framing={framing} />
        <span className="flex-1" />
        <Turn framing={framing} />
      </div>
    </div>
  );
}

function Marks({ framing: { picture, decisions, tool, setTool, actions } }: { framing: FramingState }) {
  const marked = decisions.keep.length > 0 || decisions.focus !== null;
  const open = !marked && picture.suggestion && !decisions.suggestionRejected;
  const choice = (one: Tool) => ({
    className: tool === one ? 'border-ink! bg-sheet-2!' : '',
    'aria-pressed': tool === one,
    onClick: () => setTool(tool === one ? 'frame' : one),
  });
  return (
    <>
      <Low needs="edit" {...choice('keep')} title={t('framing.drawABoxAroundWhatMust')}>
        {t('framing.keepBox')} <Key>K</Key>
      </Low>
      <Low needs="edit" {...choice('focus')} title={t('framing.clickThePointThatEveryCrop')}>
        {t('framing.focus')} <Key>F</Key>
      </Low>
      {open && (
        <>
          <Low needs="edit" onClick={actions.confirm} title={t('framing.confirmTheSuggestedCropItBecomes')}>
            {t('framing.confirmCrop')} <Key>U</Key>
          </Low>
          <Low needs="edit" onClick={actions.reject} title={t('framing.cropFromTheMiddleInstead')}>
            {t('framing.reject')}
          </Low>
        </>
      )}
      {(marked || decisions.suggestionRejected) && (
        <Low needs="edit" onClick={actions.clear} title={t('framing.removeTheMarks')}>
          {t('framing.clearMarks')}
        </Low>
      )}
    </>
  );
}

/** Straightens by degrees, and turns by quarters. */
function Turn({ framing: { decisions, actions } }: { framing: FramingState }) {
  const { quarters, degrees } = decisions.turn;
  const { turn } = actions;
  const [slant, setSlant] = useState<number | null>(null);
  useEffect(() => {
    if (slant === null) return;
    const timer = setTimeout(() => {
      if (slant !== degrees) turn(quarters, slant);
      setSlant(null);
    }, settleAfter);
    return () => clearTimeout(timer);
  }, [slant, quarters, degrees, turn]);
  const off = useOffWithout('edit');
  const [left, right] = [t('framing.turnLeftBy90Degrees'), t('framing.turnRightBy90Degrees')];
  return (
    <>
      <label className="flex items-center gap-1.5">
        <span className="text-ink-2">{t('framing.straighten')}</span>
        <input
          type="range"
          min={-15}
          max={15}
          step={0.1}
          {...off}
          value={slant ?? degrees}
          onChange={(event) => setSlant(Number(event.target.value))}
          className="w-24 accent-(--pm-accent)"
        />
        <span className="w-10 text-right">{(slant ?? degrees).toFixed(1)}°</span>
      </label>
      <Low needs="edit" onClick={() => turn(quarters - 1, degrees)} aria-label={left} title={left}>
        −90°
      </Low>
      <Low needs="edit" onClick={() => turn(quarters + 1, degrees)} aria-label={right} title={right}>
        +90°
      </Low>
    </>
  );
}
