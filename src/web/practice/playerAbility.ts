import type { Attempt } from '#contract/log';
import type { PracticeSpan } from '#contract/practice';
import { type Ability, abilityOf, type JudgedAttempt, judgedIn, learnAbility } from '#core/ability';
import type { TuneReport } from '#core/report';

/** Attempts with the bow, of stretches of the tune itself, judged by its plan. */
export function judgedOf(report: TuneReport, attempts: readonly Attempt[], now: number): JudgedAttempt[] {
  const own = attempts.filter(({ what, way, layer }) => what !== 'drill' && way === 'bowed' && layer === 'tempo');
  return judgedIn(
    report,
    own.map(({ at, span, bpm, clean }) => ({ at: Date.parse(at), span, bpm, clean })),
    now,
  );
}

/** The quickest at which a stretch came out clean with the bow; null: it never did. */
export function cleanBpmOf(attempts: readonly Attempt[], { part, from, to }: PracticeSpan): number | null {
  const clean = attempts.filter(
    ({ span, clean: isClean, way }) =>
      isClean && way === 'bowed' && span.part === part && span.from === from && span.to === to,
  );
  return clean.length > 0 ? Math.max(...clean.map(({ bpm }) => bpm)) : null;
}

/** What attempts say of the player; null: there is none to say it. */
export function abilityFrom(judged: readonly JudgedAttempt[]): Ability | null {
  return judged.length > 0 ? abilityOf(learnAbility(judged)) : null;
}
