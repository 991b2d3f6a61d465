import type { SlotType } from '../api/client';

/** File types as people write them. */
export const typeNames: Record<SlotType, string> = {
  jpeg: 'JPEG',
  png: 'PNG',
  webp: 'WebP',
  avif: 'AVIF',
  auto: 'By content',
};
