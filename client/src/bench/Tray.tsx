import { useLocation } from 'wouter';
import { useCellDetail } from '../api/queries';
import { Beam } from '../design/Beam';
import { KeyButton } from '../design/Button';
import { sentence, size } from '../design/figures';
import { VerdictMark } from '../design/VerdictMark';
import { decisionFor } from '../domain/decisions';
import { useJobStore } from '../jobs/useJob';
import { useSaid } from '../jobs/receiverAnswersOfJob';
import { ReceiverAnswers } from '../jobs/ReceiverAnswers';
import { benchActions, type Chosen } from '../jobs/actions';
import { t } from '../texts/texts';

/** What is chosen on the bench: why it is as it is, and what can be done about it. */
export function Tray({
  chosen,
  focusAt,
}: {
  chosen: readonly Chosen[];
  focusAt: { x: number; y: number } | null;
}) {
  const store = useJobStore();
  const [, go] = useLocation();
  const one = chosen.length === 1 ? chosen[0]! : null;
  const unlinked = chosen.some(({ picture, slot }) => decisionFor(picture.decisions, slot.address).unlinked);
  const tied = chosen.some(({ picture, slot }) => !decisionFor(picture.decisions, slot.address).unlinked);
  const broken = chosen.some(({ cell }) =>
    cell.files.some((file) => file.made && file.verdict === 'breaks' && !file.allowed),
  );
  // Pictures side by side are framed by the marks of each.
  const paired = chosen.some(({ picture }) => picture.parts);
  const looks = chosen.filter(({ cell }) => cell.toReview.length > 0).length;
  return (
    <section
      aria-label={t('bench.chosenCells')}
      className="@container flex gap-6 border-t border-line bg-sheet px-5 py-2"
      style={{ height: 80 }}
    >
      <div className="min-w-0 flex-1">
        {one ? (
          <OneCell one={one} />
        ) : (
          <>
            <h2>{t('bench.chosenCellsChosen', { chosen: chosen.length })}</h2>
            <p className="mt-1 text-ink-2">
              {looks > 0 ? t('bench.ofThemToReview', { looks }) : t('bench.noneToReview')}{' '}
              {t('bench.appliesToAll')}
            </p>
          </>
        )}
      </div>
      <div className="grid w-[636px] shrink-0 grid-cols-5 content-center gap-1.5">
        <KeyButton
          name={t('bench.accept')}
          k="A"
          off={looks === 0}
          act={() => benchActions.accept(store, chosen)}
        />
        <KeyButton
          name={t('bench.confirmCrop')}
          k="U"
          title={t('bench.useTheSuggestedCropAsThe')}
          act={() => benchActions.useSuggestion(store, chosen)}
          off={paired || !chosen.some(({ picture }) => picture.suggestion)}
        />
        <KeyButton
          name={t('bench.focusHere')}
          k="F"
          title={t('bench.centreTheCropOnThePoint')}
          act={() => focusAt && benchActions.focusHere(store, chosen, focusAt)}
          off={paired || !focusAt}
        />
        <KeyButton
          name={t('bench.unlink')}
          k="L"
          title={t('bench.unlinkFromItsShapeThisSlot')}
          off={paired || !tied}
          act={() => benchActions.letLoose(store, chosen)}
        />
        <KeyButton
          name={t('bench.linkAgain')}
          k="T"
          title={t('bench.useTheSameFrameAsThe')}
          off={paired || !unlinked}
          act={() => benchActions.tieAgain(store, chosen)}
        />
        <KeyButton
          name={t('bench.frame')}
          k="↵"
          off={!one}
          act={() => one && go(`/job/${store.id}/framing/${one.picture.picture.id}?slot=${one.slot.address}`)}
        />
        <KeyButton
          name={t('bench.weigh')}
          k="W"
          off={!one || one.cell.files.length === 0}
          act={() => one && go(`/job/${store.id}/weighing/${one.picture.picture.id}/${one.slot.address}`)}
        />
        <KeyButton name={t('bench.remake')} k="M" act={() => benchActions.again(store, chosen)} />
        <KeyButton name={t('bench.skip')} k="X" act={() => benchActions.skip(store, chosen)} />
        <KeyButton
          name={t('bench.allowAnyway')}
          k="V"
          title={t('bench.deliverTheFileAlthoughItBreaks')}
          off={!broken}
          act={() => benchActions.allowed(store, chosen)}
        />
      </div>
    </section>
  );
}

function OneCell({ one }: { one: Chosen }) {
  const store = useJobStore();
  const { picture, slot, cell } = one;
  const detail = useCellDetail(store.id, cell);
  const made = cell.files.filter((file) => file.bytes != null);
  const heaviest = made.toSorted((a, b) => b.bytes! - a.bytes!)[0];
  const reasons = detail.data?.reasons ?? [];
  const said = useSaid(picture.picture.id, slot.address);
  return (
    // Beside the list of slots there is no room for the beam: the weight stands at the cell as well.
    <div className="grid gap-5 @[1040px]:grid-cols-[minmax(0,1fr)_170px]">
      <div className="min-w-0">
        <h2 className="flex items-center gap-2.5">
          <VerdictMark verdict={cell.verdict} withWord />
          <span className="truncate">{picture.picture.name}</span>
          <span className="hidden max-w-[60%] shrink-0 truncate font-normal text-ink-2 @[1040px]:block">
            {slot.slot.name}, {slot.destinationName}
          </span>
        </h2>
        <div
          className="mt-1 max-h-11 overflow-y-auto"
          role="group"
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
            <p className="text-ink-2">{t('bench.allRulesAreMet')}</p>
          )}
        </div>
      </div>
      <div className="hidden @[1040px]:block">
        {heaviest ? (
          <>
            <p className="mb-0.5 text-ink-2">
              {heaviest.descriptor}, {size(heaviest.width, heaviest.height)}
            </p>
            <Beam bytes={heaviest.bytes!} limit={slot.slot.maxBytes} />
          </>
        ) : (
          <p className="text-ink-2">
            {cell.state === 'skipped' ? t('bench.thisPictureIsSkippedHere') : t('bench.noFileYet')}
          </p>
        )}
      </div>
    </div>
  );
}
