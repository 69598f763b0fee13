import type { CentimetresPerSecond } from '#core/base';

/** Bow force in newtons; players say weight. */
export type Newtons = number;
/** Distance of the bow from the bridge over the sounding length of the string. */
export type Contact = number;

/** Where the figures below were set: an ordinary stroke in the ordinary place. */
const REFERENCE_SPEED: CentimetresPerSecond = 35;
export const REFERENCE_CONTACT: Contact = 0.092;
/** Most and least weight there, guesses that agree with the sound this application makes. */
const MOST_WEIGHT: Newtons = 1.25;
const LEAST_WEIGHT: Newtons = 0.12;

export interface ToneWindow {
  readonly least: Newtons;
  readonly most: Newtons;
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
  return { least: LEAST_WEIGHT * quicker * nearer ** 2, most: MOST_WEIGHT * quicker * nearer };
}

/** Whether a stroke's speed, weight and contact go together, and if not, what is to be heard. */
export function toneOf(
  speed: CentimetresPerSecond,
  contact: Contact,
  weight: Newtons,
): 'clean' | 'scratch' | 'whistle' {
  const { least, most } = toneWindow(speed, contact);
  if (weight > most) return 'scratch';
  return weight < least ? 'whistle' : 'clean';
}

/** What a fade to a slower bow asks for. */
export interface Fade {
  /** Most weight at its end, where the contact stays. */
  readonly mostWeight: Newtons;
  /** The contact at which the weight may stay as it is; null where it fits already, or nowhere on the string. */
  readonly contact: Contact | null;
}

/** Furthest from the bridge at which a bow is still on the hair side of the fingerboard, a guess. */
const FURTHEST_CONTACT: Contact = 0.2;

/**
 * How weight or contact must move when a stroke fades to a slower speed. As the bow slows, the most weight falls with
 * it: either the weight goes down, or the bow toward the bridge, where more is borne: `β = k·v/F`.
 */
export function fadeTo(endSpeed: CentimetresPerSecond, contact: Contact, weight: Newtons): Fade {
  const { most } = toneWindow(endSpeed, contact);
  if (weight <= most) return { mostWeight: most, contact: null };
  const nearer = (MOST_WEIGHT * (endSpeed / REFERENCE_SPEED) * REFERENCE_CONTACT) / weight;
  const fits = nearer <= FURTHEST_CONTACT && toneOf(endSpeed, nearer, weight * (1 - 1e-9)) === 'clean';
  return { mostWeight: most, contact: fits ? nearer : null };
}
