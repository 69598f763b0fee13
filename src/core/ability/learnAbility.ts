import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { type Ability, LAPSE, SLOPE } from './cleanChance';
import type { Margins } from './margins';

/** One time through a stretch, with the room it left at its tempo. */
export interface JudgedAttempt {
  readonly margins: Margins;
  readonly clean: boolean;
  /** What it counts, 0 to 1: less the longer ago. */
  readonly weight: number;
}

/** What is learnt of one kind of event. */
export interface KindAbility {
  /** By how much the player is better than the limit, as a natural logarithm. */
  readonly mean: number;
  /** 10 and 90 %. */
  readonly low: number;
  readonly high: number;
  readonly attempts: number;
}

/** How sure a limit is before anything is logged. Guesses, as natural logarithms. */
export const PRIOR_SD = { guess: 0.3, measured: 0.08 } as const;
/** Days after which an attempt counts 1/e. A guess. */
const AGE_DAYS = 60;
/** 10 and 90 % of a normal distribution lie so many deviations from its middle. */
const TENTH = 1.2815515655446004;
const MAX_STEPS = 100;
const TOLERANCE = 1e-9;

export const weightOf = (daysAgo: number): number => Math.exp(-Math.max(0, daysAgo) / AGE_DAYS);

/** What attempts say of all kinds together: near its middle a normal distribution. */
export interface LearntAbility {
  readonly kinds: readonly EventKind[];
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/**
 * What attempts say of a player: the most likely a of Σ w·ln P(outcome) - Σ a_k²/(2 sd_k²), with P(clean) as `cleanChance`
 * has it, by Newton's method with damping; and the covariance from the curvature there (Laplace). Kinds that no attempt holds
 * are left out. Time O(i·(n·k² + k³)) for i steps, n attempts and k kinds.
 * @param sdOf the deviation of each kind before anything is known
 */
export function learntTogether(
  attempts: readonly JudgedAttempt[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): LearntAbility {
  const kinds = EVENT_KINDS.filter((kind) => attempts.some(({ margins }) => margins[kind] !== undefined));
  const sds = kinds.map(sdOf);
  let a = kinds.map(() => 0);
  let now = posterior(attempts, kinds, sds, a);
  let damping = 0;
  for (let step = 0; step < MAX_STEPS; step++) {
    if (Math.max(0, ...now.gradient.map(Math.abs)) < TOLERANCE) break;
    const curved = now.hessian.map((row, i) => row.map((value, j) => -value + (i === j ? damping : 0)));
    const move = solved(curved, now.gradient);
    const next = move && a.map((value, i) => value + move[i]!);
    const tried = next && posterior(attempts, kinds, sds, next);
    if (next && tried && tried.value >= now.value - 1e-12) {
      [a, now] = [next, tried];
      damping = damping < TOLERANCE ? 0 : damping / 10;
    } else damping = Math.max(1, damping * 10);
  }
  const known = inverse(now.hessian.map((row) => row.map((value) => -value)));
  // Where the curvature says nothing, what was thought before holds.
  const covariance = known ?? sds.map((sd, i) => sds.map((_, j) => (i === j ? sd ** 2 : 0)));
  return { kinds, mean: a, covariance };
}

/** What is learnt, kind by kind. */
export function learnAbility(
  attempts: readonly JudgedAttempt[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): Readonly<Partial<Record<EventKind, KindAbility>>> {
  return kindByKind(attempts, learntTogether(attempts, sdOf), sdOf);
}

/** What was learnt of all together, kind by kind with 80 % intervals. */
export function kindByKind(
  attempts: readonly JudgedAttempt[],
  { kinds, mean, covariance }: LearntAbility,
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): Readonly<Partial<Record<EventKind, KindAbility>>> {
  return Object.fromEntries(
    kinds.map((kind, i): [EventKind, KindAbility] => {
      const sd = Math.min(sdOf(kind), Math.sqrt(Math.max(0, covariance[i]![i]!)));
      return [
        kind,
        {
          mean: mean[i]!,
          low: mean[i]! - TENTH * sd,
          high: mean[i]! + TENTH * sd,
          attempts: attempts.filter(({ margins }) => margins[kind] !== undefined).length,
        },
      ];
    }),
  );
}

/** The middle of what is learnt, for chances. */
export function abilityOf(learnt: ReturnType<typeof learnAbility>): Ability {
  return Object.fromEntries(Object.entries(learnt).map(([kind, { mean }]) => [kind, mean]));
}

interface Posterior {
  readonly value: number;
  readonly gradient: readonly number[];
  readonly hessian: readonly (readonly number[])[];
}

/**
 * The logarithm of the posterior, its slope and curvature. With g_k = s(1 - σ_k): clean adds g_k and -s²σ_k(1 - σ_k); missed adds
 * -Q·g_k and, with Q = P/(1 - P), Q·s²σ_k(1 - σ_k) on the diagonal and -Q/(1 - P)·g_k·g_l everywhere.
 */
function posterior(
  attempts: readonly JudgedAttempt[],
  kinds: readonly EventKind[],
  sds: readonly number[],
  a: readonly number[],
): Posterior {
  let value = 0;
  const gradient = kinds.map(() => 0);
  const hessian = kinds.map(() => kinds.map(() => 0));
  for (const { margins, clean, weight } of attempts) {
    const own = kinds.flatMap((kind, k) => {
      const margin = margins[kind];
      if (margin === undefined) return [];
      const chance = 1 / (1 + Math.exp(-SLOPE * (margin + a[k]!)));
      return [{ k, chance, slope: SLOPE * (1 - chance), bend: SLOPE ** 2 * chance * (1 - chance) }];
    });
    const p = own.reduce((product, { chance }) => product * chance, 1 - LAPSE);
    value += weight * Math.log(clean ? Math.max(p, Number.MIN_VALUE) : 1 - p);
    const odds = p / (1 - p);
    for (const { k, slope, bend } of own) {
      gradient[k]! += weight * (clean ? slope : -odds * slope);
      hessian[k]![k]! += weight * (clean ? -bend : odds * bend);
      if (!clean) for (const other of own) hessian[k]![other.k]! -= (weight * odds * slope * other.slope) / (1 - p);
    }
  }
  for (const [k, sd] of sds.entries()) {
    value -= a[k]! ** 2 / (2 * sd ** 2);
    gradient[k]! -= a[k]! / sd ** 2;
    hessian[k]![k]! -= 1 / sd ** 2;
  }
  return { value, gradient, hessian };
}

/** x of A·x = b for a positive definite A, by Cholesky's factors; null: A is none. */
function solved(matrix: readonly (readonly number[])[], b: readonly number[]): number[] | null {
  const factor = cholesky(matrix);
  if (!factor) return null;
  const n = b.length;
  const y: number[] = [];
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let j = 0; j < i; j++) sum -= factor[i]![j]! * y[j]!;
    y.push(sum / factor[i]![i]!);
  }
  const x = y.slice();
  for (let i = n - 1; i >= 0; i--) {
    for (let j = i + 1; j < n; j++) x[i]! -= factor[j]![i]! * x[j]!;
    x[i]! /= factor[i]![i]!;
  }
  return x;
}

/** L of A = L·Lᵀ for a positive definite A; null: A is none. */
export function cholesky(matrix: readonly (readonly number[])[]): number[][] | null {
  const n = matrix.length;
  const factor = matrix.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= factor[i]![k]! * factor[j]![k]!;
      if (i !== j) factor[i]![j] = sum / factor[j]![j]!;
      else if (sum <= 0) return null;
      else factor[i]![i] = Math.sqrt(sum);
    }
  return factor;
}

/** The inverse of a positive definite matrix; null: it is none. */
function inverse(matrix: readonly (readonly number[])[]): number[][] | null {
  const columns = matrix.map((_row, i) =>
    solved(
      matrix,
      matrix.map((_other, j) => (i === j ? 1 : 0)),
    ),
  );
  // Symmetric: its columns are its rows.
  return columns.every((column) => column !== null) ? columns : null;
}
