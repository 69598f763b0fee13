import type { Midi } from '#core/base';

/** Pitch of A4 in Hz: the usual one, and what fiddles are tuned to at the lowest and the highest. */
export const REFERENCE_PITCH = { usual: 440, min: 380, max: 480 } as const;

/** Frequency of a tempered pitch in Hz, a4·2^((m − 69)/12); `midi` may lie between two keys. */
export function hertzOf(midi: Midi, a4: number = REFERENCE_PITCH.usual): number {
  return a4 * 2 ** ((midi - 69) / 12);
}
