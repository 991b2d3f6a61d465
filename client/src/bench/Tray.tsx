import { useLocation } from 'wouter';
import { KeyButton } from '../design/Button';
import { decisionFor } from '../domain/decisions';
import { benchActions, type Chosen } from '../jobs/actions';
import { useJobStore } from '../jobs/useJob';
import { t } from '../texts/texts';
import { OneCell } from './OneCell';

/** What is chosen on the bench: why it is as it is, and what can be done about it. */
export function Tray({
  chosen,
  focusAt,
}: {
  chosen: readonly Chosen[];
  focusAt: { x: number; y: number } | null;
}) {
  const one = chosen.length === 1 ? chosen[0]! : null;
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
        <CropActions chosen={chosen} focusAt={focusAt} />
        <FileActions chosen={chosen} one={one} />
      </div>
    </section>
  );
}

/** What can be done about how the chosen cells are cropped. */
function CropActions({
  chosen,
  focusAt,
}: {
  chosen: readonly Chosen[];
  focusAt: { x: number; y: number } | null;
}) {
  const store = useJobStore();
  const isUnlinked = ({ picture, slot }: Chosen) => decisionFor(picture.decisions, slot.address).unlinked;
  // Pictures side by side are framed by the marks of each.
  const paired = chosen.some(({ picture }) => picture.parts);
  return (
    <>
      <KeyButton
        name={t('bench.accept')}
        k="A"
        off={chosen.every(({ cell }) => cell.toReview.length === 0)}
        act={() => benchActions.accept(store, chosen)}
      />
      <KeyButton
        name={t('bench.confirmCrop')}
        k="U"
        title={t('bench.useTheSuggestedCropAsThe')}
        act={() => benchActions.confirm(store, chosen)}
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
        off={paired || chosen.every(isUnlinked)}
        act={() => benchActions.unlink(store, chosen)}
      />
      <KeyButton
        name={t('bench.linkAgain')}
        k="T"
        title={t('bench.useTheSameFrameAsThe')}
        off={paired || !chosen.some(isUnlinked)}
        act={() => benchActions.link(store, chosen)}
      />
    </>
  );
}

/** What can be done about the files of the chosen cells. */
function FileActions({ chosen, one }: { chosen: readonly Chosen[]; one: Chosen | null }) {
  const store = useJobStore();
  const [, go] = useLocation();
  const broken = chosen.some(({ cell }) =>
    cell.files.some((file) => file.made && file.verdict === 'breaks' && !file.allowed),
  );
  return (
    <>
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
      <KeyButton name={t('bench.remake')} k="M" act={() => benchActions.remake(store, chosen)} />
      <KeyButton name={t('bench.skip')} k="X" act={() => benchActions.skip(store, chosen)} />
      <KeyButton
        name={t('bench.allowAnyway')}
        k="V"
        title={t('bench.deliverTheFileAlthoughItBreaks')}
        off={!broken}
        act={() => benchActions.allowAnyway(store, chosen)}
      />
    </>
  );
}
