import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { type Ability, SLOPE } from './cleanChance';
import { type JudgedAttempt, likelihoodOf } from './likelihood';
import { cholesky, inverse, type Matrix, product, solved } from './matrix';

/** What is learnt of one kind of event. */
export interface KindAbility {
  /** By how much the player is better than the limit, as a natural logarithm: the most likely figure. */
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
/**
 * How steeply chances may fall, and how far each is believed before anything is logged. Guesses: with one slope alone, 80 %
 * intervals of players whose chances fall more slowly held 61 %; with these they hold 75.
 */
const SLOPES = [
  { slope: 6, belief: 0.25 },
  { slope: SLOPE, belief: 0.5 },
  { slope: 16, belief: 0.25 },
] as const;
const MAX_STEPS = 100;
const TOLERANCE = 1e-9;

export const weightOf = (daysAgo: number): number => Math.exp(-Math.max(0, daysAgo) / AGE_DAYS);

/** What attempts say of all kinds together: near its middle a normal distribution. */
export interface LearntAbility {
  readonly kinds: readonly EventKind[];
  /** The most likely. */
  readonly mean: readonly number[];
  /** Where the distribution has its middle: it leans to one side of the most likely. */
  readonly middle: readonly number[];
  readonly covariance: Matrix;
}

/** A normal distribution before attempts are looked at. */
interface Before {
  readonly mean: readonly number[];
  readonly covariance: Matrix;
}

/**
 * What attempts say of a player: the most likely a of Σ w·ln P(outcome) - Σ a_k²/(2 sd_k²), with P(clean) as `cleanChance`
 * has it, by Newton's method with damping. Middle and covariance are Laplace's from the curvature there, mended in two ways:
 * slope and curvature are averaged over the points one deviation off along each axis, so that what leans to one side has its
 * middle there; and not the usual slope alone is looked at, but each of `SLOPES` by how well it explains what came out.
 * Kinds that no attempt holds are left out. Time O(i·(n·k² + k³)) for i steps, n attempts and k kinds.
 * @param sdOf the deviation of each kind before anything is known
 */
export function learntTogether(
  attempts: readonly JudgedAttempt[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): LearntAbility {
  const kinds = EVENT_KINDS.filter((kind) => attempts.some(({ margins }) => margins[kind] !== undefined));
  return fitted(attempts, kinds, {
    mean: kinds.map(() => 0),
    covariance: kinds.map((kind, i) => kinds.map((_, j) => (i === j ? sdOf(kind) ** 2 : 0))),
  });
}

/** What is known after one more attempt, of what was learnt before it; kinds that are new are as they are thought of before. */
export function learntFurther(
  before: LearntAbility,
  attempt: JudgedAttempt,
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): LearntAbility {
  const kinds = EVENT_KINDS.filter((kind) => before.kinds.includes(kind) || attempt.margins[kind] !== undefined);
  const at = kinds.map((kind) => before.kinds.indexOf(kind));
  const covarianceOf = (i: number, j: number) => {
    const [a, b] = [at[i]!, at[j]!];
    if (a >= 0 && b >= 0) return before.covariance[a]![b]!;
    return i === j ? sdOf(kinds[i]!) ** 2 : 0;
  };
  return fitted([attempt], kinds, {
    mean: at.map((i) => (i < 0 ? 0 : before.middle[i]!)),
    covariance: kinds.map((_kind, i) => kinds.map((_other, j) => covarianceOf(i, j))),
  });
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
  attempts: readonly Pick<JudgedAttempt, 'margins'>[],
  { kinds, mean, middle, covariance }: LearntAbility,
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): Readonly<Partial<Record<EventKind, KindAbility>>> {
  return Object.fromEntries(
    kinds.map((kind, i): [EventKind, KindAbility] => {
      const sd = Math.min(sdOf(kind), Math.sqrt(Math.max(0, covariance[i]![i]!)));
      return [
        kind,
        {
          mean: mean[i]!,
          low: Math.min(mean[i]!, middle[i]! - TENTH * sd),
          high: Math.max(mean[i]!, middle[i]! + TENTH * sd),
          attempts: attempts.filter(({ margins }) => margins[kind] !== undefined).length,
        },
      ];
    }),
  );
}

/** The most likely of what is learnt, for chances. */
export function abilityOf(learnt: ReturnType<typeof learnAbility>): Ability {
  return Object.fromEntries(Object.entries(learnt).map(([kind, { mean }]) => [kind, mean]));
}

/** A player by attempts and what is thought before them. */
function fitted(attempts: readonly JudgedAttempt[], kinds: readonly EventKind[], before: Before): LearntAbility {
  const posterior = posteriorOf(attempts, kinds, before);
  const usual = mostLikely(posterior, SLOPE, before.mean);
  const fits = SLOPES.map(({ slope, belief }) => {
    const mode = slope === SLOPE ? usual : mostLikely(posterior, slope, usual);
    return { belief, ...spreadAround(posterior, slope, mode, before) };
  });
  const best = Math.max(...fits.map(({ evidence }) => evidence));
  const weights = fits.map(({ belief, evidence }) => belief * Math.exp(evidence - best));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const shares = weights.map((weight) => weight / all);
  const middle = kinds.map((_, i) => fits.reduce((sum, fit, s) => sum + shares[s]! * fit.middle[i]!, 0));
  const covariance = kinds.map((_kind, i) =>
    kinds.map((_other, j) =>
      fits.reduce(
        (sum, fit, s) =>
          sum + shares[s]! * (fit.covariance[i]![j]! + (fit.middle[i]! - middle[i]!) * (fit.middle[j]! - middle[j]!)),
        0,
      ),
    ),
  );
  return { kinds, mean: usual, middle, covariance };
}

type Posterior = ReturnType<typeof posteriorOf>;

/** The logarithm of the posterior, its slope and curvature. */
function posteriorOf(attempts: readonly JudgedAttempt[], kinds: readonly EventKind[], { mean, covariance }: Before) {
  const likelihood = likelihoodOf(attempts, kinds);
  const precision = inverse(covariance)?.inverse ?? [];
  return (a: readonly number[], slope: number) => {
    const { value, gradient, hessian } = likelihood(a, slope);
    const off = a.map((own, k) => own - mean[k]!);
    const pull = product(precision, off);
    return {
      value: value - off.reduce((sum, own, k) => sum + own * pull[k]!, 0) / 2,
      gradient: gradient.map((own, k) => own - pull[k]!),
      /** Minus the second derivatives. */
      curvature: hessian.map((row, k) => row.map((own, l) => precision[k]![l]! - own)),
    };
  };
}

/** The highest point of a posterior, by Newton's method; where a step does not rise, a shorter one along the slope. */
function mostLikely(posterior: Posterior, slope: number, from: readonly number[]): readonly number[] {
  let a = from;
  let now = posterior(a, slope);
  let damping = 0;
  for (let step = 0; step < MAX_STEPS; step++) {
    if (Math.max(0, ...now.gradient.map(Math.abs)) < TOLERANCE) break;
    const damped = now.curvature.map((row, i) => row.map((value, j) => value + (i === j ? damping : 0)));
    const move = solved(damped, now.gradient);
    const next = move && a.map((value, i) => value + move[i]!);
    const tried = next && posterior(next, slope);
    if (next && tried && tried.value >= now.value - 1e-12) {
      [a, now] = [next, tried];
      damping = damping < TOLERANCE ? 0 : damping / 10;
    } else damping = Math.max(1, damping * 10);
  }
  return a;
}

/** Middle and covariance around the highest point, and the logarithm of how well such a slope explains what came out. */
function spreadAround(posterior: Posterior, slope: number, mode: readonly number[], before: Before) {
  const top = posterior(mode, slope);
  const laplace = inverse(top.curvature);
  // Where the curvature says nothing, what was thought before holds.
  if (!laplace) return { middle: mode, covariance: before.covariance, evidence: top.value };
  const evidence = top.value - laplace.logDet / -2;
  const k = mode.length;
  const root = cholesky(laplace.inverse)!;
  const gradient = mode.map(() => 0);
  const curvature = mode.map(() => mode.map(() => 0));
  // The cubature of degree three for a normal distribution.
  for (let axis = 0; axis < k; axis++)
    for (const side of [-1, 1]) {
      const beside = posterior(
        mode.map((value, i) => value + side * Math.sqrt(k) * root[i]![axis]!),
        slope,
      );
      for (let i = 0; i < k; i++) {
        gradient[i]! += beside.gradient[i]! / (2 * k);
        for (let j = 0; j < k; j++) curvature[i]![j]! += beside.curvature[i]![j]! / (2 * k);
      }
    }
  const mended = inverse(curvature)?.inverse;
  if (!mended) return { middle: mode, covariance: laplace.inverse, evidence };
  const lean = product(mended, gradient);
  return { middle: mode.map((value, i) => value + lean[i]!), covariance: mended, evidence };
}
