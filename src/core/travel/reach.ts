import type { Schools } from '#core/schools';
import type { UnrolledNote } from '#core/tune';

/** A ratio of bow speeds or lengths; 1 leaves them as they are. */
export type Ratio = number;

/**
 * Peak of a pulse against even speed: between 1.45 and 1.95 in players' habit, so that it stands 3.2 to 5.8 dB out and
 * the note takes 1.23 to 1.48 times its hair. The middle of that, a guess.
 */
export const PULSE_PEAK: Ratio = 1.7;
/** A quick start that falls to even speed within the first third of the note, guesses. */
export const ACCENT_PEAK: Ratio = 1.7;
export const ACCENT_SHARE = 1 / 3;

/** Speed within a pulsed note at a share of its time: a raised cosine from 1 to the peak in the middle and back. */
export function pulseSpeed(share: number, peak: Ratio = PULSE_PEAK): Ratio {
  return 1 + ((peak - 1) * (1 - Math.cos(2 * Math.PI * share))) / 2;
}

/** Mean of `pulseSpeed` over the note, by which it is longer: 1 + (peak - 1)/2. */
export function pulseLength(peak: Ratio = PULSE_PEAK): Ratio {
  return 1 + (peak - 1) / 2;
}

/** How far the peak stands out in loudness, in decibels: 20·log10(peak). */
export function pulseDecibels(peak: Ratio = PULSE_PEAK): number {
  return 20 * Math.log10(peak);
}

/** Speed within an accented note: from the peak down to 1 by half a cosine within the first third. */
export function accentSpeed(share: number, peak: Ratio = ACCENT_PEAK): Ratio {
  if (share >= ACCENT_SHARE) return 1;
  return 1 + ((peak - 1) * (1 + Math.cos((Math.PI * share) / ACCENT_SHARE))) / 2;
}

/** Mean of `accentSpeed` over the note: 1 + (peak - 1)/2 over its first third. */
export function accentLength(peak: Ratio = ACCENT_PEAK): Ratio {
  return 1 + (ACCENT_SHARE * (peak - 1)) / 2;
}

/** How much hair played notes ask for beyond even speed; `x[i]` belongs to note i. */
export interface Reach {
  /** What pulses and accents add within the note. */
  readonly shape: readonly Ratio[];
  /** What the player wishes of the stroke that begins here. */
  readonly wish: readonly Ratio[];
}

/** Least and most that a stroke's length may be wished to be, against its nominal length. */
export const MIN_WISH: Ratio = 0.4;
export const MAX_WISH: Ratio = 2.5;

/** The reach of a tune's notes; null where nothing asks for more or less than even speed. Time O(n). */
export function reachOf(notes: readonly UnrolledNote[], pulse: Schools['pulse']): Reach | null {
  if (!notes.some(({ note }) => note.bowLength !== undefined || note.marks !== undefined)) return null;
  return {
    shape: notes.map(({ note: { marks } }) => {
      const isPulsed = pulse === 'speed' && marks?.includes('pulse');
      return (isPulsed ? pulseLength() : 1) * (marks?.includes('accent') ? accentLength() : 1);
    }),
    wish: notes.map(({ note }) => note.bowLength ?? 1),
  };
}

/** By how much a stroke of some notes is longer than nominal. */
export function strokeRatio(reach: Reach | null, durations: readonly number[], first: number, end: number): Ratio {
  if (!reach) return 1;
  let [own, all] = [0, 0];
  for (let i = first; i < end; i++) {
    own += durations[i]! * reach.shape[i]!;
    all += durations[i]!;
  }
  return all > 0 ? (reach.wish[first]! * own) / all : 1;
}
