import type { Attempt } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import type { Way } from '#core/drills';
import { isSameSpan } from '../log/spans';

/** The quickest at which a stretch came out clean with the bow; null: it never did. */
export function cleanBpmOf(attempts: readonly Attempt[], span: PracticeSpan): number | null {
  const clean = attempts.filter((own) => own.clean && own.way === 'bowed' && isOf(own, span));
  return clean.length > 0 ? Math.max(...clean.map(({ bpm }) => bpm)) : null;
}

/** Ways in which a stretch came out clean. */
export function cleanWaysOf(attempts: readonly Attempt[], span: PracticeSpan): Set<Way> {
  return new Set(attempts.filter((own) => own.clean && isOf(own, span)).map(({ way }) => way));
}

const isOf = (attempt: Attempt, span: PracticeSpan): boolean => isSameSpan(attempt.span, span);
