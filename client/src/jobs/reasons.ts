import type { ReasonCode } from '../api/client';

/** Reasons in a few words, for a filter or a cell's caption. The sentences come from the server. */
const words: Record<ReasonCode, string> = {
  'too-small': 'Too few pixels',
  'largest-side': 'Over the largest size',
  'smallest-side': 'Under the smallest size',
  'over-weight': 'Over the limit',
  'low-quality': 'Low quality',
  palette: 'Few colours',
  'next-type': 'Other type',
  'lighter-type': 'Lighter type',
  'fewer-pixels': 'Made smaller',
  flattened: 'Background filled',
  reshaped: 'Frame narrowed',
  'keep-cut': 'Keep box cut',
  'keep-covered': 'Keep box covered',
  extended: 'Canvas extended',
  'subject-share': 'Subject off size',
  suggested: 'Crop to confirm',
  contrast: 'Hard to read',
  'title-size': 'Title made smaller',
  font: 'Font is lacking',
  mark: 'Mark not as asked',
  pair: 'Another number side by side',
  'pair-part': 'Part missing',
  likeness: 'Less alike than wanted',
  'under-band': 'Lighter than wanted',
  'over-band': 'Heavier than wanted',
  'original-quality': 'Quality of the original',
  profile: 'Colours converted',
  'first-frame': 'First frame only',
  unreadable: 'Cannot be made',
  'other-shape': 'New shape',
  'other-density': 'Density not asked',
  'no-alt': 'Text missing',
  'no-file': 'No file',
  'other-type': 'Type not taken',
  'other-size': 'Other size',
  'light-enough': 'Light enough',
  waiting: 'Still to be made',
};

export const reasonWord = (code: ReasonCode) => words[code];

/** What is to be decided, where a reason leaves something to decide. */
const questions: Partial<Record<ReasonCode, string>> = {
  suggested: 'is the frame right?',
  'keep-cut': 'may it be cut?',
  'keep-covered': 'may it be covered?',
  'subject-share': 'is it large enough?',
  reshaped: 'is the rest right?',
  'other-shape': 'does the frame still hold?',
  'too-small': 'take it as it is, or leave it out?',
  'largest-side': 'is it large enough?',
  'smallest-side': 'leave it out?',
  'over-weight': 'another quality, type or size?',
  'low-quality': 'good enough to be seen?',
  palette: 'are the colours right?',
  'next-type': 'is that type right?',
  'fewer-pixels': 'is it large enough?',
  contrast: 'another text colour or background?',
  'title-size': 'small enough, or fewer words?',
  font: 'another font?',
  likeness: 'good enough to be seen?',
  'under-band': 'is it fine enough?',
  'over-band': 'may it weigh that?',
  unreadable: 'leave it out?',
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
