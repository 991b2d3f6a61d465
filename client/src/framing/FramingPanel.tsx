import type { Framing, Picture, Plan, Slot } from '../api/client';
import { Button, Key } from '../design/Button';
import { sentence, size } from '../design/figures';
import { VerdictMark } from '../design/VerdictMark';
import { needs } from '../pictures/Places';
import { type Box, withFigure } from './box';
import { FigureField } from './FigureField';
import { SlotWindow } from './SlotWindow';

interface HistoryControls {
  undo: () => void;
  redo: () => void;
  widest: () => void;
  canUndo: boolean;
  canRedo: boolean;
  byHand: boolean;
}

/** The slot beside the picture: its content as it will be delivered, what each density gets, exact figures. */
export function FramingPanel({
  picture,
  slot,
  framing,
  box,
  held,
  fault,
  onHold,
  onCommit,
  onWeigh,
  history,
}: {
  picture: Picture;
  slot: Slot;
  framing: Framing;
  box: Box;
  held: boolean;
  fault?: string;
  onHold: (box: Box | null) => void;
  onCommit: (box: Box) => void;
  onWeigh: () => void;
  history: HistoryControls;
}) {
  const field = (name: string, key: keyof Box, most: number) => (
    <FigureField
      name={name}
      value={box[key]}
      most={most}
      onSet={(value) => onCommit(withFigure(box, key, value, picture, slot.ratio))}
    />
  );
  return (
    <aside className="flex min-h-0 flex-col overflow-y-auto border-l border-line bg-sheet" aria-label="Slot">
      <section className="border-b border-line px-5 pt-4 pb-4">
        <h2 className="text-base">{slot.name}</h2>
        <p className="mb-3 text-ink-2">{needs(slot)}</p>
        <SlotWindow picture={picture} slot={slot} box={box} onHold={onHold} onCommit={onCommit} />
      </section>
      <section className="border-b border-line px-5 py-4" aria-label="What it gets">
        <ul className="flex flex-col gap-2.5">
          {framing.plans.map((plan) => (
            <li key={plan.density}>
              <span className="flex items-center gap-3">
                <VerdictMark verdict={plan.verdict} />
                <span className="w-8 font-semibold">{plan.density}x</span>
                <span>{held ? 'measuring' : size(plan.width, plan.height)}</span>
              </span>
              {!held &&
                plan.reasons.map((reason) => (
                  <p key={reason.code} className="mt-1 pl-[34px] text-ink-2">
                    {sentence(reason.message)}
                  </p>
                ))}
            </li>
          ))}
        </ul>
        {slot.ratio !== null && (
          <p className="mt-3" data-testid="offer">
            This frame offers <b className="font-semibold">{offer(framing.plans, box)}</b> at most.
          </p>
        )}
      </section>
      <section className="border-b border-line px-5 py-4" aria-label="Exact figures">
        <div className="grid grid-cols-2 gap-x-4 gap-y-2">
          {field('From the left', 'x', picture.width)}
          {field('From the top', 'y', picture.height)}
          {field('Width', 'width', picture.width)}
          {field('Height', 'height', picture.height)}
        </div>
        <p className="mt-2 text-ink-2">
          {slot.ratioText ? `The shape stays ${slot.ratioText}.` : 'The shape is free here.'}{' '}
          {history.byHand ? 'Framed by hand.' : 'Framed automatically.'}
        </p>
        <div className="mt-3 flex gap-2">
          <Button onClick={history.undo} disabled={!history.canUndo}>
            Undo
          </Button>
          <Button onClick={history.redo} disabled={!history.canRedo}>
            Redo
          </Button>
          <span className="flex-1" />
          <Button onClick={history.widest} disabled={!history.byHand}>
            Widest
          </Button>
        </div>
        {fault && (
          <p role="alert" className="mt-3 text-breaks">
            {fault}
          </p>
        )}
      </section>
      <p className="px-5 py-4 text-ink-2">
        Drag the frame or the slot; wheel or pinch to tighten; arrow keys move it.
      </p>
      <section className="sticky bottom-0 mt-auto border-t border-line bg-sheet px-5 py-3">
        <Button kind="main" className="w-full" onClick={onWeigh} disabled={held}>
          Go on to weighing <Key>G</Key>
        </Button>
      </section>
    </aside>
  );
}

/** The greatest density that a frame has pixels for, rounded down so that 1.996 never reads as 2. */
function offer(plans: readonly Plan[], box: Box): string {
  const plan = plans[0];
  if (!plan) return '';
  const density = plan.density * Math.min(box.width / plan.askedWidth, box.height / plan.askedHeight);
  return `${Math.floor(density * 100 + 1e-6) / 100}x`;
}
