import type { JobCommand, JobPicture, JobSlot } from '../api/client';
import { decisionFor } from './decisions';
import { usual, writtenAt } from './ruleKeys';

/** Left, top, right and bottom as fractions of the slot. */
export type Area = [number, number, number, number];

export interface TitleRule {
  text?: string;
  font?: string;
  weight?: number;
  size: number;
  ink?: string;
  area?: Area;
  align?: 'left' | 'centre' | 'right';
  contrast?: number;
  fade?: boolean;
}

export interface FadeRule {
  to: string;
  amount?: number;
  ink?: string;
  contrast?: number;
  area?: Area;
  reach?: 'all' | 'side';
}

export interface MarkRule {
  file: string;
  onDark?: string;
  at?: string;
  share?: number;
  margin?: number;
  opacity?: number;
}

/** What is drawn over a picture, as a rules file has it. */
export interface OverlayRule {
  fade?: FadeRule;
  title?: TitleRule;
  mark?: MarkRule;
}

/** A dress while it is worked on, with the picture's own title. */
export interface Draft {
  dress: OverlayRule;
  words: string;
}

const own = usual<string>('dress.title.text');

const read = (text: string | null | undefined): OverlayRule =>
  text ? (JSON.parse(text) as OverlayRule) : {};

/** What lies over a picture in a slot now. */
export const draftOf = (picture: JobPicture, slot: JobSlot): Draft => ({
  dress: read(decisionFor(picture.decisions, slot.address).dress ?? slot.slot.dress),
  words: picture.decisions.title,
});

/** The words of the title as they are typed: the picture's own, or those that the slot writes over all. */
export const wordsOf = ({ dress, words }: Draft) =>
  !dress.title || (dress.title.text ?? own).includes(own) ? words : dress.title.text!;

/** True where a slot writes the picture's own title over it and the picture has none. */
export const wantsTitle = (picture: JobPicture, slots: readonly JobSlot[]) =>
  picture.decisions.title === '' &&
  slots.some((slot) => {
    const { title } = draftOf(picture, slot).dress;
    return title && (title.text ?? own).includes(own) && !decisionFor(picture.decisions, slot.address).skip;
  });

/** A title to begin with: where the picture is calm, or in the lower part of the clear area while that is not known, as large as suits the slot. */
function firstTitle(slot: JobSlot, calm: readonly number[] | null): TitleRule {
  const [left = 0, , right = 1, bottom = 1] = slot.slot.clear;
  const size = Math.round(Math.min(96, Math.max(14, (slot.slot.setWidth ?? 600) * 0.055)));
  const most = Math.max(0.1, bottom - 0.4);
  const round = (value: number) => Math.round(value * 1000) / 1000;
  const below = [left + 0.05, most, right - 0.05, bottom - 0.05];
  return {
    text: own,
    size,
    area: (calm ?? below).map(round) as Area,
    fade: true,
  };
}

/** The same with other words; the first ones bring a title with them, where the picture is calm. */
export function withWords(
  draft: Draft,
  words: string,
  slot: JobSlot,
  calm: readonly number[] | null = null,
): Draft {
  const title = draft.dress.title;
  if (!title) return { words, dress: { ...draft.dress, title: firstTitle(slot, calm) } };
  return (title.text ?? own).includes(own)
    ? { ...draft, words }
    : { ...draft, dress: { ...draft.dress, title: { ...title, text: words } } };
}

export const withTitle = (draft: Draft, change: Partial<TitleRule>): Draft =>
  draft.dress.title
    ? { ...draft, dress: { ...draft.dress, title: { ...draft.dress.title, ...change } } }
    : draft;

export const withFade = (draft: Draft, fade: FadeRule | undefined): Draft => ({
  ...draft,
  dress: { ...draft.dress, fade },
});

