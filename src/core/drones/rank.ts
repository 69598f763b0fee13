import { midiOf, type Pitch } from '#core/pitch';
import type { Place } from '#core/tune';
import { type IntervalClass, intervalClass } from './intervals';
import { pitchRoughness } from './roughness';

/** What the terms of a drone's rank weigh; 1 each until a listening test fits them to the player's ear. */
export interface EarWeights {
  readonly roughness: number;
  readonly class: number;
  readonly role: number;
}

export const USUAL_EAR: EarWeights = { roughness: 1, class: 1, role: 1 };

/** Penalty of each class; a sharp interval that resolves counts as a sweet one. */
const CLASS_PENALTY: Readonly<Record<IntervalClass, number>> = { perfect: 0, sweet: 0.1, sharp: 0.35 };
/**
 * Charge for a drone that is neither root nor fifth of the key or chord. A guess, kept smaller than what the classes are
 * apart, so that a role never makes a seventh better than a third.
 */
const ROLE_PENALTY = 0.05;

/** What a drone is to the key and the chord in force. */
export type TonalRole = 'root' | 'fifth' | 'other';

/** A drone beside one note, every term of its rank shown; less is better. */
export interface RankedDrone {
  readonly kind: 'lower' | 'upper';
  readonly place: Place;
  readonly pitch: Pitch;
  readonly semitones: number;
  readonly class: IntervalClass;
  readonly resolves: boolean;
  readonly role: TonalRole;
  readonly terms: { readonly roughness: number; readonly class: number; readonly role: number };
  readonly rank: number;
  /** Melody fingers bump the sounding neighbour more easily when it is the higher string. */
  readonly reachRisk: 'none' | 'some' | 'high';
}

/** Rank of two pitches together. `resolves`: the next strong note takes a sharp interval into a better one. */
export function rankTerms(
  melody: number,
  drone: number,
  role: TonalRole,
  resolves: boolean,
  ear: EarWeights = USUAL_EAR,
): RankedDrone['terms'] {
  const own = intervalClass(melody - drone);
  const counted = own === 'sharp' && resolves ? 'sweet' : own;
  return {
    roughness: ear.roughness * pitchRoughness(melody, drone),
    class: ear.class * CLASS_PENALTY[counted],
    role: ear.role * (role === 'other' ? ROLE_PENALTY : 0),
  };
}

export const rankOf = ({ roughness, class: own, role }: RankedDrone['terms']): number => roughness + own + role;

/** Pitch classes of root and fifth. */
export interface Harmony {
  readonly root: number;
  readonly fifth: number;
}

export function roleOf(midi: number, harmonies: readonly Harmony[]): TonalRole {
  const tone = midi % 12;
  if (harmonies.some(({ root }) => root === tone)) return 'root';
  return harmonies.some(({ fifth }) => fifth === tone) ? 'fifth' : 'other';
}

/** Root and fifth of a chord symbol (`Em`, `F#dim`, `Bb7`); null for what is none. */
export function chordHarmony(symbol: string): Harmony | null {
  const match = /^([A-G])(#|b)?(.*)$/.exec(symbol.trim());
  if (!match) return null;
  const alter = match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0;
  const root = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[match[1] as 'C'] + alter + 12;
  const fifth = /dim|°|b5/.test(match[3]!) ? 6 : /aug|\+|#5/.test(match[3]!) ? 8 : 7;
  return { root: root % 12, fifth: (root + fifth) % 12 };
}

export function tonicOf({ letter, alter }: { readonly letter: Pitch['letter']; readonly alter: number }): Harmony {
  const root = midiOf({ letter, alter, octave: 4 }) % 12;
  return { root, fifth: (root + 7) % 12 };
}
