import type { Tune } from '#core/tune';

/** Goals that the slider has, in dance beats a minute. */
export const GOAL_BPM = { min: 30, max: 240 } as const;

/** The tune with another tempo wanted, in whole beats; the same tune where it is the same. */
export function withGoal(tune: Tune, bpm: number): Tune {
  const tempoBpm = Math.min(GOAL_BPM.max, Math.max(GOAL_BPM.min, Math.round(bpm)));
  return tempoBpm === tune.tempoBpm ? tune : { ...tune, tempoBpm };
}
