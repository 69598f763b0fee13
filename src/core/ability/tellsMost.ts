import type { EventKind } from '#core/tempo';
import { cleanChance } from './cleanChance';
import { type LearntAbility, learntFurther, PRIOR_SD } from './learnAbility';
import type { Margins } from './margins';
import { type KindCeilings, ownCeiling } from './ownCeiling';

/**
 * By how much one attempt at each of some stretches can be expected to narrow the interval of a tune's own ceiling: its width
 * now, as a natural logarithm, less the width after a clean and after a missed attempt, each by its chance. The larger, the more
 * it tells. Time O(o·d·k²) for o offers, d draws and k kinds.
 * @param offers the room of each stretch at the tempo offered
 */
export function tellsMost(
  ceilings: KindCeilings,
  learnt: LearntAbility,
  offers: readonly Margins[],
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): number[] {
  const width = (known: LearntAbility) => {
    const own = ownCeiling(ceilings, known, sdOf);
    return own ? Math.log(own.high / own.low) : 0;
  };
  const now = width(learnt);
  const likely = Object.fromEntries(learnt.kinds.map((kind, i) => [kind, learnt.middle[i]!]));
  return offers.map((margins) => {
    const chance = cleanChance(margins, likely);
    const after = (clean: boolean) => width(learntFurther(learnt, { margins, clean, weight: 1 }, sdOf));
    return now - chance * after(true) - (1 - chance) * after(false);
  });
}
