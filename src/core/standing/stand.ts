import type { BeatsPerMinute } from '#core/base';
import type { TuneReport } from '#core/report';
import { occurrencesOf } from '#core/tune';
import { type Change, changesAt, goTogether, reportWith, spotCeiling, type TightSpot, tightSpots } from './changes';

/** The smallest set of changes that lets a tune stand at a tempo. */
export interface Standing {
  readonly reached: boolean;
  readonly changes: readonly Change[];
  /** Of the tune with them; null above all tempos. */
  readonly ceilingBpm: BeatsPerMinute | null;
  readonly comesRound: boolean;
  /** No smaller set and none that takes less does it; false where the search was given up before it could tell. */
  readonly isProven: boolean;
  /** Reports counted. */
  readonly tried: number;
  /** What still binds below the wished tempo. */
  readonly stays: TightSpot | null;
}

export interface StandOptions {
  /** Reports after which the search is given up with the best it has. */
  readonly mostTrials?: number;
  /** Told after each of them. */
  readonly onTrial?: (tried: number) => void;
}

const MAX_TRIALS = 4000;
/** Nobody takes in more changes than this at once. */
const MAX_CHANGES = 16;
/** A ceiling within this share of the wished tempo is the wished tempo. */
const NEAR = 1e-9;

/**
 * Finds the changes, out of those that help a place by themselves, that lift a tune's ceiling to `bpm`: as few as can be;
 * among equally few a set with which the tune still comes round, if it does now; among those the one that takes least.
 *
 * Iterative deepening over the number of changes. In each state the lowest place below the tempo must be touched by some
 * further change of the set, so only those are branched over; a state is left when the places that no single change
 * touches two of need more changes than are left, or cost more than the best found. Exact unless given up. Each state
 * costs a report, O(n).
 */
export function makeItStand(report: TuneReport, bpm: BeatsPerMinute, options: StandOptions = {}): Standing {
  const { mostTrials = MAX_TRIALS, onTrial } = options;
  let tried = 0;
  const countTrial = () => {
    tried += 1;
    onTrial?.(tried);
  };
  const count = (changes: readonly Change[]): TuneReport => {
    countTrial();
    return changes.length === 0 ? report : reportWith(report, changes);
  };
  const pool = new Pool(report, bpm, countTrial);
  const keepsRound = report.figures.ledger.comesRound;
  let best: { changes: readonly Change[]; report: TuneReport; cost: number } | null = null;
  let highest: { changes: readonly Change[]; report: TuneReport } = { changes: [], report };
  let isGivenUp = false;

  const search = (chosen: readonly Change[], left: number, cost: number, seen: Set<string>): void => {
    if (tried >= mostTrials) {
      isGivenUp = true;
      return;
    }
    const key = chosen
      .map((change) => change.key)
      .sort()
      .join('|');
    if (seen.has(key)) return;
    seen.add(key);
    const now = count(chosen);
    const failing = tightSpots(now, bpm * (1 - NEAR));
    if (ceilingOf(now) > ceilingOf(highest.report)) highest = { changes: chosen, report: now };
    if (failing.length === 0) {
      const total = cost + (keepsRound && !now.figures.ledger.comesRound ? ROUND_LOST : 0);
      if (!best || total < best.cost) best = { changes: chosen, report: now, cost: total };
      return;
    }
    if (left === 0) return;
    const bound = boundOf(failing, (place) => pool.touching(now, place, chosen));
    if (bound.count > left || (best !== null && cost + bound.cost >= best.cost)) return;
    for (const change of pool.touching(now, failing[0]!, chosen))
      search([...chosen, change], left - 1, cost + change.cost, seen);
  };

  const failing = tightSpots(report, bpm * (1 - NEAR));
  const helpless = failing.find((place) => pool.touching(report, place, []).length === 0) ?? null;
  for (let size = 0; size <= MAX_CHANGES && !best && !isGivenUp && !helpless; size++) search([], size, 0, new Set());
  const found = best as { changes: readonly Change[]; report: TuneReport } | null;
  const end = found ?? highest;
  return {
    reached: found !== null,
    changes: end.changes,
    ceilingBpm: end.report.figures.check.ceiling?.ceilingBpm ?? null,
    comesRound: end.report.figures.ledger.comesRound,
    isProven: found !== null && !isGivenUp,
    tried,
    stays: found ? null : (helpless ?? tightSpots(end.report, bpm * (1 - NEAR))[0] ?? null),
  };
}

/** More than all that any set of changes may cost. */
const ROUND_LOST = 1000;

function ceilingOf({ figures }: TuneReport): number {
  return figures.check.ceiling?.ceilingBpm ?? Infinity;
}

/**
 * Changes and cost that are needed at least: of the failing places, lowest first, those of which no change touches two.
 */
function boundOf(
  failing: readonly TightSpot[],
  touching: (place: TightSpot) => readonly Change[],
): { count: number; cost: number } {
  const used = new Set<string>();
  let [count, cost] = [0, 0];
  for (const place of failing) {
    const changes = touching(place);
    if (changes.some(({ key }) => used.has(key))) continue;
    count += 1;
    let least = Infinity;
    for (const change of changes) {
      used.add(change.key);
      least = Math.min(least, change.cost);
    }
    cost += least;
  }
  return { count, cost };
}

/** The changes that are chosen from: those that lift some place that fails, made by themselves. */
export class Pool {
  readonly changes: readonly Change[];

  constructor(report: TuneReport, bpm: BeatsPerMinute, onTrial: () => void = () => undefined) {
    const found = new Map<string, Change>();
    for (const place of tightSpots(report, bpm * (1 - NEAR)))
      for (const change of changesAt(report, place)) {
        if (found.has(change.key)) continue;
        onTrial();
        if (spotCeiling(reportWith(report, [change]), place) > place.ceilingBpm + 1e-6) found.set(change.key, change);
      }
    this.changes = [...found.values()].sort((a, b) => a.cost - b.cost);
  }

  /** Those not chosen yet that may change something about a place as it is now, and go with what is chosen. */
  touching(now: TuneReport, place: TightSpot, chosen: readonly Change[]): Change[] {
    const near = idsNear(now, place.id);
    return this.changes.filter(
      (change) => near.has(change.id) && chosen.every((other) => other.key !== change.key && goTogether(other, change)),
    );
  }
}

/** Notes whose changes reach a place: those of its stroke as it is now, and one before and after, wherever it is played. */
function idsNear({ unrolled, figures }: TuneReport, id: string): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const index of occurrencesOf(unrolled).get(id) ?? []) {
    let from = index;
    while (from > 0 && figures.bowed[from]!.inStroke > 1) from -= 1;
    let to = index;
    while (to + 1 < unrolled.notes.length && figures.bowed[to + 1]!.inStroke > 1) to += 1;
    for (let i = Math.max(0, from - 1); i <= Math.min(unrolled.notes.length - 1, to + 1); i++)
      ids.add(unrolled.notes[i]!.note.id);
  }
  return ids;
}
