import type { Landmark } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';

/** Whether two stretches are the same written notes. */
export function isSameSpan(a: PracticeSpan, b: PracticeSpan): boolean {
  return a.part === b.part && a.from === b.from && a.to === b.to;
}

/** What a player calls a stretch; undefined: it has no name of its own. */
export function landmarkOf(landmarks: readonly Landmark[], span: PracticeSpan): Landmark | undefined {
  return landmarks.find((landmark) => isSameSpan(landmark, span));
}
