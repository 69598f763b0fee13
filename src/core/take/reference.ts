import type { Milliseconds } from '#core/base';
import { median } from './measure';
import type { TakeFigures } from './takeFigures';
import type { LowTone } from './tones';

/** What a player's accepted takes are like. */
export interface TakeReference {
  /** How long strokes are noise before their pitch stands; null: not known. */
  readonly biteMs: Milliseconds | null;
  /** How full each place of the lowest string is, against the other strings. */
  readonly lowTones: readonly LowTone[];
}

/** The middle of what accepted takes are like; null: there is none that tells anything. */
export function referenceOf(accepted: readonly Pick<TakeFigures, 'biteMs' | 'lowTones'>[]): TakeReference | null {
  const bites = accepted.flatMap(({ biteMs }) => (biteMs === null ? [] : [biteMs]));
  const tones = accepted.flatMap(({ lowTones }) => lowTones);
  if (bites.length === 0 && tones.length === 0) return null;
  const lowTones = [...new Set(tones.map(({ semitones }) => semitones))].map((semitones): LowTone => {
    const same = tones.filter((tone) => tone.semitones === semitones);
    return {
      semitones,
      decibels: median(same.map(({ decibels }) => decibels)),
      count: same.reduce((sum, { count }) => sum + count, 0),
    };
  });
  return { biteMs: bites.length > 0 ? median(bites) : null, lowTones };
}
