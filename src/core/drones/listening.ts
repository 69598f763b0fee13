import { DEFAULT_EAR, type EarWeights, rankTerms, type TonalRole } from './rank';

/** Two notes together, as they are put to the player's ear. */
export interface Sample {
  readonly melody: number;
  readonly drone: number;
  readonly role: TonalRole;
}

/** One question of a listening test, answered: which of the two is liked better. */
export interface Answer {
  readonly liked: Sample;
  readonly other: Sample;
}

/** How strongly answers pull the weights from the usual ones: as if the usual ear had answered this often. A guess. */
const PRIOR = 0.5;
/** A rank apart by this much is heard three times in four. */
const HEARD = 0.1;
const ROUNDS = 400;
const STEP = 0.4;
/** Weights are not negative, and no ear hears one term ten times as much. */
const MAX_WEIGHT = 10;

const KEYS = ['roughness', 'class', 'role'] as const;

/**
 * Weights of the terms of a drone's rank that best explain the answers of a listening test: the liked one has the lesser
 * rank with the chance 1/(1 + e^(−Δ/h)), h = 0.1/ln 3. Least −Σ ln(chance) + p·Σ(w − 1)² by gradient steps, convex.
 * Time O(rounds · answers).
 */
export function fitEar(answers: readonly Answer[]): EarWeights {
  const gains = answers.map(({ liked, other }) => {
    const a = rankTerms(liked.melody, liked.drone, liked.role, false);
    const b = rankTerms(other.melody, other.drone, other.role, false);
    return KEYS.map((key) => ((b[key] - a[key]) * Math.log(3)) / HEARD);
  });
  const weights = KEYS.map((key) => DEFAULT_EAR[key]);
  for (let round = 0; round < ROUNDS; round++) {
    const slope = weights.map((weight) => 2 * PRIOR * (weight - 1));
    for (const gain of gains) {
      const margin = gain.reduce((sum, value, k) => sum + value * weights[k]!, 0);
      const pull = 1 / (1 + Math.exp(margin));
      for (const [k, value] of gain.entries()) slope[k]! -= pull * value;
    }
    const size = STEP / (1 + answers.length);
    for (const k of weights.keys()) weights[k] = Math.min(MAX_WEIGHT, Math.max(0, weights[k]! - size * slope[k]!));
  }
  return { roughness: weights[0]!, class: weights[1]!, role: weights[2]! };
}

/** How surely the weights hold: share of the answers that they explain. */
export function explained(answers: readonly Answer[], ear: EarWeights): number {
  if (answers.length === 0) return 1;
  const rank = ({ melody, drone, role }: Sample) => {
    const terms = rankTerms(melody, drone, role, false, ear);
    return terms.roughness + terms.class + terms.role;
  };
  return answers.filter(({ liked, other }) => rank(liked) <= rank(other)).length / answers.length;
}

/**
 * Pairs for a short test: beside a note on the A string each interval is heard against another of about its rank, so that
 * every answer tells something.
 */
export function listeningPairs(): { readonly a: Sample; readonly b: Sample }[] {
  const drone = 62;
  const of = (semitones: number, role: TonalRole = 'root'): Sample => ({ melody: drone + semitones, drone, role });
  return [
    { a: of(3), b: of(4) },
    { a: of(9), b: of(5) },
    { a: of(10), b: of(3) },
    { a: of(2), b: of(6) },
    { a: of(8), b: of(10) },
    { a: of(7, 'other'), b: of(5) },
    { a: of(4, 'other'), b: of(8) },
    { a: of(11), b: of(6) },
    { a: of(14), b: of(10) },
    { a: of(12, 'other'), b: of(9) },
  ];
}
