import type { SideFile } from '../api/client';

/** The corners that a mark can go to. */
export const corners = [
  ['bottom-right', 'below, right'],
  ['bottom-left', 'below, left'],
  ['top-right', 'above, right'],
  ['top-left', 'above, left'],
] as const;

/** True for a file that can be a mark, by its name. */
export const isMark = (file: SideFile) => /\.(svg|png)$/i.test(file.name);
