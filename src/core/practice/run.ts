import type { TuneReport } from '#core/report';
import { beginCell, type Cell, cellRepeated, type Stretch } from './cell';
import { beginTempoLadder, held, type LadderWish, repeated, type TempoLadder } from './tempoLadder';

/** A stretch on its way up: the ladder, and the cell that it was taken apart into. */
export interface Run {
  readonly stretch: Stretch;
  readonly ladder: TempoLadder;
  readonly cell: Cell | null;
  /** Minutes in the cell: they are not the ladder's. */
  readonly cellMinutes: number;
  /** Something hurts: nothing goes on until the player says so. */
  readonly hurts: boolean;
}

/** Steps back to the ladder's first tempo, and misses there, after which the stretch is taken apart. */
const FAILS_BEFORE_CELL = 2;

export function beginRun(stretch: Stretch, wish: LadderWish): Run {
  return { stretch, ladder: beginTempoLadder(wish), cell: null, cellMinutes: 0, hurts: false };
}

/**
 * A repetition. While there is a cell it shrinks and grows; put together again the ladder goes on where it was. Two misses in
 * a row at the ladder's first tempo take the stretch apart around the step that is tightest.
 * @param at the played note to which that step leads; null: none is tight
 */
export function runRepeated(
  run: Run,
  isClean: boolean,
  minutes: number,
  { report, at }: { readonly report: TuneReport; readonly at: number | null },
): Run {
  if (run.hurts) return run;
  if (run.cell) {
    const cell = cellRepeated(run.cell, isClean, run.ladder.wish.cleanInARow);
    return { ...run, cell: cell.isDone ? null : cell, cellMinutes: run.cellMinutes + minutes };
  }
  const isAtStart = run.ladder.bpm <= run.ladder.wish.startBpm;
  const fails = !isClean && isAtStart && run.ladder.misses + 1 >= FAILS_BEFORE_CELL;
  const ladder = repeated(run.ladder, isClean, minutes);
  const next = { ...run, ladder };
  return fails && at !== null && !ladder.ended ? takenApart(next, report, at) : next;
}

/** The stretch taken apart around the step to a played note. */
export function takenApart(run: Run, report: TuneReport, at: number): Run {
  const within = Math.min(Math.max(at, run.stretch.first + 1), run.stretch.last);
  return run.stretch.last > run.stretch.first ? { ...run, cell: beginCell(report, within, run.stretch) } : run;
}

/** The stretch as a whole again, whatever the cell came to. */
export function putTogether(run: Run): Run {
  return { ...run, cell: null };
}

/**
 * Something hurts, or the player takes it up again: the block ends, and no ladder urges on meanwhile.
 * @param isHeld while a finger is kept out for pain the ladder stays where it is, whatever is played
 */
export function hurt(run: Run, hurts: boolean, isHeld = false): Run {
  return { ...run, hurts, ladder: held(run.ladder, hurts || isHeld) };
}

/** Stops where it is. */
export function stopped(run: Run): Run {
  return run.ladder.ended ? run : { ...run, ladder: { ...run.ladder, ended: 'stopped' } };
}
