import type { PlayerAbility } from '#contract/ability';
import { type Ability, abilityOf } from '#core/ability';

/** The most likely of what is known of the player, for chances; null: nothing is. */
export function likelyAbility({ attempts, kinds }: PlayerAbility): Ability | null {
  return attempts > 0 ? abilityOf(kinds) : null;
}
