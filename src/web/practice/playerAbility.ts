import type { Attempt } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import { type Ability, abilityOf, type JudgedAttempt, judgedIn, learnAbility } from '#core/ability';
import type { Way } from '#core/drills';
import type { TuneReport } from '#core/report';
import { isSameSpan } from '../log/spans';

/** Attempts with the bow, of stretches of the tune itself, judged by its plan. */
export function judgedOf(report: TuneReport, attempts: readonly Attempt[], now: number): JudgedAttempt[] {
  const own = attempts.filter(
    ({ what, way, layer, pain }) => what !== 'drill' && way === 'bowed' && layer === 'tempo' && pain === null,
  );
  return judgedIn(
    report,
    own.map(({ at, span, bpm, clean }) => ({ at: Date.parse(at), span, bpm, clean })),
    now,
  );
}

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

/** What attempts say of the player; null: there is none to say it. */
export function abilityFrom(judged: readonly JudgedAttempt[]): Ability | null {
  return judged.length > 0 ? abilityOf(learnAbility(judged)) : null;
}
