import type { ReasonCode } from '../api/client';
import { t } from '../texts/texts';

/** Reasons in a few words, for a filter or a cell's caption. The sentences come from the server. */
const words: Record<ReasonCode, string> = {
  'too-small': t('jobs.tooFewPixels'),
  'largest-side': t('jobs.overTheLargestSize'),
  'smallest-side': t('jobs.underTheSmallestSize'),
  'over-weight': t('jobs.overTheLimit'),
  'low-quality': t('jobs.lowQuality'),
  palette: t('jobs.fewColours'),
  'next-type': t('jobs.otherType'),
  'lighter-type': t('jobs.lighterType'),
  'fewer-pixels': t('jobs.madeSmaller'),
  flattened: t('jobs.backgroundFilled'),
  reshaped: t('jobs.frameMadeNarrower'),
  'keep-cut': t('jobs.keepBoxCut'),
  'keep-covered': t('jobs.keepBoxCovered'),
  extended: t('jobs.canvasExtended'),
  'subject-share': t('jobs.subjectTooLargeOrTooSmall'),
  suggested: t('jobs.cropToConfirm'),
  contrast: t('jobs.hardToRead'),
  'title-size': t('jobs.titleMadeSmaller'),
  font: t('jobs.fontNotFound'),
  mark: t('jobs.logoNotAsAsked'),
  pair: t('jobs.wrongNumberSideBySide'),
  'pair-part': t('jobs.partMissing'),
  likeness: t('jobs.likenessLowerThanWanted'),
  'under-band': t('jobs.lighterThanWanted'),
  'over-band': t('jobs.heavierThanWanted'),
  'original-quality': t('jobs.qualityOfTheOriginal'),
  'full-colour': t('jobs.colourAtFullSize'),
  profile: t('jobs.coloursConverted'),
  'first-frame': t('jobs.firstFrameOnly'),
  unreadable: t('jobs.cannotBeMade'),
  'other-shape': t('jobs.newShape'),
  'other-density': t('jobs.densityNotAskedFor'),
  'no-alt': t('jobs.alternativeTextMissing'),
  'no-file': t('jobs.noFile'),
  'other-type': t('jobs.typeNotAccepted'),
  'other-size': t('jobs.otherSize'),
  'light-enough': t('jobs.lightEnough'),
  waiting: t('jobs.notMadeYet'),
};

export const reasonWord = (code: ReasonCode) => words[code];

/** What is to be decided, where a reason leaves something to decide. */
const questions: Partial<Record<ReasonCode, string>> = {
  suggested: t('jobs.isTheCropRight'),
  'keep-cut': t('jobs.mayTheKeepBoxBeCut'),
  'keep-covered': t('jobs.mayTheKeepBoxBeCovered'),
  'subject-share': t('jobs.isItLargeEnough'),
  reshaped: t('jobs.isTheCropStillRight'),
  'other-shape': t('jobs.doesTheCropStillFit'),
  'too-small': t('jobs.acceptItAsItIsOr'),
  'largest-side': t('jobs.isItLargeEnough'),
  'smallest-side': t('jobs.skipIt'),
  'over-weight': t('jobs.changeTheQualityTheTypeOr'),
  'low-quality': t('jobs.isItGoodEnough'),
  palette: t('jobs.areTheColoursRight'),
  'next-type': t('jobs.isThisTypeRight'),
  'fewer-pixels': t('jobs.isItLargeEnough'),
  contrast: t('jobs.changeTheTextColourOrThe'),
  'title-size': t('jobs.acceptTheSmallerTitleOrUse'),
  font: t('jobs.chooseAnotherFont'),
  likeness: t('jobs.isItGoodEnough'),
  'under-band': t('jobs.isItFineEnough'),
  'over-band': t('jobs.mayItWeighThatMuch'),
  unreadable: t('jobs.skipIt'),
};

/** A reason with what is to be decided. */
export const reasonQuestion = (code: ReasonCode) =>
  questions[code] ? `${words[code]}: ${questions[code]}` : words[code];

/** The gravest first. */
const order: readonly ReasonCode[] = [
  'unreadable',
  'over-weight',
  'smallest-side',
  'keep-cut',
  'keep-covered',
  'other-shape',
  'too-small',
  'contrast',
  'likeness',
  'low-quality',
];

export const byGravity = (a: ReasonCode, b: ReasonCode) => {
  const rank = (code: ReasonCode) =>
    code === 'suggested' ? 99 : order.includes(code) ? order.indexOf(code) : order.length;
  return rank(a) - rank(b) || a.localeCompare(b);
};
