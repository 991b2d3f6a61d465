import { useCellDetail } from '../api/queries';
import { Beam } from '../design/Beam';
import { sentence, size } from '../design/figures';
import { VerdictMark } from '../design/VerdictMark';
import { standingOf } from '../design/standing';
import type { Chosen } from '../jobs/actions';
import { ReceiverAnswers } from '../jobs/ReceiverAnswers';
import { useSaid } from '../jobs/receiverAnswersOfJob';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';

/** The one cell that is chosen: its verdict, why, and its heaviest file on the scale. */
export function OneCell({ one }: { one: Chosen }) {
  const store = useJobStore();
  const { picture, slot, cell } = one;
  const detail = useCellDetail(store.id, cell);
  const made = cell.files.filter((file) => file.bytes != null);
  const heaviest = made.toSorted((a, b) => b.bytes! - a.bytes!)[0];
  const reasons = detail.data?.reasons ?? [];
  const said = useSaid(picture.picture.id, slot.address);
  return (
    // Beside the list of slots there is no room for the beam: the weight stands at the cell as well.
    <div className={`grid h-full gap-5 ${heaviest ? '@[1040px]:grid-cols-[minmax(0,1fr)_170px]' : ''}`}>
      <div className="flex min-h-0 min-w-0 flex-col">
        <h2 className="flex shrink-0 items-baseline gap-2.5 leading-4">
          <VerdictMark verdict={standingOf(cell)} withWord />
          <span className="wrap-anywhere" title={picture.picture.name}>
            {picture.words ?? picture.picture.name}
            <span className="font-normal text-ink-2">
              {' '}
              {slot.slot.name}, {slot.destinationName}
            </span>
          </span>
        </h2>
        <div
          className="min-h-0 flex-1 overflow-y-auto leading-4"
          role="region"
          aria-label={t('bench.reasons')}
          // A single long sentence can be too long for the place as well as three short ones.
          tabIndex={reasons.length + said.length > 0 ? 0 : undefined}
        >
          <ReceiverAnswers said={said} />
          {reasons.map((reason) => (
            <p key={reason.code} className={cell.toReview.includes(reason.code) ? '' : 'text-ink-2'}>
              {sentence(reason.message)}
            </p>
          ))}
          {detail.data && reasons.length + said.length === 0 && (
            <p className="text-ink-2">{nothingSaid(one)}</p>
          )}
        </div>
      </div>
      {heaviest && (
        <div className="hidden @[1040px]:block">
          <p className="mb-0.5 text-ink-2">
            {heaviest.descriptor}, {size(heaviest.width, heaviest.height)}
          </p>
          <Beam bytes={heaviest.bytes!} limit={slot.slot.maxBytes} />
        </div>
      )}
    </div>
  );
}

/** A file that waits has met nothing yet. */
const nothingSaid = ({ cell }: Chosen) =>
  cell.state === 'done'
    ? t('bench.allRulesAreMet')
    : cell.state === 'skipped'
      ? t('bench.thisPictureIsSkippedHere')
      : t('bench.noFileYet');
