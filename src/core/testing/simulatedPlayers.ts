import { forecastOf } from '#core/forecast';
import { type EventKind } from '#core/tempo';
import { learntTogether, PRIOR_SD, weightOf } from '../ability/learnAbility';
import type { JudgedAttempt } from '../ability/likelihood';
import { drawnCeilings } from '../ability/ownCeiling';
import { normalOf, seeded, weightedQuantiles } from '../base/seeded';

/** How a simulated player turns room into clean attempts; the figures of the model itself are slope 10 and lapses 0.04. */
export interface PlayerModel {
  readonly name: string;
  readonly slope: number;
  readonly lapse: number;
  /** By how much the player is better at the last attempt than at the first, as a natural logarithm. */
  readonly grows: number;
  /** Over so many days: what is long ago counts less, as if the player had changed. */
  readonly days: number;
  /** How the best of a day comes about: as the forecast thinks, with other chance, or along another curve. */
  readonly path: { readonly noise: number; readonly curve: 'exponential' | 'power' };
}

const OWN_PATH = { noise: 0.04, curve: 'exponential' } as const;

export const OWN_MODEL: PlayerModel = {
  name: 'as the model has it',
  slope: 10,
  lapse: 0.04,
  grows: 0,
  days: 7,
  path: OWN_PATH,
};

/** Four weeks of players who are not as the model has them: by their chances, or because they change. */
export const OTHER_MODELS: readonly PlayerModel[] = [
  { name: 'chances fall slowly (slope 6)', slope: 6, path: { ...OWN_PATH, noise: 0.05 } },
  { name: 'chances fall steeply (slope 16)', slope: 16, path: { ...OWN_PATH, noise: 0.03 } },
  { name: 'no lapses', lapse: 0 },
  { name: 'lapses 10 %', lapse: 0.1 },
  { name: 'learns while attempting', grows: 0.06 },
].map((other) => ({ ...OWN_MODEL, days: 28, ...other }));

/** Best days along another curve than the forecast's: what it makes of them is told, and not good. */
export const OTHER_CURVE: PlayerModel = {
  ...OWN_MODEL,
  name: 'best days along a power curve',
  path: { ...OWN_PATH, curve: 'power' },
};

/** What 80 % intervals held, of players of one model. */
export interface Calibration {
  readonly name: string;
  /** Shares of the abilities, own ceilings and days that lie within their intervals. */
  readonly ability: number;
  readonly ceiling: number;
  readonly days: number;
  /** Chi-square of the ranks: of abilities and ceilings in ten even classes, of days in the four between 10, 50 and 90 %. */
  readonly chiSquare: { readonly ability: number; readonly ceiling: number; readonly days: number };
  /** Median error of the own ceiling as a share of the guess's. */
  readonly error: number;
}

/** Passed once in a hundred times by chance, of nine and of three degrees of freedom. */
export const CHI_SQUARE = { ability: 21.67, ceiling: 21.67, days: 11.34 } as const;

const KINDS = ['stroke', 'crossing', 'hop'] as const satisfies readonly EventKind[];
/** Ceilings of a tune by the guessed limits. */
const CEILINGS = { stroke: 118, crossing: 110, hop: 130 };
const GUESS = Math.min(...Object.values(CEILINGS));
const ATTEMPTS = 120;
const CLASSES = 10;

/** Plays, learns and forecasts for so many players of a model; the same seed gives the same figures. */
export function calibrate(model: PlayerModel, players: number, seed = 1): Calibration {
  const abilities = new Ranks(CLASSES);
  const ceilings = new Ranks(CLASSES);
  const errors: number[] = [];
  const guesses: number[] = [];
  for (let player = 0; player < players; player++) {
    const random = seeded(seed * 100_000 + player);
    const normal = normalOf(random);
    const truth = Object.fromEntries(KINDS.map((kind) => [kind, PRIOR_SD.guess * normal()])) as Record<
      EventKind,
      number
    >;
    const learnt = learntTogether(attemptsOf(model, truth, random));
    for (const [i, kind] of learnt.kinds.entries())
      abilities.add(learnt.draws.filter((player) => player[i]! < truth[kind]).length / learnt.draws.length);
    const own = Math.min(...KINDS.map((kind) => CEILINGS[kind] * Math.exp(truth[kind])));
    const { drawn } = drawnCeilings(CEILINGS, learnt, () => PRIOR_SD.guess);
    ceilings.add(drawn.filter((bpm) => bpm < own).length / drawn.length);
    const [median] = weightedQuantiles(
      drawn,
      drawn.map(() => 1),
      [0.5],
    ) as [number];
    errors.push(Math.abs(Math.log(median / own)));
    guesses.push(Math.abs(Math.log(GUESS / own)));
  }
  const days = calibrateDays(model, players, seed);
  return {
    name: model.name,
    ability: abilities.held(),
    ceiling: ceilings.held(),
    days: days.held,
    chiSquare: { ability: abilities.chiSquare(), ceiling: ceilings.chiSquare(), days: days.chiSquare },
    error: medianOf(errors) / medianOf(guesses),
  };
}

