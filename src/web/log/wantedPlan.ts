import type { TunePractice } from '#contract/log';
import { type PracticePlan, practicePlan } from '#core/practice';
import type { TuneReport } from '#core/report';

/** A tune in bites as its player wants them: by own cuts, else the best. */
export function wantedPlan(
  report: TuneReport,
  { notesABite, cuts }: Pick<TunePractice, 'notesABite' | 'cuts'>,
): PracticePlan {
  return practicePlan(report, { notesABite, ...(cuts ? { given: new Set(cuts) } : {}) });
}
