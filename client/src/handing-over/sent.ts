import type { Receiver, ReceiverWay, Sending, SentFile, SentStanding, ShownFile } from '../api/client';
import { size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { typeName } from '../design/typeNames';

/** How files come to a receiver, in words. */
export const wayWords: Record<ReceiverWay, string> = {
  folder: 'a folder of this machine',
  put: 'each put under its address',
  form: 'each in a form',
  s3: 'an object store (S3)',
  sftp: 'file transfer over SSH',
};

/** What stands above the files of each standing, those that want a look first. */
export const standings: readonly (readonly [SentStanding, string])[] = [
  ['refused', 'Refused'],
  ['failed', 'Did not get there'],
  ['changed', 'Changed since'],
  ['new', 'Not handed over yet'],
  ['taken', 'Taken'],
  ['left', 'There from before, going out no more'],
];

/** The host of a receiver, or its folder. */
export function hostOf({ rule }: Receiver): string {
  if (rule.way === 'folder') return rule.address;
  return URL.canParse(rule.address) ? new URL(rule.address).host : rule.address;
}

/** How many files stand how. */
export function counts(files: readonly SentFile[]): Record<SentStanding, number> {
  const all = { new: 0, changed: 0, taken: 0, refused: 0, failed: 0, left: 0 };
  for (const file of files) all[file.standing] += 1;
  return all;
}

/** Where the files of a job stand with a receiver, in a line. */
export function summary({ files, state, progress }: Sending): string {
  const { taken, refused, failed, changed, new: fresh } = counts(files);
  if (state === 'waiting')
    return progress ? `${progress.done} of ${progress.of} handed over` : 'waits for its turn';
  if (files.length === 0) return 'no file goes there';
  const parts = [
    taken > 0 ? `${taken} taken` : '',
    refused > 0 ? `${refused} refused` : '',
    failed > 0 ? `${failed} did not get there` : '',
    changed > 0 ? `${changed} changed` : '',
    fresh > 0 ? `${fresh} not yet` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** How much what is shown looks like the picture itself; nothing where that was not compared. */
export function alikeWords({ likeness, likenessWord }: ShownFile, decimals: number): string {
  return likeness === null || likenessWord === null
    ? ''
    : `${likenessWords[likenessWord]} (${likeness.toFixed(decimals)})`;
}

/** What a receiver shows of a file, in a line. */
export function shownWords(shown: ShownFile): string {
  if (shown.isSame) return 'Shown as it is, byte for byte.';
  const figures = [
    shown.width !== null && shown.height !== null ? size(shown.width, shown.height) : '',
    shown.bytes !== null ? weight(shown.bytes) : '',
    shown.format ? `${typeName(shown.format)}${shown.quality === null ? '' : ` ${shown.quality}`}` : '',
  ].filter(Boolean);
  return [
    figures.length > 0 ? `Shown as ${figures.join(', ')}` : '',
    alikeWords(shown, 3) || shown.trouble || '',
  ]
    .filter(Boolean)
    .join(': ');
}
