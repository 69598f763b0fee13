import type { SheetName } from './sheets';

/** Sheets of what both hands do beside the bowing, with the key that opens each. */
export const HAND_KEYS: Readonly<Record<string, SheetName>> = {
  g: 'fingering',
  c: 'drones',
  a: 'ornaments',
  i: 'tunings',
};
