import { normalOf, seeded, weightedQuantiles } from '#core/base';
import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { type Ability, SLOPE } from './cleanChance';
import { type JudgedAttempt, likelihoodOf } from './likelihood';
import { cholesky, inverse, product, solved } from './matrix';

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
/**
 * How steeply chances may fall, and how far each is believed before anything is logged. Guesses: with one slope alone, 80 %
 * intervals of players whose chances fall more slowly held 61 %; with these they hold 71.
 */
const SLOPES = [
  { slope: 6, belief: 0.25 },
  { slope: SLOPE, belief: 0.5 },
  { slope: 16, belief: 0.25 },
] as const;
const MAX_STEPS = 100;
const TOLERANCE = 1e-9;

export const weightOf = (daysAgo: number): number => Math.exp(-Math.max(0, daysAgo) / AGE_DAYS);

/** What attempts say of all kinds together. */
export interface LearntAbility {
  readonly kinds: readonly EventKind[];
  /** The most likely. */
  readonly mean: readonly number[];
  /** Players as they may be, each as likely as the others: `draws[i][kind]`. */
  readonly draws: readonly (readonly number[])[];
}

/** Players that are drawn. */
const PLAYERS = 512;
/**
 * Pairs of draws that are weighed for each slope: as many as cost no more than so many attempts looked at, since with many
 * attempts a normal distribution is near enough.
 */
const [MIN_PAIRS, MAX_PAIRS] = [12, 160];
const WEIGHED_ATTEMPTS = 60_000;
const SEED = 20_260_304;
/** Draws lie so much further off than Laplace's distribution has them: the true one may end later. */
const WIDER = 1.3;
/** Degrees of freedom of the draws: few have far tails. */
const TAILS = 4;
/** Fewer draws that count than these for each kind say nothing: then Laplace's figures hold. */
const MIN_EFFECTIVE = 6;
/** Of the width of all players, how far each lies off the draw that it is taken from. */
const SPREAD = 0.3;

/**
 * What attempts say of a player: the most likely a of Σ w·ln P(outcome) - Σ a_k²/(2 sd_k²), with P(clean) as `cleanChance`
 * has it, by Newton's method with damping. Around it draws, as far off as Laplace has it by the curvature there and some farther
 * (Student's t), are weighed by the true distribution (importance sampling), so that what leans to one side, or ends at a cliff,
 * has its middle and width where they are; and not the usual slope alone is looked at, but each of `SLOPES` by how well it
 * explains what came out.
 * Kinds that no attempt holds are left out. Time O(i·(n·k² + k³)) for i steps, n attempts and k kinds.
 * @param sdOf the deviation of each kind before anything is known
 */
