import type {
  Receiver,
  ReceiverWay,
  ReceiverDelivery,
  ReceiverFile,
  ReceiverFileStanding,
  ShownFile,
} from '../api/client';
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

/** What stands above the files of each standing, those that are to review first. */
export const standings: readonly (readonly [ReceiverFileStanding, string])[] = [
  ['refused', t('handingOver.refused')],
  ['notDelivered', t('handingOver.notDelivered')],
  ['changed', t('handingOver.changedSinceDelivery')],
  ['notSent', t('handingOver.notSent')],
  ['accepted', t('handingOver.accepted')],
  ['noLongerDelivered', t('handingOver.noLongerDelivered')],
];

/** The host of a receiver, or its folder. */
export function hostOf({ rule }: Receiver): string {
  if (rule.way === 'folder') return rule.address;
  return URL.canParse(rule.address) ? new URL(rule.address).host : rule.address;
}

/** How many files stand how. */
export function counts(files: readonly ReceiverFile[]): Record<ReceiverFileStanding, number> {
  const all = { notSent: 0, changed: 0, accepted: 0, refused: 0, notDelivered: 0, noLongerDelivered: 0 };
  for (const file of files) all[file.standing] += 1;
  return all;
}

/** Where the files of a job stand with a receiver, in a line. */
export function summary({ files, state, progress }: ReceiverDelivery): string {
  const { accepted, refused, notDelivered, changed, notSent } = counts(files);
  if (state === 'waiting')
    return progress
      ? t('handingOver.doneOfOfSent', { done: progress.done, of: progress.of })
      : t('handingOver.waiting2');
  if (files.length === 0) return t('handingOver.noFiles');
  const parts = [
    accepted > 0 ? t('handingOver.countAccepted', { n: accepted }) : '',
    refused > 0 ? t('handingOver.countRefused', { n: refused }) : '',
    notDelivered > 0 ? t('handingOver.countNotDelivered', { n: notDelivered }) : '',
    changed > 0 ? t('handingOver.countChanged', { n: changed }) : '',
    notSent > 0 ? t('handingOver.countNotSent', { n: notSent }) : '',
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
