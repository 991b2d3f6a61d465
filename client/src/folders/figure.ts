import { typedNumber } from '../design/figures';

/** A figure that may be left out; what is none comes out as one that no rule allows, so that the server says what is wanted. */
export function figure(text: string): number | null {
  if (text.trim() === '') return null;
  const value = typedNumber(text);
  return Number.isFinite(value) ? value : -1;
}
