import type { LogFile } from '#contract/practice';
import { type JudgedAttempt, judgedIn, type Margins, weightOf } from '#core/ability';
import type { TuneReport } from '#core/report';

const DAY_MS = 86_400_000;

/**
 * Attempts of a log with the room that each left: as they say themselves, else as their tune among those at hand does. Days
 * count from the last attempt: the same log gives the same answer on every day. What ended because it hurt says nothing of
 * what the player can do.
 * @returns `unknown`: attempts that neither say it nor have their tune or stretch there
 */
export function judgedLog(
  { attempts }: LogFile,
  reports: readonly TuneReport[],
): { readonly judged: readonly JudgedAttempt[]; readonly unknown: number } {
  const own = attempts
    .filter(({ pain }) => !pain)
    .map(({ at, tune, span, bpm, clean, margins }) => ({
      tune,
      logged: { at: Date.parse(at), span, bpm, clean, ...(margins ? { margins: margins as Margins } : {}) },
    }));
  const last = Math.max(0, ...own.map(({ logged }) => logged.at));
  const byTitle = new Map(reports.map((report) => [report.tune.title, report]));
  const judged = [...new Set(own.map(({ tune }) => tune))].flatMap((title) => {
    const report = byTitle.get(title);
    const logged = own.flatMap((row) => (row.tune === title ? row.logged : []));
    if (report) return judgedIn(report, logged, last);
    return logged.flatMap(({ at, clean, margins }): JudgedAttempt[] =>
      margins ? [{ margins, clean, weight: weightOf((last - at) / DAY_MS) }] : [],
    );
  });
  return { judged, unknown: own.length - judged.length };
}