export function learntTogether(
  attempts: readonly JudgedAttempt[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): LearntAbility {
  const kinds = EVENT_KINDS.filter((kind) => attempts.some(({ margins }) => margins[kind] !== undefined));
  return fitted(attempts, kinds, kinds.map(sdOf));
}

/** What is learnt, kind by kind. */
export function learnAbility(
  attempts: readonly JudgedAttempt[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): Readonly<Partial<Record<EventKind, KindAbility>>> {
  return kindByKind(attempts, learntTogether(attempts, sdOf));
}

/** What was learnt of all together, kind by kind with 80 % intervals. */
export function kindByKind(
  attempts: readonly Pick<JudgedAttempt, 'margins'>[],
  { kinds, mean, draws }: LearntAbility,
): Readonly<Partial<Record<EventKind, KindAbility>>> {
  return Object.fromEntries(
    kinds.map((kind, i): [EventKind, KindAbility] => {
      const [low, high] = weightedQuantiles(
        draws.map((player) => player[i]!),
        draws.map(() => 1),
        [0.1, 0.9],
      ) as [number, number];
      return [
        kind,
        {
          mean: mean[i]!,
          low: Math.min(mean[i]!, low),
          high: Math.max(mean[i]!, high),
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

/** So many times as well must another slope explain what came out before the player is taken to be as it says. */
const MUCH_BETTER = 20;

/** A player by attempts and what is thought before them. */
function fitted(
  attempts: readonly JudgedAttempt[],
  kinds: readonly EventKind[],
  sds: readonly number[],
): LearntAbility {
  const posterior = posteriorOf(attempts, kinds, sds);
  const pairs = Math.max(MIN_PAIRS, Math.min(MAX_PAIRS, Math.round(WEIGHED_ATTEMPTS / (attempts.length + 1))));
  let from: readonly number[] = kinds.map(() => 0);
  const first = SLOPES.map(({ slope }) => (from = mostLikely(posterior, slope, from)));
  const fits = SLOPES.map(({ slope, belief }, s) => {
    // What one slope explains by strokes another may explain by crossings: each looks from where the last ended, too.
    const other = mostLikely(posterior, slope, first[first.length - 1]!);
    const mode = posterior.value(other, slope) > posterior.value(first[s]!, slope) ? other : first[s]!;
    return { slope, belief, mode, ...drawnAround(posterior, slope, mode, { sds, pairs }) };
  });
  const best = Math.max(...fits.map(({ evidence }) => evidence));
  const weights = fits.map(({ belief, evidence }) => belief * Math.exp(evidence - best));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const shares = weights.map((weight) => weight / all);
  const usual = fits.findIndex(({ slope }) => slope === SLOPE);
  const likeliest = shares.indexOf(Math.max(...shares));
  const { mode: mean } = fits[shares[likeliest]! > MUCH_BETTER * shares[usual]! ? likeliest : usual]!;
  const draws = drawnAgain(
    fits.flatMap(({ drawn }) => drawn),
    fits.flatMap(({ weights: own }, s) => own.map((weight) => shares[s]! * weight)),
  );
  return { kinds, mean, draws };
}

type Posterior = ReturnType<typeof posteriorOf>;

/** The logarithm of the posterior; and with its slope and curvature. */
function posteriorOf(attempts: readonly JudgedAttempt[], kinds: readonly EventKind[], sds: readonly number[]) {
  const likelihood = likelihoodOf(attempts, kinds);
  const before = (a: readonly number[]) => a.reduce((sum, own, k) => sum - own ** 2 / (2 * sds[k]! ** 2), 0);
  return {
    value: (a: readonly number[], slope: number) => likelihood.value(a, slope) + before(a),
    derived: (a: readonly number[], slope: number) => {
      const { value, gradient, hessian } = likelihood.derived(a, slope);
      return {
        value: value + before(a),
        gradient: gradient.map((own, k) => own - a[k]! / sds[k]! ** 2),
        /** Minus the second derivatives. */
        curvature: hessian.map((row, k) => row.map((own, l) => (k === l ? 1 / sds[k]! ** 2 : 0) - own)),
      };
    },
  };
}

/** The highest point of a posterior, by Newton's method; where a step does not rise, a shorter one along the slope. */
function mostLikely(posterior: Posterior, slope: number, from: readonly number[]): readonly number[] {
  let a = from;
  let now = posterior.derived(a, slope);
  let damping = 0;
  for (let step = 0; step < MAX_STEPS; step++) {
    if (Math.max(0, ...now.gradient.map(Math.abs)) < TOLERANCE) break;
    const damped = now.curvature.map((row, i) => row.map((value, j) => value + (i === j ? damping : 0)));
    const move = solved(damped, now.gradient);
    const next = move && a.map((value, i) => value + move[i]!);
    const tried = next && posterior.derived(next, slope);
    if (next && tried && tried.value >= now.value - 1e-12) {
      [a, now] = [next, tried];
      damping = damping < TOLERANCE ? 0 : damping / 10;
    } else damping = Math.max(1, damping * 10);
  }
  return a;
}

/**
 * Draws around the highest point with their weights, which sum to 1, and the logarithm of how well such a slope explains what came
 * out.
 */
function drawnAround(
  posterior: Posterior,
  slope: number,
  mode: readonly number[],
  { sds, pairs }: { readonly sds: readonly number[]; readonly pairs: number },
) {
  const top = posterior.derived(mode, slope);
  const laplace = inverse(top.curvature);
  // Where the curvature says nothing, what was thought before holds.
  const root = cholesky(laplace?.inverse ?? sds.map((sd, i) => sds.map((_, j) => (i === j ? sd ** 2 : 0))))!;
  const logDet = laplace?.logDet ?? 0;
  const normal = normalOf(seeded(SEED));
  const k = mode.length;
  const drawn: (readonly number[])[] = [];
  const likely: number[] = [];
  for (let pair = 0; pair < pairs; pair++) {
    // Student's t of TAILS degrees: normal over the root of a mean square.
    const heavy = Math.sqrt(TAILS / Array.from({ length: TAILS }, normal).reduce((sum, own) => sum + own * own, 0));
    const u = mode.map(() => normal() * heavy);
    const off = product(root, u);
    const proposed = ((TAILS + k) / 2) * Math.log(1 + u.reduce((sum, own) => sum + own * own, 0) / TAILS);
    for (const side of [-1, 1]) {
      const at = mode.map((value, i) => value + side * WIDER * off[i]!);
      drawn.push(at);
      likely.push(posterior.value(at, slope) - top.value + proposed);
    }
  }
  const best = Math.max(...likely);
  const raw = likely.map((own) => Math.exp(own - best));
  const all = raw.reduce((sum, weight) => sum + weight, 0);
  const squares = raw.reduce((sum, weight) => sum + weight * weight, 0);
  if (all ** 2 / squares < MIN_EFFECTIVE * mode.length) {
    // Laplace's own distribution: as near the highest point as it has them.
    const near = drawn.map((at) => at.map((value, i) => mode[i]! + (value - mode[i]!) / WIDER));
    return { drawn: near, weights: near.map(() => 1 / near.length), evidence: top.value - logDet / 2 };
  }
  return {
    drawn,
    weights: raw.map((weight) => weight / all),
    evidence: top.value - logDet / 2 + best + Math.log(all / drawn.length) + mode.length * Math.log(WIDER),
  };
}

/**
 * Players as likely as each other, of draws with weights: each draw comes as often as its weight says (systematic resampling), and
 * players lie a little off it, so that none is there twice, without changing the middle or the width of all (Liu and West,
 * "Combined parameter and state estimation", 2001).
 */
function drawnAgain(drawn: readonly (readonly number[])[], weights: readonly number[]): number[][] {
  const k = drawn[0]?.length ?? 0;
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const players: (readonly number[])[] = [];
  let sum = 0;
  for (const [i, weight] of weights.entries()) {
    sum += weight / all;
    while (players.length + 0.5 < sum * PLAYERS) players.push(drawn[i]!);
  }
  const middle = middleOf(players, k);
  const covariance = middle.map((_row, i) =>
    middle.map(
      (_other, j) =>
        players.reduce((total, at) => total + (at[i]! - middle[i]!) * (at[j]! - middle[j]!), 0) / players.length +
        (i === j ? TINY : 0),
    ),
  );
  const root = cholesky(covariance);
  if (!root) return players.map((at) => [...at]);
  const normal = normalOf(seeded(SEED));
  const keep = Math.sqrt(1 - SPREAD ** 2);
  return players.map((at) => {
    const off = product(root, middle.map(normal));
    return at.map((value, i) => keep * value + (1 - keep) * middle[i]! + SPREAD * off[i]!);
  });
}

const TINY = 1e-12;

const middleOf = (players: readonly (readonly number[])[], kinds: number): number[] =>
  Array.from({ length: kinds }, (_, i) => players.reduce((sum, at) => sum + at[i]!, 0) / players.length);
