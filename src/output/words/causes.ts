import type { Cause } from '../../core/waste/waste.js';

/** The displayed name of each cause. */
export const causeTitles: Readonly<Record<Cause, string>> = {
  neverShown: 'never shown',
  duplicate: 'sent more than once',
  metadata: 'metadata',
  pixels: 'too many pixels',
  quality: 'excess quality',
  format: 'wrong format',
  wire: 'sent uncompressed',
};
