import type { TuneReport } from '#core/report';
import { MISSES_BACK } from './tempoLadder';

/** Played notes, first and last. */
export interface Stretch {
  readonly first: number;
  readonly last: number;
}

/** Rests before the transition, in dance beats: each shorter than the one before. */
export const CELL_RESTS = [2, 1, 1 / 2, 1 / 4, 0] as const;
/** Strokes of a cell. */
const LEAST_STROKES = 2;

/**
 * The smallest stretch of whole strokes around the step to a note: the stroke in which it begins or lies, and the one
 * before; within bounds, and of two strokes at least where they hold as many.
 * @param at the played note to which the step leads
 */
export function cellAround({ figures: { bowed } }: TuneReport, at: number, within: Stretch): Stretch {
  const head = (index: number) => {
    let first = index;
    while (first > within.first && bowed[first]!.inStroke > 1) first -= 1;
    return first;
  };
  const end = (index: number) => {
    let last = index;
    while (last < within.last && bowed[last + 1]!.inStroke > 1) last += 1;
    return last;
  };
  let first = head(Math.max(within.first, at - 1));
  let last = end(at);
  const strokes = () => bowed.slice(first, last + 1).filter(({ inStroke }, i) => i === 0 || inStroke === 1).length;
  if (strokes() < LEAST_STROKES && last < within.last) last = end(last + 1);
  if (strokes() < LEAST_STROKES && first > within.first) first = head(first - 1);
  return { first, last };
}

/** A stretch one stroke wider on both sides, within bounds. */
function wider({ figures: { bowed } }: TuneReport, { first, last }: Stretch, within: Stretch): Stretch {
  let [from, to] = [first, last];
  if (from > within.first) {
    from -= 1;
    while (from > within.first && bowed[from]!.inStroke > 1) from -= 1;
  }
  if (to < within.last) {
    to += 1;
    while (to < within.last && bowed[to + 1]!.inStroke > 1) to += 1;
  }
  return { first: from, last: to };
}

/** A failing step on its way back into the bite: parted by rests that shrink, then grown stroke by stroke. */
export interface Cell {
  /** The stretches that it is played in, the cell first, the bite last; beyond that with the note that follows. */
  readonly stretches: readonly Stretch[];
  /** The played note before which it is parted. */
  readonly at: number;
  /** Which rest, then which stretch. */
  readonly rest: number;
  readonly grown: number;
  readonly cleans: number;
  readonly misses: number;
  readonly isDone: boolean;
}

/** A cell around the step to a note, within a bite, and at last with the join to the note that follows the bite. */
export function beginCell(report: TuneReport, at: number, bite: Stretch): Cell {
  const stretches = [cellAround(report, at, bite)];
  for (;;) {
    const last = stretches[stretches.length - 1]!;
    const next = wider(report, last, bite);
    if (next.first === last.first && next.last === last.last) break;
    stretches.push(next);
  }
  const after = bite.last + 1;
  if (after < report.unrolled.notes.length) stretches.push({ first: bite.first, last: after });
  return { stretches, at, rest: 0, grown: 0, cleans: 0, misses: 0, isDone: false };
}

/** The rest before the step, in dance beats, and what is played. */
export function cellNow({ stretches, rest, grown }: Cell): { readonly stretch: Stretch; readonly restBeats: number } {
  return { stretch: stretches[grown]!, restBeats: CELL_RESTS[rest]! };
}

/**
 * A repetition of a cell: after a clean set the rest shrinks, and where there is none left the cell grows by a stroke on both
 * sides up to the bite and the join; two misses in a row bring back what was before.
 */
export function cellRepeated(cell: Cell, isClean: boolean, cleanInARow: number): Cell {
  if (cell.isDone) return cell;
  const cleans = isClean ? cell.cleans + 1 : 0;
  const misses = isClean ? 0 : cell.misses + 1;
  const moved = { ...cell, cleans: 0, misses: 0 };
  if (cleans >= cleanInARow) {
    if (cell.rest < CELL_RESTS.length - 1) return { ...moved, rest: cell.rest + 1 };
    if (cell.grown < cell.stretches.length - 1) return { ...moved, grown: cell.grown + 1 };
    return { ...moved, isDone: true };
  }
  if (misses >= MISSES_BACK) {
    if (cell.grown > 0) return { ...moved, grown: cell.grown - 1 };
    return { ...moved, rest: Math.max(0, cell.rest - 1) };
  }
  return { ...cell, cleans, misses };
}
