import type { Millimetres, Semitones } from '#core/base';
import { centsToMm } from '#core/fingering';
import { midiOf } from '#core/pitch';
import { hertzOf } from '#core/pitch';
import type { Tuning } from '#core/tuning';
import { pureCents, pureRatio } from './intervals';

/** Where the A string stands among the four: the others are tuned from it. */
const A_STRING = 2;
/** Neighbour strings are matched purely by these intervals; by any other they are taken as tempered. */
const MATCHED: ReadonlySet<Semitones> = new Set([0, 5, 7, 12]);

/**
 * Cents by which each open string, tuned from A through pure unisons, fourths, fifths and octaves between neighbours,
 * stands above its tempered pitch. G3 D4 A4 E5: -3.9, -2.0, 0, +2.0.
 */
export function openStringCents(tuning: Tuning): readonly [number, number, number, number] {
  const midi = tuning.map(midiOf);
  const cents = [0, 0, 0, 0];
  const step = (from: number, to: number) => {
    const apart = midi[to]! - midi[from]!;
    const size = Math.abs(apart);
    cents[to] = cents[from]! + (MATCHED.has(size) ? Math.sign(apart) * (pureCents(size) - 100 * size) : 0);
  };
  step(A_STRING, 3);
  step(A_STRING, 1);
  step(1, 0);
  return cents as [number, number, number, number];
}

/** Beats a second of a tone c cents off a tone of f hertz: f·(2^(c/1200) − 1), without sign. */
export function unisonBeats(hertz: number, cents: number): number {
  return Math.abs(hertz * (2 ** (cents / 1200) - 1));
}

/** A stopped note against an open string that sounds beside it. */
export interface Intonation {
  /** Beats a second of the lowest partials that nearly meet, with the finger at its tempered place. */
  readonly beats: number;
  /** How far the finger goes from the tempered place to be pure; positive toward the bridge. */
  readonly pureCents: number;
  readonly pureMm: Millimetres;
}

/**
 * Intonation of a melody note against an open string. Both stand by themselves at `cents` above tempered pitch; the note
 * at its tempered place. Beats are |lower·f_upper − upper·f_lower| for the pure ratio upper:lower.
 */
export function intonationAgainst(
  melody: { readonly midi: number; readonly semitones: Semitones },
  drone: { readonly midi: number; readonly cents: number },
  stringLengthMm: Millimetres,
): Intonation {
  const apart = melody.midi - drone.midi;
  const size = Math.abs(apart);
  const pure = drone.cents + Math.sign(apart || 1) * (pureCents(size) - 100 * size);
  const melodyHertz = hertzOf(melody.midi);
  const droneHertz = hertzOf(drone.midi + drone.cents / 100);
  const [high, low] = apart >= 0 ? [melodyHertz, droneHertz] : [droneHertz, melodyHertz];
  const { upper, lower } = pureRatio(size);
  return {
    beats: Math.abs(lower * high - upper * low),
    pureCents: pure,
    pureMm: centsToMm(pure, melody.semitones, stringLengthMm),
  };
}

/** Where the leading note may stand: pure under the tonic's third of the dominant, tempered, or high toward the tonic. */
export const LEADING_NOTE_CHOICES: readonly { readonly name: 'low' | 'tempered' | 'high'; readonly cents: number }[] = [
  { name: 'low', cents: pureCents(4) - 400 },
  { name: 'tempered', cents: 0 },
  // The third of a chain of pure fifths, 81:64 above the dominant.
  { name: 'high', cents: 1200 * Math.log2(81 / 64) - 400 },
];
