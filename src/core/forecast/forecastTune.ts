import { type BeatsPerMinute, seeded, weightedQuantiles } from '#core/base';
import { type BestOfDay, type Forecast, forecastOf, reachedDays } from './forecast';

/** A stretch of a tune as its days went, and up to which tempo it holds for the player. */
export interface ForecastStretch {
  readonly best: readonly BestOfDay[];
  readonly ownCeilingBpm: BeatsPerMinute;
}

const DRAWS = 2000;
const SEED = 20_260_303;

/**
 * When a tune is clean at a tempo: when every stretch of it is. The minutes of a day are shared among the stretches that are
 * not there yet, so that their days add up. Stretches are drawn each by itself from what `forecastOf` knows of it; a tune that
 * has one which does not come to that does not either. Too little is known where it is of any stretch.
 * Time O(s·d·log d) for s stretches and d draws.
 */
export function forecastTune(
  stretches: readonly ForecastStretch[],
  wish: { readonly bpm: BeatsPerMinute; readonly minutesADay: number },
): Forecast {
  const random = seeded(SEED);
  const sums = new Array<number>(DRAWS).fill(0);
  let ready = 1;
  for (const { best, ownCeilingBpm } of stretches) {
    const own = { ...wish, ownCeilingBpm };
    const told = forecastOf(best, own);
    if ('tooLittle' in told) return told;
    const { days, weights, never } = reachedDays(best, own);
    ready *= 1 - never;
    if (days.length === 0) continue;
    const shares = Array.from({ length: DRAWS }, random).sort((a, b) => a - b);
    const drawn = weightedQuantiles(days, weights, shares);
    shuffle(drawn, random);
    for (const [i, day] of drawn.entries()) sums[i]! += day;
  }
  const never = 1 - ready;
  if (stretches.length === 0) return { tooLittle: 'few-days', days: 0 };
  if (ready === 0) return { days: { p10: Infinity, p50: Infinity, p90: Infinity }, never };
  const [p10, p50, p90] = weightedQuantiles(
    sums,
    sums.map(() => 1),
    [0.1, 0.5, 0.9],
  ) as [number, number, number];
  return { days: { p10, p50, p90 }, never };
}

/** Fisher and Yates. */
function shuffle(values: number[], random: () => number): void {
  for (let i = values.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [values[i], values[j]] = [values[j]!, values[i]!];
  }
}
