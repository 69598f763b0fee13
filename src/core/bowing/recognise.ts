import type { Fraction } from '#core/base';
import { barNumbers, isCompound, type Link, type Meter, type Tune, writtenBars } from '#core/tune';
import { type GridNote, gridNotes, gridUnit, patternOnGrid } from './applyPattern';
import { PATTERNS } from './patterns';

/** Neighbour bars of a part that one pattern of the library gives; null where none does. */
export interface PatternRun {
  readonly part: string;
  readonly pattern: string | null;
  readonly barIds: readonly string[];
  /** Numbers as on the page; 0 is a pickup. */
  readonly from: number;
  readonly to: number;
}

/**
 * Names the patterns that a tune, or one part of it, already follows, bar by bar. A bar follows a pattern where each of its notes has the
 * link that the pattern would give it; of several that fit, the one that fits the longest run of bars about it wins, and
 * then the first of the library. Patterns of another kind of meter are not looked at; bars without two notes follow none.
 * Time O(n·p) for n notes and p patterns.
 */
export function recognisePatterns(tune: Tune, part?: string, unit: Fraction = gridUnit(tune)): PatternRun[] {
  const grid = gridNotes(tune, unit, part);
  const spans = new Map<string, Span>();
  let at = 0;
  const written = [...writtenBars(tune)].filter(([name]) => part === undefined || name === part);
  for (const { event, events } of written.flatMap(([, bars]) => bars)) {
    const from = at;
    for (const { kind } of events) if (kind === 'note') at += 1;
    spans.set(event.id, { from, to: at });
  }
  const meters = written.flatMap(([, bars]) => bars).map(({ meter }) => meter);
  const laid = PATTERNS.filter((pattern) => meters.some((meter) => sameKind(pattern.meter, meter))).map((pattern) => ({
    pattern,
    linkOf: patternOnGrid(grid, pattern),
  }));
  return written.flatMap(([name, bars]): PatternRun[] => {
    const fits = laid.map(({ pattern, linkOf }) =>
      runLengths(
        bars.map(({ event, meter }) => sameKind(pattern.meter, meter) && follows(grid, spans.get(event.id)!, linkOf)),
      ),
    );
    const names = bars.map((_, i) => {
      const longest = Math.max(0, ...fits.map((lengths) => lengths[i]!));
      return longest === 0 ? null : laid[fits.findIndex((lengths) => lengths[i] === longest)]!.pattern.name;
    });
    const numbers = barNumbers(bars, tune.form.filter((played) => played === name).length);
    const runs: { part: string; pattern: string | null; bars: number[] }[] = [];
    for (const [i, pattern] of names.entries()) {
      const open = runs[runs.length - 1];
      if (open?.pattern === pattern) open.bars.push(i);
      else runs.push({ part: name, pattern, bars: [i] });
    }
    const numberOf = (i: number) => numbers.get(bars[i]!.event.id) ?? i + 1;
    return runs.map(({ pattern, bars: members }) => ({
      part: name,
      pattern,
      barIds: members.map((i) => bars[i]!.event.id),
      from: numberOf(members[0]!),
      to: numberOf(members[members.length - 1]!),
    }));
  });
}

/** A bar's notes on the grid: from one up to, not including, another. */
interface Span {
  readonly from: number;
  readonly to: number;
}

/** Whether all notes of a bar, two at least, have the links of a pattern. */
function follows(grid: readonly GridNote[], { from, to }: Span, linkOf: (i: number) => Link): boolean {
  for (let i = from; i < to; i++) {
    const { note } = grid[i]!;
    if (note.linkOnPass || linkOf(i) !== note.link) return false;
  }
  return to - from > 1;
}

function sameKind(a: Meter, b: Meter): boolean {
  if (isCompound(a) !== isCompound(b)) return false;
  return isCompound(a) || (a.num % 3 === 0) === (b.num % 3 === 0);
}

/** For each place the length of the run of true about it; 0 where it is false. */
function runLengths(fits: readonly boolean[]): number[] {
  const lengths = fits.map(() => 0);
  for (let from = 0; from < fits.length;) {
    let to = from;
    while (fits[to]) to += 1;
    for (let i = from; i < to; i++) lengths[i] = to - from;
    from = Math.max(to, from + 1);
  }
  return lengths;
}
