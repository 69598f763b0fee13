import { weightedQuantiles } from '#core/base';
import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { cleanChance } from './cleanChance';
import { type LearntAbility, PRIOR_SD } from './learnAbility';
import type { Margins } from './margins';
import { type KindCeilings, playersOf } from './ownCeiling';

/**
 * By how much one attempt at each of some stretches can be expected to narrow the interval of a tune's own ceiling: its width
 * now, as a natural logarithm, less the width after a clean and after a missed attempt, each by its chance. The larger, the more
 * it tells. After an attempt every player drawn counts as much as what came out is likely of him.
 * Time O(o·d·(k + log d)) for o offers, d draws and k kinds.
 * @param offers the room of each stretch at the tempo offered
 */
export function tellsMost(
  ceilings: KindCeilings,
  learnt: LearntAbility,
  offers: readonly Margins[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): number[] {
  const kinds = EVENT_KINDS.filter(
    (kind) => ceilings[kind] !== undefined || offers.some((margins) => margins[kind] !== undefined),
  );
  const players = playersOf(kinds, learnt, sdOf);
  const drawn = players.map((player) =>
    kinds.reduce((least, kind, k) => Math.min(least, Math.log(ceilings[kind] ?? Infinity) + player[k]!), Infinity),
  );
  const width = (weights: readonly number[]) => {
    const [low, high] = weightedQuantiles(drawn, weights, [0.1, 0.9]) as [number, number];
    return Number.isFinite(high - low) ? high - low : 0;
  };
  const now = width(players.map(() => 1));
  return offers.map((margins) => {
    const chances = players.map((player) =>
      cleanChance(margins, Object.fromEntries(kinds.map((kind, k) => [kind, player[k]!]))),
    );
    const chance = chances.reduce((sum, own) => sum + own, 0) / chances.length;
    return now - chance * width(chances) - (1 - chance) * width(chances.map((own) => 1 - own));
  });
}
