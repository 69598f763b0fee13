import type { Semitones } from '#core/base';
import { midiOf, type Pitch } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';

/** Why no fiddle is tuned so: it would break a string, a string would not speak, or they would stand in no order. */
export type Implausible =
  | {
      readonly reason: 'too-high' | 'too-low';
      readonly place: Place;
      readonly pitch: Pitch;
      readonly semitones: Semitones;
    }
  | { readonly reason: 'not-rising'; readonly place: Place; readonly pitch: Pitch };

/** Beyond these no string of its place holds or speaks: read so far off, a list was read the wrong way round. Guesses. */
export const MAX_UP: Semitones = 4;
export const MAX_DOWN: Semitones = 7;

/**
 * Every string of a tuning that cannot stand so, against the pitches that strings of its place are made for: one reason a
 * string, lowest place first; empty where the tuning may be.
 */
export function implausibleStrings(tuning: readonly Pitch[], usual: readonly Pitch[]): Implausible[] {
  return PLACES.flatMap((place, i): Implausible[] => {
    const pitch = tuning[i]!;
    const semitones = midiOf(pitch) - midiOf(usual[i]!);
    if (semitones > MAX_UP) return [{ reason: 'too-high', place, pitch, semitones }];
    if (semitones < -MAX_DOWN) return [{ reason: 'too-low', place, pitch, semitones }];
    return i > 0 && midiOf(pitch) <= midiOf(tuning[i - 1]!) ? [{ reason: 'not-rising', place, pitch }] : [];
  });
}
