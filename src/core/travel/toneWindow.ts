import type { CentimetresPerSecond } from '#core/base';

/** Bow force in newtons; players say weight. */
export type Newtons = number;
/** Distance of the bow from the bridge over the sounding length of the string. */
export type Contact = number;

/** Where the figures below were set: an ordinary stroke in the ordinary place. */
const REFERENCE_SPEED: CentimetresPerSecond = 35;
export const REFERENCE_CONTACT: Contact = 0.092;
/** Most and least weight there, guesses that agree with the sound this application makes. */
const MAX_WEIGHT: Newtons = 1.25;
const MIN_WEIGHT: Newtons = 0.12;

export interface ToneWindow {
  readonly min: Newtons;
  readonly max: Newtons;
}

/**
 * The weights at which a string speaks cleanly: most `∝ v/β`, least `∝ v/β²`. Nearer the bridge both rise, the least
 * faster, until no weight fits.
 * @param speed above 0
 * @param contact above 0, under 0.5
 * Source: Schelleng, J. Acoust. Soc. Am. 53 (1973), 26; the two constants are guesses.
 */
export function toneWindow(speed: CentimetresPerSecond, contact: Contact): ToneWindow {
  const quicker = speed / REFERENCE_SPEED;
  const nearer = REFERENCE_CONTACT / contact;
  return { min: MIN_WEIGHT * quicker * nearer ** 2, max: MAX_WEIGHT * quicker * nearer };
}

/** Whether a stroke's speed, weight and contact go together, and if not, what is to be heard. */
export function toneOf(
  speed: CentimetresPerSecond,
  contact: Contact,
  weight: Newtons,
): 'clean' | 'scratch' | 'whistle' {
  const { min, max } = toneWindow(speed, contact);
  if (weight > max) return 'scratch';
  return weight < min ? 'whistle' : 'clean';
}

/** Where a fade ends. */
export interface Fade {
  readonly weight: Newtons;
  readonly contact: Contact;
  /** The weights that speak there. */
  readonly window: ToneWindow;
}

/** Furthest from the bridge at which a bow is still on the hair side of the fingerboard, a guess. */
const FURTHEST_CONTACT: Contact = 0.2;
/** How many times as far from the bridge a fade ends as it began, a guess. */
const FADE_OUTWARD = 1.5;

/**
 * Where a fade from one speed to a slower one ends: lighter, slower, and further from the bridge, in the place in its window
 * that the weight had at the beginning. With `r = ln(F/least) / ln(most/least)` there, held within 0 … 1, the weight at the
 * end is `least'^(1−r)·most'^r`: since both ends of the window fall, it is always less.
 * @param speed above 0
 * @param endSpeed above 0, below `speed`
 */
export function fadeTo(
  speed: CentimetresPerSecond,
  endSpeed: CentimetresPerSecond,
  contact: Contact,
  weight: Newtons,
): Fade {
  const begins = toneWindow(speed, contact);
  const outward = Math.max(contact, Math.min(FURTHEST_CONTACT, FADE_OUTWARD * contact));
  const ends = toneWindow(endSpeed, outward);
  const isOpen = begins.min < begins.max;
  const place = isOpen ? Math.log(weight / begins.min) / Math.log(begins.max / begins.min) : 0.5;
  const r = Math.min(1, Math.max(0, place));
  return { weight: ends.min ** (1 - r) * ends.max ** r, contact: outward, window: ends };
}
