import type { PageFaultCode } from '../api/client';

/** Each fault in two or three words; what to do stands in its sentence. */
export const faultWords: Record<PageFaultCode, string> = {
  missing: 'missing',
  'too-large': 'too many pixels',
  heavy: 'too heavy',
  'old-type': 'older type',
  'one-size': 'one size for all',
  enlarged: 'enlarged',
  squashed: 'squashed',
  'no-size': 'no room kept',
  'no-alt': 'not described',
  'lazy-first': 'comes late',
  'eager-below': 'comes early',
};
