import type { Chord } from '#core/harmony';
import type { Pitch } from '#core/pitch';
import type { Place } from '#core/tune';
import { type IntervalClass, intervalClass } from './intervals';
import { relativeRoughness } from './roughness';

/** What the terms of a drone's rank weigh; 1 each until a listening test fits them to the player's ear. */
export interface EarWeights {
  readonly roughness: number;
  readonly class: number;
  readonly role: number;
}

export const DEFAULT_EAR: EarWeights = { roughness: 1, class: 1, role: 1 };

/** What the roughness of a fifth is charged, against the penalties below. A guess: a third stays better than a seventh. */
const ROUGHNESS = 0.15;
/** Penalty of each class; a sharp interval that resolves counts as a sweet one. */
const CLASS_PENALTY: Readonly<Record<IntervalClass, number>> = { perfect: 0, sweet: 0.1, sharp: 0.35 };
/** What the chord of the moment charges its tones and what lies outside it. Guesses. */
const ROLE_PENALTY: Readonly<Record<TonalRole, number>> = { root: 0, fifth: 0.05, third: 0.12, other: 0.45 };

/** What a drone is to the chord of the moment. */
export type TonalRole = 'root' | 'fifth' | 'third' | 'other';

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
  ear: EarWeights = DEFAULT_EAR,
): RankedDrone['terms'] {
  const own = intervalClass(melody - drone);
  const counted = own === 'sharp' && resolves ? 'sweet' : own;
  return {
    roughness: ear.roughness * ROUGHNESS * relativeRoughness(melody, drone),
    class: ear.class * CLASS_PENALTY[counted],
    role: ear.role * ROLE_PENALTY[role],
  };
}

export const rankOf = ({ roughness, class: own, role }: RankedDrone['terms']): number => roughness + own + role;

/** What a tone is to a chord: the one that the backing plays, written or found from the melody. */
export function roleOf(midi: number, chord: Pick<Chord, 'root' | 'third' | 'fifth'>): TonalRole {
  const tone = midi % 12;
  if (tone === chord.root) return 'root';
  if (tone === chord.fifth) return 'fifth';
  return tone === chord.third ? 'third' : 'other';
}
