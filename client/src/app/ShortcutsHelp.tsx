import { useState } from 'react';
import { useLocation } from 'wouter';
import { Key } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { useSingleKeys } from '../design/singleKeys';
import { useShortcuts } from '../design/useShortcuts';
import { t } from '../texts/texts';

interface Group {
  name: string;
  /** The addresses of the screen that has them. */
  at: RegExp;
  keys: [string[], string][];
}

const groups: Group[] = [
  {
    name: t('app.bench'),
    at: /^\/job\/[^/]+\/?$/,
    keys: [
      [['←', '→', '↑', '↓'], t('app.goToACellWithShift')],
      [['+', '−'], t('app.largerSmallerCrops')],
      [['P'], t('app.cropsInTrueScaleOrOf')],
      [['B'], t('app.backToTheBench')],
      [['E'], t('app.theNextCellToReview')],
      [['A'], t('app.accept')],
      [['U'], t('app.confirmTheSuggestedCrop')],
      [['F'], t('app.focusOnThePointLastClicked')],
      [['L'], t('app.unlinkFromTheSlotsOfIts')],
      [['T'], t('app.linkAgain')],
      [['X'], t('app.skipOrIncludeAgain')],
      [['V'], t('app.allowAnywayAlthoughItBreaksA')],
      [['M'], t('app.remakeTheFiles')],
      [['D'], t('app.combineTheChosenPicturesSideBy')],
      [['C'], t('app.copyTheFramesToAlike')],
      [['Enter'], t('app.frame')],
      [['W'], t('app.weigh')],
      [['G'], t('app.goToHandingOver')],
      [['R'], t('app.addPictures')],
      [['S'], t('app.slots')],
      [['Del'], t('app.removePicturesFromTheJob')],
      [['Ctrl', 'A'], t('app.chooseAll')],
    ],
  },
  {
    name: t('app.framing'),
    at: /\/framing\//,
    keys: [
      [['←', '→', '↑', '↓'], t('app.moveTheFrameByAHundredth')],
      [['+', '−'], t('app.smallerLargerFrame')],
      [['0'], t('app.automaticFrame')],
      [['K'], t('app.drawAKeepBox')],
      [['F'], t('app.setTheFocus')],
      [['U'], t('app.confirmTheSuggestedCrop')],
      [['L', 'T'], t('app.unlinkFromItsShapeLinkAgain')],
      [[',', '.'], t('app.previousSlotNextSlot')],
      [['N'], t('app.nextPictureWithShiftThePrevious')],
      [['E'], t('app.theNextCellToReview')],
      [['C'], t('app.copyFramesAndMarksToOther')],
      [['O'], t('app.textAndOverlay')],
      [['G'], t('app.goToWeighing')],
    ],
  },
  {
    name: t('app.pageCheck'),
    at: /^\/page-checks\//,
    keys: [
      [['↑', '↓'], t('app.previousPictureNextPicture')],
      [['C'], t('app.compareWithWhatWouldBeEnough')],
      [['←', '→'], t('app.moveTheDivider')],
      [['R'], t('app.rulerMeasureAPartOfThe')],
    ],
  },
  {
    name: t('app.textAndOverlay2'),
    at: /\/framing\/.*[?&]over/,
    keys: [
      [['Enter'], t('app.doneWithCtrlGoToThe')],
      [['←', '→', '↑', '↓'], t('app.moveTheAreaForTheTitle')],
      [['C'], t('app.copyTheColourUnderThePointer')],
      [['Esc'], t('app.cancel')],
    ],
  },
  {
    name: t('app.weighing'),
    at: /\/weighing\//,
    keys: [
      [['←', '→'], t('app.moveTheDivider')],
      [['S'], t('app.holdToSeeTheLosslessPicture')],
      [['W'], t('app.showTheWorstPlace')],
      [['+', '−'], t('app.higherQualityLowerQuality')],
      [['A'], t('app.automaticQuality')],
      [['1', '2', '3'], t('app.useTheQualityForThisFile')],
      [['O'], t('app.compareFileTypes')],
      [['D'], t('app.downloadTheFile')],
      [['F'], t('app.frame')],
    ],
  },
  {
    name: t('app.handingOver'),
    at: /\/handing-over$/,
    keys: [
      [['E'], t('app.nextTextThatIsMissing')],
      [['D'], t('app.downloadTheBundle')],
    ],
  },
  {
    name: 'HTML',
    at: /\/handing-over\/(pages|live)/,
    keys: [
      [['C'], t('app.copyTheMarkupOfThePicture')],
      [['Shift', 'C'], t('app.copyTheMarkupOfTheWhole')],
      [['N'], t('app.nextPictureWithShiftThePrevious')],
      [['E'], t('app.nextPictureWithoutAlternativeText')],
      [['P'], t('app.publishTheJobInLiveLinks')],
    ],
  },
  {
    name: t('app.everywhere'),
    at: /^/,
    keys: [
      [['Ctrl', 'Z'], t('app.undoWithShiftRedo')],
      [['B'], t('app.backToTheBench')],
      [['D'], t('app.downloadTheBundleOrHandOver')],
      [['N'], t('app.newJobInTheListOf')],
      [['/'], t('app.searchThePicturesInTheLibrary')],
      [['J'], t('app.allJobs')],
      [['?'], t('app.thisList')],
    ],
  },
];

/** Those of the current screen first, then those that hold everywhere. */
function forScreen(address: string): Group[] {
  const [here, rest] = [
    groups.filter(({ at }) => at.test(address)),
    groups.filter(({ at }) => !at.test(address)),
  ];
  return [...here, ...rest];
}

/** All keys, in one place, those of the current screen first; and whether single letters act at all. */
export function ShortcutsHelp({ small }: { /** True where only its key has room. */ small: boolean }) {
  const [open, setOpen] = useState(false);
  const [single, setSingle] = useSingleKeys();
  const [, go] = useLocation();
  useShortcuts({ '?': () => setOpen(true), j: () => go('/') });
  return (
    <Sheet
      title={t('app.shortcuts')}
      width="full"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          aria-label={t('app.shortcuts')}
          title={small ? t('app.shortcuts') : undefined}
          className="flex items-center gap-2 px-2 py-1 text-ink-2 hover:text-ink"
        >
          <Key>?</Key> {!small && <span className="max-md:sr-only">{t('app.shortcuts')}</span>}
        </button>
      }
    >
      <label className="mt-1 flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-(--pm-accent)"
          checked={single}
          onChange={(event) => setSingle(event.target.checked)}
        />
        {t('app.singleLettersAct')}
      </label>
      <div className="mt-2 columns-[300px] gap-7">
        {forScreen(location.pathname + location.search).map((group) => (
          <section key={group.name} className="break-inside-avoid pb-2.5">
            <h3 className="break-after-avoid border-b border-line pb-0.5 font-semibold">{group.name}</h3>
            <dl className="mt-1">
              {group.keys.map(([keys, does]) => (
                <div
                  key={does}
                  className="grid break-inside-avoid grid-cols-[92px_1fr] gap-2 py-px text-small leading-[18px]"
                >
                  <dt className="flex flex-wrap content-start gap-0.5">
                    {keys.map((key) => (
                      <Key key={key}>{key}</Key>
                    ))}
                  </dt>
                  <dd>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Sheet>
  );
}
