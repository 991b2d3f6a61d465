import { addresses, type FolderPicture, type FolderFile } from '../api/client';

/** One file of a picture of a folder. */
export interface FileOf {
  file: FolderFile;
  bytes: number;
  /** Changes with what the file holds. */
  version: string;
}

/** The file before and the one after: what was done, or else what the last preview made; null where there is only one. */
export function filesOf({
  picture,
  result,
  preview,
}: FolderPicture): { before: FileOf; after: FileOf } | null {
  const one = (file: FolderFile, bytes: number, version: string): FileOf => ({ file, bytes, version });
  if (result?.after != null) {
    const version = `${result.after}-${result.seconds}`;
    return {
      before: one('original', result.before ?? picture.bytes, version),
      after: one('current', result.after, version),
    };
  }
  if (preview?.after == null) return null;
  const version = `${preview.after}-${preview.seconds}`;
  return {
    before: one('current', preview.before ?? picture.bytes, `${picture.bytes}`),
    after: one('previewed', preview.after, version),
  };
}

/** The picture as it lies in the folder, small. */
export const smallOf = (folder: string, one: FolderPicture) =>
  addresses.folderPreview(
    folder,
    one.picture.path,
    'current',
    480,
    one.result?.after == null ? `${one.picture.bytes}` : `${one.result.after}-${one.result.seconds}`,
  );
