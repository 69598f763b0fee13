import { pitchName } from '#core/pitch';
import { type Implausible, implausibleStrings, MAX_DOWN, MAX_UP, STANDARD_TUNING, type Tuning } from '#core/tuning';

/** Why a string does not stand so: `G: E5 is 21 semitones above its usual pitch, expected at most 4; …`. */
export function implausibleWords(found: Implausible): string {
  const string = `${found.place}: ${pitchName(found.pitch)}`;
  switch (found.reason) {
    case 'too-high':
      return `${string} is ${found.semitones} semitones above its usual pitch, expected at most ${MAX_UP}, or the string may break; is the list low to high?`;
    case 'too-low':
      return `${string} is ${-found.semitones} semitones below its usual pitch, expected at most ${MAX_DOWN}, or the string does not speak; is the list low to high?`;
    case 'not-rising':
      return `${string} is not above the string before it: expected the list low to high`;
  }
}

/** Why no fiddle is brought into a tuning; null where it may be. */
export function tuningFault(tuning: Tuning): string | null {
  const found = implausibleStrings(tuning, STANDARD_TUNING);
  return found.length > 0 ? found.map(implausibleWords).join('; ') : null;
}
