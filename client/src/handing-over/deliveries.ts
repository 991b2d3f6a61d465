import type { Receiver, ReceiverWay, Sending, SentFile, SentStanding, ShownFile } from '../api/client';
import { size, weight } from '../design/figures';
import { likenessWords } from '../design/likeness';
import { typeName } from '../design/typeNames';
import { t } from '../texts/texts';

/** How files come to a receiver, in words. */
export const wayWords: Record<ReceiverWay, string> = {
  folder: t('handingOver.aFolderOnThisMachine'),
  put: t('handingOver.pUTToAnAddress'),
  form: t('handingOver.formUpload2'),
  s3: t('handingOver.anObjectStoreS3'),
  sftp: t('handingOver.fileTransferOverSSH'),
};

/** What stands above the files of each standing, those that want a look first. */
export const standings: readonly (readonly [SentStanding, string])[] = [
  ['refused', t('handingOver.refused')],
  ['failed', t('handingOver.notDelivered')],
  ['changed', t('handingOver.changedSinceDelivery')],
  ['new', t('handingOver.notSent')],
  ['taken', t('handingOver.accepted')],
  ['left', t('handingOver.noLongerDelivered')],
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
    return progress
      ? t('handingOver.doneOfOfSent', { done: progress.done, of: progress.of })
      : t('handingOver.waiting2');
  if (files.length === 0) return t('handingOver.noFiles');
  const parts = [
    taken > 0 ? t('handingOver.takenAccepted', { taken }) : '',
    refused > 0 ? t('handingOver.refusedRefused', { refused }) : '',
    failed > 0 ? t('handingOver.failedNotDelivered', { failed }) : '',
    changed > 0 ? t('handingOver.changedChanged', { changed }) : '',
    fresh > 0 ? t('handingOver.freshNotSent', { fresh }) : '',
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
  if (shown.isSame) return t('handingOver.shownUnchangedByteForByte');
  const figures = [
    shown.width !== null && shown.height !== null ? size(shown.width, shown.height) : '',
    shown.bytes !== null ? weight(shown.bytes) : '',
    shown.format ? `${typeName(shown.format)}${shown.quality === null ? '' : ` ${shown.quality}`}` : '',
  ].filter(Boolean);
  return [
    figures.length > 0 ? t('handingOver.shownAsFigures', { figures: figures.join(', ') }) : '',
    alikeWords(shown, 3) || shown.trouble || '',
  ]
    .filter(Boolean)
    .join(': ');
}
