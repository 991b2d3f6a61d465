import type { SlotType } from '../api/client';
import { t } from '../texts/texts';

/** File types as people write them. */
export const typeNames: Record<SlotType, string> = {
  jpeg: 'JPEG',
  png: 'PNG',
  webp: 'WebP',
  avif: 'AVIF',
  auto: t('common.byContent'),
};

/** A type as people write it, also one that files are not made as. */
export const typeName = (type: string) => typeNames[type.toLowerCase() as SlotType] ?? type.toUpperCase();
