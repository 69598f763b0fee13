import type { Seconds } from '#core/base';

/**
 * Times are seconds from the plan's beginning, when things are to be heard; the fiddle begins as much earlier as it needs.
 * Lists are in order of their beginnings.
 */
export interface SoundPlan {
  readonly seconds: Seconds;
  /** Frequencies of the open strings as tuned, lowest place first. */
  readonly openHertz: readonly [number, number, number, number];
  /** What the bow does; strokes do not overlap. */
  readonly strokes: readonly BowStroke[];
  /** Where each string is touched by the bow, by place. */
  readonly contacts: readonly (readonly Contact[])[];
  /** Where the sounding length of each string goes, by place. */
  readonly pitches: readonly (readonly PitchMove[])[];
  readonly vibrato: readonly (readonly Vibrato[])[];
  /** What multiplies the sound of all strings for a while. */
  readonly swells: readonly Swell[];
  /** Bites of the bow. */
  readonly accents: readonly Accent[];
  /** What fingers do to a string that sounds, by place. */
  readonly touches: readonly (readonly Touch[])[];
  readonly plucks: readonly Pluck[];
  readonly clicks: readonly Click[];
  /** A steady tone to tune against; null: none. */
  readonly toneHertz: number | null;
}

export interface BowStroke {
  readonly from: Seconds;
  readonly to: Seconds;
  /** The string's wave is turned over with the bow. */
  readonly sign: 1 | -1;
  /** Metres a second at the middle of the stroke. */
  readonly speed: number;
  /** Weight of the bow, 0 to 1.5; 0.8 is usual. */
  readonly force: number;
  /** How many times the weight is that much at the stroke's beginning, for `biteSeconds`. */
  readonly bite: number;
  readonly biteSeconds: Seconds;
  /** Where in the stroke its weight lies. */
  readonly lean: 'even' | 'start' | 'middle';
  /** Stops of the bow within the stroke: a hook's gap. */
  readonly stops: readonly { readonly from: Seconds; readonly to: Seconds }[];
}

export interface Contact {
  readonly from: Seconds;
  readonly to: Seconds;
  /** The melody, or the string that sounds along with it. */
  readonly role: 'melody' | 'second';
  /** So many decibels less of the lowest partials: a string that does not speak. Left out: none. */
  readonly cloud?: number;
}

/** From `at` the pitch moves to `hertz` within `glide` seconds, evenly in pitch. */
export interface PitchMove {
  readonly at: Seconds;
  readonly hertz: number;
  readonly glide: Seconds;
}

export interface Vibrato {
  readonly from: Seconds;
  readonly to: Seconds;
  readonly rate: number;
  /** Farthest below the pitch. */
  readonly cents: number;
  /** Time in which it grows from nothing. */
  readonly grow: Seconds;
}

/**
 * A swell that returns rises to `decibels` in the middle of its time and comes back; one that does not stays risen at its end.
 * By weight the tone also grows sharper; a fade goes down, lighter, slower and toward the fingerboard together, so duller.
 */
export interface Swell {
  readonly from: Seconds;
  readonly to: Seconds;
  readonly decibels: number;
  readonly by: 'speed' | 'weight' | 'fade';
  readonly returns: boolean;
}

/** The bow bites: so many decibels more at once, with noise, that soon die away. */
export interface Accent {
  readonly at: Seconds;
  readonly decibels: number;
}

/** `flick`: brushed, the string is damped without a pitch. `press`: the finger grows from a touch to a stop. */
export interface Touch {
  readonly kind: 'flick' | 'press';
  readonly from: Seconds;
  readonly to: Seconds;
}

export interface Pluck {
  readonly at: Seconds;
  readonly hertz: number;
  readonly kind: 'bass' | 'chord';
}

export interface Click {
  readonly at: Seconds;
  readonly kind: 'bar' | 'beat' | 'offbeat';
}

/** How loud each part of the sound is, 1 as made; may be changed while it sounds. */
export interface Balance {
  readonly melody: number;
  readonly second: number;
  readonly backing: number;
  readonly click: number;
  readonly tone: number;
}

export const FULL_BALANCE: Balance = { melody: 1, second: 1, backing: 1, click: 1, tone: 1 };

/** A plan on a fiddle (and a piano) tuned so many times higher; clicks stay. */
export function retuned(plan: SoundPlan, ratio: number): SoundPlan {
  if (ratio === 1) return plan;
  const openHertz = plan.openHertz.map((hertz) => hertz * ratio) as [number, number, number, number];
  return {
    ...plan,
    openHertz,
    pitches: plan.pitches.map((list) => list.map((move) => ({ ...move, hertz: move.hertz * ratio }))),
    plucks: plan.plucks.map((pluck) => ({ ...pluck, hertz: pluck.hertz * ratio })),
    toneHertz: plan.toneHertz === null ? null : plan.toneHertz * ratio,
  };
}
