import type { EventKind } from '#core/tempo';
import { LAPSE } from './cleanChance';
import type { Margins } from './margins';

/** One time through a stretch, with the room it left at its tempo. */
export interface JudgedAttempt {
  readonly margins: Margins;
  readonly clean: boolean;
  /** What it counts, 0 to 1: less the longer ago. */
  readonly weight: number;
}

/** How likely what came out is. */
export interface Likelihood {
  readonly value: (a: readonly number[], slope: number) => number;
  /** With its slope and its curvature. */
  readonly derived: (a: readonly number[], slope: number) => Derived;
}

export interface Derived {
  readonly value: number;
  readonly gradient: readonly number[];
  readonly hessian: readonly (readonly number[])[];
}

/**
 * Σ w·ln P(outcome) of attempts as a function of the player's abilities a and of how steeply chances fall, with P(clean) as
 * `cleanChance` has it. With g_k = s(1 - σ_k): clean adds g_k and -s²σ_k(1 - σ_k); missed adds -Q·g_k and, with Q = P/(1 - P),
 * Q·s²σ_k(1 - σ_k) on the diagonal and -Q/(1 - P)·g_k·g_l everywhere. Attempts are laid out once, since it is asked for
 * dozens of players. Time O(n·k²) for n attempts and k kinds.
 */
export function likelihoodOf(attempts: readonly JudgedAttempt[], kinds: readonly EventKind[]): Likelihood {
  const k = kinds.length;
  // `margins[attempt * k + kind]`, where that kind occurs.
  const margins = new Float64Array(attempts.length * k);
  const occurs = new Uint8Array(attempts.length * k);
  const clean = Uint8Array.from(attempts, (attempt) => Number(attempt.clean));
  const weights = Float64Array.from(attempts, ({ weight }) => weight);
  for (const [i, attempt] of attempts.entries())
    for (let j = 0; j < k; j++) {
      const margin = attempt.margins[kinds[j]!];
      margins[i * k + j] = margin ?? 0;
      occurs[i * k + j] = Number(margin !== undefined);
    }
  // Looked up once: this is asked for millions of times.
  const { exp, log } = Math;
  const least = Number.MIN_VALUE;
  const gain = new Float64Array(k);
  const bend = new Float64Array(k);
  const derived = (a: readonly number[], slope: number): Derived => {
    let value = 0;
    const gradient = new Array<number>(k).fill(0);
    const hessian = kinds.map(() => new Array<number>(k).fill(0));
    for (let i = 0; i < clean.length; i++) {
      const weight = weights[i]!;
      let p = 1 - LAPSE;
      for (let j = 0; j < k; j++) {
        if (!occurs[i * k + j]) {
          gain[j] = 0;
          bend[j] = 0;
          continue;
        }
        const chance = 1 / (1 + exp(-slope * (margins[i * k + j]! + a[j]!)));
        p *= chance;
        gain[j] = slope * (1 - chance);
        bend[j] = slope * chance * gain[j]!;
      }
      if (clean[i]) {
        value += weight * log(p > 0 ? p : least);
        for (let j = 0; j < k; j++) {
          gradient[j]! += weight * gain[j]!;
          hessian[j]![j]! -= weight * bend[j]!;
        }
        continue;
      }
      value += weight * log(1 - p);
      const odds = (weight * p) / (1 - p);
      const both = odds / (1 - p);
      for (let j = 0; j < k; j++) {
        gradient[j]! -= odds * gain[j]!;
        const row = hessian[j]!;
        row[j]! += odds * bend[j]!;
        for (let l = 0; l < k; l++) row[l]! -= both * gain[j]! * gain[l]!;
      }
    }
    return { value, gradient, hessian };
  };
  const value = (a: readonly number[], slope: number): number => {
    let sum = 0;
    for (let i = 0; i < clean.length; i++) {
      let inverse = 1 / (1 - LAPSE);
      for (let j = 0; j < k; j++) if (occurs[i * k + j]) inverse *= 1 + exp(-slope * (margins[i * k + j]! + a[j]!));
      const p = 1 / inverse;
      sum += weights[i]! * log(clean[i] ? (p > 0 ? p : least) : 1 - p);
    }
    return sum;
  };
  return { value, derived };
}
