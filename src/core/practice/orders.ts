import { toNumber } from '#core/base';
import type { TuneReport } from '#core/report';
import { type Bite, notesOf, type PracticePlan } from './practicePlan';

/** In which order bites are learnt; teachers differ. */
export const BITE_ORDERS = ['start', 'most', 'hardest', 'end'] as const;
export type BiteOrder = (typeof BITE_ORDERS)[number];

/** What of the tune can be played after a step. */
export interface CoverageStep {
  readonly bite: string;
  /** Notes learnt in this step. */
  readonly newNotes: number;
  /** Share of the playing time that is known then. */
  readonly total: number;
}

export interface LearningOrder {
  readonly order: readonly string[];
  readonly coverage: readonly CoverageStep[];
}

/** Bites as the notes to be learnt in them, as numbers, and the share of playing time that each note unlocks. */
interface Notes {
  readonly bites: readonly (readonly number[])[];
  readonly shares: readonly number[];
}

/**
 * The bites in an order. `start`: as they stand; `end`: from the last to the first; `hardest`: lowest ceiling first; `most`:
 * at each step the bite that unlocks most playing time per new note, with all that is like it elsewhere in the tune.
 * A bite in which nothing is left to learn comes as soon as that is so. Ties go to the earlier one. Time O(b² n).
 */
export function learningOrder(plan: PracticePlan, report: TuneReport, order: BiteOrder): LearningOrder {
  const notes = notesIn(plan, report);
  const { bites } = plan;
  const at = (bite: Bite) => bite.ceilingBpm ?? Infinity;
  const byOrder: Record<BiteOrder, () => number[]> = {
    start: () => bites.map((_, i) => i),
    end: () => bites.map((_, i) => bites.length - 1 - i),
    hardest: () => bites.map((_, i) => i).sort((a, b) => at(bites[a]!) - at(bites[b]!) || a - b),
    most: () => greedyOrder(notes),
  };
  const places = byOrder[order]();
  return { order: places.map((i) => bites[i]!.id), coverage: coverageOf(places, bites, notes) };
}

/**
 * How much is known on average while the tune is learnt in an order: the area under the share of playing time that is known
 * against notes learnt, 0 to 1. Of two orders the one with the larger area lets more be played sooner.
 */
export function learningArea(coverage: readonly CoverageStep[]): number {
  let [known, area, learnt] = [0, 0, 0];
  for (const { newNotes, total } of coverage) {
    area += known * newNotes;
    learnt += newNotes;
    known = total;
  }
  return learnt > 0 ? area / learnt : 1;
}

/** Most bites for which every order is weighed: 2^b sets of them. */
export const MAX_EXACT_BITES = 14;

/**
 * The largest area that any order has, by dynamic programming over the sets of bites that are known: the area after a set
 * does not hang on the order in which it was learnt. O(2^b · b). Beyond `MAX_EXACT_BITES` bites a bound that no order
 * exceeds: as if every note could be learnt by itself, the ones that unlock most first.
 */
export function bestLearningArea(
  plan: PracticePlan,
  report: TuneReport,
): { readonly area: number; readonly isExact: boolean } {
  const notes = notesIn(plan, report);
  const count = notes.bites.length;
  const learnt = new Set(notes.bites.flat()).size;
  if (learnt === 0) return { area: 1, isExact: true };
  if (count > MAX_EXACT_BITES) {
    const sorted = [...new Set(notes.bites.flat())].map((note) => notes.shares[note]!).sort((a, b) => b - a);
    let [known, area] = [0, 0];
    for (const share of sorted) {
      area += known;
      known += share;
    }
    return { area: area / learnt, isExact: false };
  }
  const best = new Float64Array(1 << count).fill(-1);
  best[0] = 0;
  for (let set = 0; set < 1 << count; set++) {
    if (best[set]! < 0) continue;
    const known = new Set(notes.bites.filter((_, i) => set & (1 << i)).flat());
    const share = [...known].reduce((sum, note) => sum + notes.shares[note]!, 0);
    for (const [i, bite] of notes.bites.entries()) {
      if (set & (1 << i)) continue;
      const more = bite.filter((note) => !known.has(note)).length;
      const next = set | (1 << i);
      best[next] = Math.max(best[next]!, best[set]! + share * more);
    }
  }
  return { area: best[(1 << count) - 1]! / learnt, isExact: true };
}

function notesIn(plan: PracticePlan, report: TuneReport): Notes {
  const { model } = plan.learnt;
  const numbers = new Map<string, number>();
  const shares: number[] = [];
  const numberOf = (id: string): number => {
    const own = model.get(id)!;
    let number = numbers.get(own);
    if (number === undefined) {
      numbers.set(own, (number = shares.length));
      shares.push(0);
    }
    return number;
  };
  const { notes } = report.unrolled;
  const all = notes.reduce((sum, { duration }) => sum + toNumber(duration), 0);
  for (const { note, duration } of notes) {
    const number = numberOf(note.id);
    shares[number] = shares[number]! + toNumber(duration) / all;
  }
  return { bites: plan.bites.map((bite) => [...new Set(notesOf(bite, report).map(numberOf))]), shares };
}

function greedyOrder({ bites, shares }: Notes): number[] {
  const known = new Set<number>();
  const left = new Set(bites.keys());
  const order: number[] = [];
  while (left.size > 0) {
    let [best, gain] = [-1, -1];
    for (const i of left) {
      const more = bites[i]!.filter((note) => !known.has(note));
      const own = more.length === 0 ? Infinity : more.reduce((sum, note) => sum + shares[note]!, 0) / more.length;
      if (own > gain + 1e-12) [best, gain] = [i, own];
    }
    left.delete(best);
    order.push(best);
    for (const note of bites[best]!) known.add(note);
  }
  return order;
}

function coverageOf(places: readonly number[], bites: readonly Bite[], { bites: held, shares }: Notes): CoverageStep[] {
  const known = new Set<number>();
  let total = 0;
  return places.map((i) => {
    const more = held[i]!.filter((note) => !known.has(note));
    for (const note of more) {
      known.add(note);
      total += shares[note]!;
    }
    return { bite: bites[i]!.id, newNotes: more.length, total: Math.min(1, total) };
  });
}
