import type { SideFile } from '../api/client';
import { t } from '../texts/texts';

/** The corners that a mark can go to. */
export const corners = [
  ['bottom-right', t('destinations.belowRight')],
  ['bottom-left', t('destinations.belowLeft')],
  ['top-right', t('destinations.aboveRight')],
  ['top-left', t('destinations.aboveLeft')],
] as const;

/** True for a file that can be a mark, by its name. */
export const isMark = (file: SideFile) => /\.(svg|png)$/i.test(file.name);
