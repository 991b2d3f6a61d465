import { useState } from 'react';
import { useLocation } from 'wouter';
import { Key } from '../design/Button';
import { Sheet } from '../design/Sheet';
import { useShortcuts } from '../design/useShortcuts';
import { t } from '../texts/texts';

const groups: { name: string; keys: [string[], string][] }[] = [
  {
    name: t('app.bench'),
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
    keys: [
      [['↑', '↓'], t('app.previousPictureNextPicture')],
      [['C'], t('app.compareWithWhatWouldBeEnough')],
      [['←', '→'], t('app.moveTheDivider')],
      [['R'], t('app.rulerMeasureAPartOfThe')],
    ],
  },
  {
    name: t('app.textAndOverlay2'),
    keys: [
      [['Enter'], t('app.doneWithCtrlGoToThe')],
      [['←', '→', '↑', '↓'], t('app.moveTheAreaForTheTitle')],
      [['C'], t('app.copyTheColourUnderThePointer')],
      [['Esc'], t('app.cancel')],
    ],
  },
  {
    name: t('app.weighing'),
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
    name: 'HTML',
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

/** All keys, in one place. */
export function ShortcutsHelp() {
  const [open, setOpen] = useState(false);
  const [, go] = useLocation();
  useShortcuts({ '?': () => setOpen(true), j: () => go('/') });
  return (
    <Sheet
      title={t('app.shortcuts')}
      width="wide"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" className="flex items-center gap-2 px-2 py-1 text-ink-2 hover:text-ink">
          <Key>?</Key> {t('app.shortcuts')}
        </button>
      }
    >
      <div className="columns-2 gap-8">
        {groups.map((group) => (
          <section key={group.name} className="mt-4 break-inside-avoid">
            <h3 className="mb-1 text-ink-2">{group.name}</h3>
            <dl className="grid grid-cols-[130px_1fr] gap-y-1.5 border-t border-line pt-2">
              {group.keys.map(([keys, does]) => (
                <div key={does} className="contents">
                  <dt className="flex items-start gap-1">
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
