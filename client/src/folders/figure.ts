/** A figure as people write it; what is none comes out as one that no rule allows, so that the server says what is wanted. */
export function figure(text: string): number | null {
  const plain = text.replace(/\s/g, '').replace(',', '.');
  if (plain === '') return null;
  const value = Number(plain);
  return Number.isFinite(value) ? value : -1;
}
