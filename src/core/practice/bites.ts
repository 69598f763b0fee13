import { add, compare, type Fraction, fraction, memoByIdentity, multiply, subtract, toNumber, ZERO } from '#core/base';
import { loopVerdict } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { barLength, occurrencesOf } from '#core/tune';
import { phraseIndex } from '#core/twins';
import type { NewNotes } from './newNotes';
import type { Segment } from './segments';

/** Notes in a bite: what hands take in at a time. A guess. */
export const NOTES_A_BITE = 8;
/** Longest bite, in bars. */
export const LONGEST_BARS = 4;

/** What a cut costs by where it stands. Guesses. */
export const CUT_COSTS = {
  phrase: 0,
  barLine: 0.15,
  beat: 0.4,
  offBeat: 0.8,
  /** The string or the position changes across it. */
  crossing: 0.3,
  /** The bite before it flips where it is looped. */
  flips: 0.2,
} as const;

/** A cut before a note, with what it costs. */
export interface Cut {
  /** The written note before which it stands. */
  readonly before: string;
  readonly taken: boolean;
  readonly cost: number;
  readonly terms: { readonly place: number; readonly crossing: number; readonly flips: number };
}

/** A stretch of whole strokes that is learnt as one thing: played notes, first and last, the first time they are played. */
export interface Span {
  readonly segment: Segment;
  readonly first: number;
  readonly last: number;
  readonly newNotes: number;
}

export interface Cutting {
  readonly spans: readonly Span[];
  /** Every place where a cut is allowed; parts and endings are always cut and not among them. */
  readonly cuts: readonly Cut[];
  readonly objective: number;
}

/**
 * A segment cut into bites so that Σ over bites ((load - B)/B)², 0 for a bite without new notes, plus Σ over cuts of what
 * each costs is least; load counts new notes, B is the notes wanted in a bite. A cut stands before a note that begins a
 * stroke on every pass, in no tuplet and no closing swell, and at least a dance beat from any other; a bite is at most four
 * bars, where that can be.
 * Exact by dynamic programming over places of cuts, O(c²) for c places.
 * @param given notes before which it is cut, in place of the best; those where none is allowed are left out
 */
export function cutSegment(
  segment: Segment,
  report: TuneReport,
  { isNew }: Pick<NewNotes, 'isNew'>,
  { notesABite = NOTES_A_BITE, given }: { readonly notesABite?: number; readonly given?: ReadonlySet<string> } = {},
): Cutting {
  const { notes } = segment;
  const played = notes.map((index) => report.unrolled.notes[index]!);
  const count = notes.length;
  const ends = played.map(({ onset, duration }) => add(onset, duration));
  const begin = (at: number): Fraction => (at < count ? played[at]!.onset : ends[count - 1]!);
  const { beat } = report.settings;
  const longest = multiply(barLength(played[0]!.meter), fraction(LONGEST_BARS, 1));
  const length = (from: number, to: number) => subtract(begin(to), begin(from));
  const loads = [0];
  for (const { note } of played) loads.push(loads[loads.length - 1]! + (isNew.get(note.id) ? 1 : 0));
  const bite = (from: number, to: number) => {
    const load = loads[to]! - loads[from]!;
    return load === 0 ? 0 : ((load - notesABite) / notesABite) ** 2;
  };
  const flips = (from: number, to: number) =>
    !loopVerdict(report.unrolled, report.figures.bowed, notes[from]!, notes[to - 1]!).comesRound;
  const places = allowedCuts(segment, report);
  const standing = places.map((at) => cutTerms(segment, report, at));
  const isFar = (from: number, to: number) => compare(length(from, to), beat) >= 0;

  let stops: readonly number[];
  if (given) {
    // Those that stand too close to one before are left out.
    const kept: number[] = [];
    for (const at of places)
      if (given.has(played[at]!.note.id) && isFar(kept.at(-1) ?? 0, at) && isFar(at, count)) kept.push(at);
    stops = kept;
  } else stops = bestCuts() ?? [];

  function bestCuts(): number[] | null {
    const at = [0, ...places, count];
    for (const limit of [longest, null]) {
      const least = at.map((_, j) => (j === 0 ? 0 : Infinity));
      const from = at.map(() => -1);
      for (let j = 1; j < at.length; j++)
        for (let i = 0; i < j; i++) {
          if (least[i] === Infinity) continue;
          const whole = i === 0 && j === at.length - 1;
          if (!whole && !isFar(at[i]!, at[j]!)) continue;
          if (limit !== null && compare(length(at[i]!, at[j]!), limit) > 0) continue;
          const terms = standing[j - 1];
          const cut = terms ? terms.place + terms.crossing + (flips(at[i]!, at[j]!) ? CUT_COSTS.flips : 0) : 0;
          const sum = least[i]! + bite(at[i]!, at[j]!) + cut;
          if (sum < least[j]! - 1e-12) [least[j], from[j]] = [sum, i];
        }
      const last = at.length - 1;
      if (least[last] === Infinity) continue;
      const taken: number[] = [];
      for (let j = from[last]!; j > 0; j = from[j]!) taken.unshift(at[j]!);
      return taken;
    }
    return null;
  }

  const bounds = [0, ...stops, count];
  const taken = new Set(stops);
  const cuts = places.map((at, i): Cut => {
    const before = bounds.findLast((bound) => bound < at)!;
    const terms = { ...standing[i]!, flips: flips(before, at) ? CUT_COSTS.flips : 0 };
    return {
      before: played[at]!.note.id,
      taken: taken.has(at),
      cost: terms.place + terms.crossing + terms.flips,
      terms,
    };
  });
  const spans = bounds.slice(1).map((to, i): Span => {
    const from = bounds[i]!;
    return { segment, first: notes[from]!, last: notes[to - 1]!, newNotes: loads[to]! - loads[from]! };
  });
  const objective =
    bounds.slice(1).reduce((sum, to, i) => sum + bite(bounds[i]!, to), 0) +
    cuts.reduce((sum, cut) => sum + (cut.taken ? cut.cost : 0), 0);
  return { spans, cuts, objective };
}

