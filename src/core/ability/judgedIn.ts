import type { TuneReport } from '#core/report';
import { playedStretch } from '#core/tune';
import { weightOf } from './learnAbility';
import type { JudgedAttempt } from './likelihood';
import { type Margins, marginsAt, marginsOf } from './margins';

/** An attempt as it is logged. */
export interface LoggedAttempt {
  /** Milliseconds since 1970. */
  readonly at: number;
  /** Written notes, first and last. */
  readonly span: { readonly from: string; readonly to: string };
  /** In the tune's dance beat. */
  readonly bpm: number;
  readonly clean: boolean;
  /** Where they were counted already. */
  readonly margins?: Margins;
}

const DAY_MS = 86_400_000;

/**
 * Attempts at stretches of a tune with the room that its plan leaves there now. Stretches that the plan has no more are left out,
 * unless their margins are given. Time O(n) for each stretch that differs.
 * @param now milliseconds since 1970
 */
export function judgedIn(report: TuneReport, attempts: readonly LoggedAttempt[], now: number): JudgedAttempt[] {
  const known = new Map<string, Margins | null>();
  const marginsIn = (span: LoggedAttempt['span']): Margins | null => {
    const key = `${span.from} ${span.to}`;
    let margins = known.get(key);
    if (margins === undefined) {
      const stretch = playedStretch(report.unrolled, span);
      margins = stretch && marginsOf(report, stretch.first, stretch.last);
      known.set(key, margins);
    }
    return margins;
  };
  return attempts.flatMap(({ at, span, bpm, clean, margins: given }): JudgedAttempt[] => {
    const own = given === undefined ? marginsIn(span) : null;
    const margins = given ?? (own && marginsAt(own, report.settings.bpm, bpm));
    return margins ? [{ margins, clean, weight: weightOf((now - at) / DAY_MS) }] : [];
  });
}
