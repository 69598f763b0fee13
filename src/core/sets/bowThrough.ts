import type { Seconds } from '#core/base';
import { opposite } from '#core/bowing';
import { reportTune, type TuneReport } from '#core/report';
import type { Direction } from '#core/tune';

/** What the bow does on a tune that is played several times through. */
export interface BowThrough {
  /** Each time through as it is bowed: those that begin alike are one report. */
  readonly times: readonly TuneReport[];
  /** The very first stroke, and the very last; null for a tune without notes. */
  readonly first: Direction | null;
  readonly last: Direction | null;
  readonly seconds: Seconds;
}

/**
 * A tune `count` times through. Each time begins as the one before leaves off: a tune that does not come round begins every
 * second time the other way, with all that follows from it, locks included.
 * Time that of two reports at most.
 */
export function bowThrough(report: TuneReport, count: number): BowThrough {
  const { tune, settings } = report;
  const direction = report.figures.start.direction;
  const byStart = new Map<Direction, TuneReport>([[direction, report]]);
  const times: TuneReport[] = [];
  let begins = direction;
  for (let i = 0; i < count; i++) {
    let played = byStart.get(begins);
    if (!played) byStart.set(begins, (played = reportTune(tune, { ...settings, start: begins })));
    times.push(played);
    if (!played.figures.ledger.comesRoundAgain) begins = opposite(begins);
  }
  return {
    times,
    first: times[0]?.figures.bowed[0]?.bow ?? null,
    last: times[times.length - 1]?.figures.bowed.at(-1)?.bow ?? null,
    seconds: times.reduce((sum, { timing }) => sum + timing.total, 0),
  };
}