/** The area that a hand places: the title's, else the fade's. */
export const areaOf = ({ dress }: Draft): Area | null =>
  dress.title
    ? (dress.title.area ?? usual<Area>('dress.title.area'))
    : dress.fade?.ink
      ? (dress.fade.area ?? usual<Area>('dress.fade.area'))
      : null;

export const withArea = (draft: Draft, area: Area): Draft =>
  draft.dress.title
    ? withTitle(draft, { area })
    : draft.dress.fade
      ? withFade(draft, { ...draft.dress.fade, area })
      : draft;

const smallest = 0.04;

/** An area moved, or with some of its edges moved, inside the slot; to a thousandth, as it is written down. */
export function movedArea(area: Area, dx: number, dy: number, edges: string): Area {
  const [left, top, right, bottom] = area;
  const round = (value: number) => Math.round(value * 1000) / 1000;
  const clamp = (value: number, low: number, high: number) => round(Math.min(Math.max(value, low), high));
  if (edges === 'all') {
    const [x, y] = [clamp(dx, -left, 1 - right), clamp(dy, -top, 1 - bottom)];
    return [round(left + x), round(top + y), round(right + x), round(bottom + y)];
  }
  return [
    edges.includes('left') ? clamp(left + dx, 0, right - smallest) : left,
    edges.includes('top') ? clamp(top + dy, 0, bottom - smallest) : top,
    edges.includes('right') ? clamp(right + dx, left + smallest, 1) : right,
    edges.includes('bottom') ? clamp(bottom + dy, top + smallest, 1) : bottom,
  ];
}

/** A logo as it is drawn where nothing more is said of it. */
export const usualLogo = (file: string): MarkRule => ({
  file,
  at: usual('dress.mark.at'),
  share: usual('dress.mark.share'),
  margin: usual('dress.mark.margin'),
});

/** A fade by an amount, or as strong as a text needs; what else was said of a fade is kept. */
export const fixedFade = (kept: Partial<FadeRule> | undefined, amount = 0.5): FadeRule => ({
  to: '#ffffff',
  ...kept,
  ink: undefined,
  contrast: undefined,
  amount,
});
export const neededFade = (kept: Partial<FadeRule> | undefined): FadeRule => ({
  to: '#ffffff',
  ...kept,
  amount: undefined,
  ink: '#222222',
  contrast: usual('dress.fade.contrast'),
});

const isNothing = (dress: OverlayRule) => !dress.fade && !dress.title && !dress.mark;

/** A dress as text, as the server writes it: in one order, and what is usual left out where it is. */
export const written = (dress: OverlayRule): string => JSON.stringify(writtenAt('dress', dress));

/** What is to be sent so that a picture has this over it in a slot; nothing that is so already. */
export function commandsFor(draft: Draft, picture: JobPicture, slot: JobSlot): JobCommand[] {
  const id = picture.picture.id;
  const commands: JobCommand[] = [];
  if (draft.words.trim() !== picture.decisions.title)
    commands.push({ do: 'give-words', picture: id, title: draft.words });
  const dress = written(draft.dress);
  const has = decisionFor(picture.decisions, slot.address).dress ?? null;
  const wanted = isLikeSlot(draft, slot) ? null : dress;
  if (has === null ? wanted !== null : wanted === null || wanted !== written(read(has)))
    commands.push({ do: 'dress', picture: id, slot: slot.address, dress: wanted });
  return commands;
}

/** The commands that show a draft, whatever is decided already. */
export const commandsToLook = (draft: Draft, picture: string, slot: string): JobCommand[] => [
  { do: 'give-words', picture, title: draft.words },
  { do: 'dress', picture, slot, dress: written(draft.dress) },
];

/** True where the slot lays over all its pictures what the draft lays over this one. */
export const isLikeSlot = (draft: Draft, slot: JobSlot) =>
  written(draft.dress) === written(read(slot.slot.dress));

/** True where nothing is drawn over. */
export const isBare = (draft: Draft) => isNothing(draft.dress);
