import type { Slot } from '../api/client';
import { sentence, weight } from './figures';

/** What a slot asks for, in one line. */
export function needs(slot: Slot): string {
  const parts = [sentence(slot.size)];
  const densities = slot.densities.filter((density) => density !== 1);
  if (slot.responsive) parts.push(`${slot.descriptors.length} widths`);
  else if (densities.length > 0) parts.push(densities.map((density) => `${density}x`).join(', '));
  if (slot.maxBytes != null) parts.push(`under ${weight(slot.maxBytes)}`);
  return parts.join(' · ');
}