/** Attempts at stretches with all the room there is, and none. The truth is how the player is at their end. */
function attemptsOf(
  { slope, lapse, grows, days }: PlayerModel,
  truth: Record<EventKind, number>,
  random: () => number,
) {
  return Array.from({ length: ATTEMPTS }, (_, i): JudgedAttempt => {
    const left = 1 - i / (ATTEMPTS - 1);
    const margins = Object.fromEntries(KINDS.map((kind) => [kind, -0.5 + 0.9 * random()])) as Record<
      (typeof KINDS)[number],
      number
    >;
    const chance = KINDS.reduce(
      (product, kind) => product / (1 + Math.exp(-slope * (margins[kind] + truth[kind] - grows * left))),
      1 - lapse,
    );
    return { margins, clean: random() < chance, weight: weightOf(days * left) };
  });
}

const OWN_CEILING = 120;

/** Players on a path to a tempo: within which of the quarters told their day lies. Whoever may be there already is left out. */
function calibrateDays({ path }: PlayerModel, players: number, seed: number) {
  const classes = [0, 0, 0, 0];
  let [held, told] = [0, 0];
  for (let player = 0; told < players; player++) {
    const random = seeded(seed * 1_000_000 + player);
    const normal = normalOf(random);
    const c = Math.log(OWN_CEILING) + 0.1 * normal();
    const g = Math.abs(0.5 * normal());
    const r = 120 * Math.exp(0.7 * normal());
    const left = (x: number) => (path.curve === 'exponential' ? Math.exp(-x / r) : 1 / (1 + x / r) ** 1.5);
    const until = (share: number) =>
      path.curve === 'exponential' ? -r * Math.log(share) : r * (share ** (-1 / 1.5) - 1);
    const best = Array.from({ length: 5 + Math.floor(12 * random()) }, (_, i) => {
      const minutes = (i + 1) * 25;
      return { minutes, bpm: Math.exp(c - g * left(minutes) + path.noise * normal()) };
    });
    const wish = { bpm: OWN_CEILING * (0.8 + 0.2 * random()), minutesADay: 25, ownCeilingBpm: OWN_CEILING };
    const answer = forecastOf(best, wish);
    const short = c - Math.log(wish.bpm);
    if ('tooLittle' in answer || short <= 0 || answer.days.p10 === 0) continue;
    const day = Math.max(0, until(Math.min(1, short / g)) - best.length * 25) / 25;
    const { p10, p50, p90 } = answer.days;
    told += 1;
    held += Number(day >= p10 - 1e-9 && day <= p90 + 1e-9);
    classes[[p10, p50, p90].filter((told) => day >= told).length]! += 1;
  }
  return { held: held / told, chiSquare: chiSquareOf(classes, [0.1, 0.4, 0.4, 0.1]) };
}

/** Shares of a distribution at which truths lie: even where it is right. */
class Ranks {
  readonly #counts: number[];
  #held = 0;
  constructor(classes: number) {
    this.#counts = new Array<number>(classes).fill(0);
  }
  add(share: number): void {
    const { length } = this.#counts;
    this.#counts[Math.min(length - 1, Math.floor(share * length))]! += 1;
    this.#held += Number(share >= 0.1 && share <= 0.9);
  }
  held(): number {
    return this.#held / this.#counts.reduce((sum, count) => sum + count, 0);
  }
  chiSquare(): number {
    return chiSquareOf(
      this.#counts,
      this.#counts.map(() => 1 / this.#counts.length),
    );
  }
}

function chiSquareOf(counts: readonly number[], shares: readonly number[]): number {
  const all = counts.reduce((sum, count) => sum + count, 0);
  return counts.reduce((sum, count, i) => sum + (count - shares[i]! * all) ** 2 / (shares[i]! * all), 0);
}

const medianOf = (figures: readonly number[]): number =>
  figures.slice().sort((a, b) => a - b)[Math.floor(figures.length / 2)]!;