/** Places in a segment before which it may be cut, by their number in it. */
function allowedCuts({ notes }: Segment, { unrolled, figures, settings }: TuneReport): number[] {
  const met = occurrencesOf(unrolled);
  const end = notes[notes.length - 1]!;
  const total = add(unrolled.notes[end]!.onset, unrolled.notes[end]!.duration);
  const start = unrolled.notes[notes[0]!]!.onset;
  return notes.flatMap((index, at) => {
    if (at === 0) return [];
    const { note, onset } = unrolled.notes[index]!;
    const before = unrolled.notes[notes[at - 1]!]!.note;
    const isInside =
      (note.tuplet !== undefined && !note.tuplet.first) || (before.marks?.includes('closing-swell') ?? false);
    const isHead = met.get(note.id)!.every((own) => figures.bowed[own]!.inStroke === 1);
    const isFar =
      compare(subtract(onset, start), settings.beat) >= 0 && compare(subtract(total, onset), settings.beat) >= 0;
    return isHead && !isInside && isFar ? [at] : [];
  });
}

function cutTerms({ notes }: Segment, report: TuneReport, at: number): Omit<Cut['terms'], 'flips'> {
  const { unrolled, figures, tune, settings } = report;
  const index = notes[at]!;
  const { note } = unrolled.notes[index]!;
  const place = phraseStarts(tune).has(note.id) ? CUT_COSTS.phrase : placeCost(inBar(report, index), settings.beat);
  const moves = figures.arm.crossings[index] != null || figures.moves[index]?.shift != null;
  return { place, crossing: moves ? CUT_COSTS.crossing : 0 };
}

function placeCost(at: Fraction, beat: Fraction): number {
  if (compare(at, ZERO) === 0) return CUT_COSTS.barLine;
  const beats = toNumber(at) / toNumber(beat);
  return Math.abs(beats - Math.round(beats)) < 1e-9 ? CUT_COSTS.beat : CUT_COSTS.offBeat;
}

/** Where in its bar a note begins, in whole notes; a pickup ends at the bar line. */
function inBar({ unrolled }: TuneReport, index: number): Fraction {
  const { onset, passIndex, bar } = unrolled.notes[index]!;
  const own = unrolled.bars.find((played) => played.passIndex === passIndex && played.bar === bar)!;
  const lead = own.isPickup ? subtract(barLength(own.meter), own.duration) : ZERO;
  return add(subtract(onset, own.onset), lead);
}

/** First notes of phrases. */
const phraseStarts = memoByIdentity(
  (tune: TuneReport['tune']): ReadonlySet<string> =>
    new Set(phraseIndex(tune).map(({ beginning }) => beginning[0]!.id)),
);
