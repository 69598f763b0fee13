import type { Midi } from '#core/base';

/** Frequency of a tempered pitch in Hz, 440·2^((m − 69)/12); `midi` may lie between two keys. */
export function hertzOf(midi: Midi): number {
  return 440 * 2 ** ((midi - 69) / 12);
}
