import { samePitch } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { STANDARD_TUNING, type Tuning } from '#core/tuning';
import { noteName, spokenPitch } from './pitch';

/** `D`; where it is tuned otherwise than its name says, with its pitch: `E (C♯)`. */
export function stringName(place: Place, tuning: Tuning): string {
  const open = tuning[PLACES.indexOf(place)]!;
  return isUsual(place, tuning) ? place : `${place} (${noteName(open)})`;
}

/** Strings that sound together, by their places joined: `D and A` of `DA`. */
export function stringNames(joined: string, tuning: Tuning): string {
  return PLACES.filter((place) => joined.includes(place))
    .map((place) => stringName(place, tuning))
    .join(' and ');
}

/** `D string`, as it is said; `E string tuned to C sharp`. */
export function spokenString(place: Place, tuning: Tuning): string {
  const open = tuning[PLACES.indexOf(place)]!;
  return isUsual(place, tuning) ? `${place} string` : `${place} string tuned to ${spokenPitch(open)}`;
}

function isUsual(place: Place, tuning: Tuning): boolean {
  const at = PLACES.indexOf(place);
  return samePitch(tuning[at]!, STANDARD_TUNING[at]!);
}
