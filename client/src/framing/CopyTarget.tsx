import { useMemo } from 'react';
import type { JobCommand, JobPicture, JobSlot } from '../api/client';
import { Crop } from '../design/Crop';
import { frameOf } from '../domain/box';
import { applied } from '../domain/commands';
import { frameFor } from '../domain/solver';
import { useCells, useHead } from '../jobs/useJob';
import { t } from '../texts/texts';

/** No crop is drawn larger than this, in pixels. */
const most = { width: 116, height: 96 };

/** A picture that can get the frames of another one: its crop now, and what it would be. */
export function CopyTarget({
  from,
  picture,
  slot,
  ticked,
  onToggle,
}: {
  from: JobPicture;
  picture: JobPicture;
  slot: JobSlot;
  ticked: boolean;
  onToggle: () => void;
}) {
  const head = useHead();
  const cells = useCells();
  const { now, then } = useMemo(() => {
    const id = picture.picture.id;
    const command: JobCommand = {
      do: 'copy-framing',
      picture: from.picture.id,
      to: [id],
      slot: slot.address,
    };
    // What was just decided for the picture in hand is copied, sent or not.
    const pictures = head.pictures.map((one) => (one.picture.id === from.picture.id ? from : one));
    const after = applied({ ...head, pictures }, [command], (one, address) => cells.at(one, address));
    const decided = after.pictures.find((one) => one.picture.id === id)!.decisions;
    const frame = (decisions: JobPicture['decisions']) =>
      frameOf(frameFor(picture, slot.slot, slot.address, decisions), picture);
    return { now: frame(picture.decisions), then: frame(decided) };
  }, [head, cells, from, picture, slot]);
  const same = now.every((value, i) => Math.abs(value - then[i]!) < 0.002);
  const cell = cells.at(picture.picture.id, slot.address) ?? slot.slot;
  const shape = cell.width / cell.height;
  const size = {
    width: Math.min(most.width, most.height * shape),
    height: Math.min(most.height, most.width / shape),
  };
  return (
    <li>
      <label className="block cursor-pointer">
        <span className="flex items-end gap-2" aria-hidden>
          {(same ? [now] : [now, then]).map((frame, i) => (
            <span key={i}>
              <span
                className={`relative block ${ticked ? '' : 'opacity-60'} ${i === 1 && ticked ? 'outline-2 outline-offset-1 outline-accent' : ''}`}
                style={size}
              >
                <Crop picture={picture} slot={slot.slot} frame={frame} {...size} />
              </span>
              <span className="mt-1 block text-note text-ink-2">
                {same ? t('framing.noChange') : i === 0 ? t('framing.now') : t('framing.after')}
              </span>
            </span>
          ))}
        </span>
        <span className="mt-1 flex items-start gap-1.5">
          <input
            type="checkbox"
            className="mt-0.5 accent-(--pm-accent)"
            checked={ticked}
            onChange={onToggle}
          />
          <span className="wrap-anywhere">{picture.words ?? picture.picture.name}</span>
        </span>
      </label>
    </li>
  );
}
