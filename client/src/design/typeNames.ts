/** File types as people write them. */
export const typeNames: Record<string, string> = {
  jpeg: 'JPEG',
  png: 'PNG',
  webp: 'WebP',
  avif: 'AVIF',
  auto: 'By content',
};
