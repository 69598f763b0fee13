import { type Ability, cleanChance, marginsOf } from '#core/ability';
import type { TuneReport } from '#core/report';
import type { Bite, PracticePlan } from './practicePlan';

export const ITEM_KINDS = ['warm-up', 'review', 'weakest', 'new', 'join', 'run-through'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];

/** Something that could be practised. */
export interface Candidate {
  readonly what: Exclude<ItemKind, 'warm-up' | 'run-through'>;
  /** The bite, or the one after a join. */
  readonly bite: string;
  /** The bite before a join. */
  readonly joins?: string;
  /** Share of the playing time that hangs on it. */
  readonly share: number;
  /** The chance that it comes out clean at the tempo wanted, or that it is still known. */
  readonly chance: number;
  /** share · (1 - chance). */
  readonly value: number;
}

export interface SessionItem<C extends Candidate = Candidate> {
  readonly what: ItemKind;
  readonly candidate: C | null;
  readonly minutes: number;
  /** A body check comes first: the block before it is over. */
  readonly checksBefore: boolean;
}

export interface Session<C extends Candidate = Candidate> {
  readonly minutes: number;
  readonly items: readonly SessionItem<C>[];
  /** What there were no minutes for. */
  readonly left: readonly C[];
  /** Σ over items of what their minutes are worth. */
  readonly worth: number;
}

/** What is known of a player and a tune. */
export interface PracticeHistory {
  /** Bites that were practised before, by id. */
  readonly met: ReadonlySet<string>;
  readonly ability: Ability;
  /** Bites whose day has come, with the chance that they are still known. */
  readonly due: readonly { readonly bite: string; readonly recall: number }[];
}

export const NO_HISTORY: PracticeHistory = { met: new Set(), ability: {}, due: [] };

/** Minutes that an item is given. */
export const ITEM_MINUTES = [3, 5, 8] as const;
/** Minutes after which most of what an item gives is had: worth = value · (1 - e^(-minutes/5)). A guess. */
const WORTH_MINUTES = 5;
/** Most bites that are new on one day. */
const MAX_NEW = 2;
/** The most of a session that is warm-up, and of minutes. */
const WARM_UP_SHARE = 1 / 5;
const MAX_WARM_UP = 5;
const RUN_THROUGH_MINUTES = 3;
/** Shorter sessions have no run-through. */
const RUN_THROUGH_FROM = 12;
/** Longest stretch without a body check, in minutes. */
export const BLOCK_MINUTES = 10;

export const worthOf = (value: number, minutes: number): number => value * (1 - Math.exp(-minutes / WORTH_MINUTES));

/** The chance that a bite comes out clean at the report's tempo. */
export function biteChance(bite: Pick<Bite, 'first' | 'last'>, report: TuneReport, ability: Ability): number {
  return cleanChance(marginsOf(report, bite.first, bite.last), ability);
}

/**
 * What could be practised of a tune: reviews whose day has come, the bite with most at stake among those met before, the next
 * new ones in the order in which it is learnt, and joins between bites that are both met.
 */
export function candidatesOf(
  plan: PracticePlan,
  report: TuneReport,
  order: readonly string[],
  history: PracticeHistory,
): Candidate[] {
  const byId = new Map(plan.bites.map((bite) => [bite.id, bite]));
  const made = (what: Candidate['what'], bite: Bite, chance: number, joins?: Bite): Candidate => {
    const share = joins ? (bite.share + joins.share) / 2 : bite.share;
    return { what, bite: bite.id, ...(joins ? { joins: joins.id } : {}), share, chance, value: share * (1 - chance) };
  };
  const due = history.due.flatMap(({ bite, recall }) => {
    const own = byId.get(bite);
    return own ? [made('review', own, recall)] : [];
  });
  const isDue = new Set(due.map(({ bite }) => bite));
  const met = plan.bites
    .filter(({ id }) => history.met.has(id) && !isDue.has(id))
    .map((bite) => made('weakest', bite, biteChance(bite, report, history.ability)))
    .sort((a, b) => b.value - a.value);
  const fresh = order
    .filter((id) => !history.met.has(id) && (byId.get(id)?.newNotes ?? 0) > 0)
    .map((id) => made('new', byId.get(id)!, biteChance(byId.get(id)!, report, history.ability)));
  const joins = plan.joins
    .filter(({ from, to }) => history.met.has(from) && history.met.has(to))
    .map(({ from, to }) => {
      const [before, after] = [byId.get(from)!, byId.get(to)!];
      // The step itself: the last note of the one and the first of the other.
      const chance = cleanChance(marginsOf(report, before.last, after.first), history.ability);
      return made('join', after, chance, before);
    });
  return [...due, ...met.slice(0, 1), ...fresh.slice(0, MAX_NEW), ...joins];
}

/**
 * A session of so many minutes: a warm-up of at most a fifth, a run-through where there is time and something to run, and of
 * the candidates those minutes (3, 5 or 8 each, or none) for which Σ value · (1 - e^(-minutes/5)) is most.
 * Exact by dynamic programming over minutes, O(c·m) for c candidates and m minutes. A body check comes before an item that
 * would make a block longer than ten minutes.
 */
export function sessionOf<C extends Candidate>(candidates: readonly C[], minutes: number): Session<C> {
  const warmUp = Math.min(MAX_WARM_UP, Math.floor(minutes * WARM_UP_SHARE));
  const hasRun = minutes >= RUN_THROUGH_FROM && candidates.some(({ what }) => what !== 'new');
  const run = hasRun ? RUN_THROUGH_MINUTES : 0;
  const { chosen, worth } = bestMinutes(candidates, Math.max(0, Math.floor(minutes) - warmUp - run));
  const sorted = candidates
    .map((candidate, i) => ({ candidate, minutes: chosen[i]! }))
    .filter((item) => item.minutes > 0)
    .sort((a, b) => ITEM_KINDS.indexOf(a.candidate.what) - ITEM_KINDS.indexOf(b.candidate.what));
  const items: Omit<SessionItem<C>, 'checksBefore'>[] = [
    ...(warmUp > 0 ? [{ what: 'warm-up' as const, candidate: null, minutes: warmUp }] : []),
    ...sorted.map((item) => ({ what: item.candidate.what, ...item })),
    ...(run > 0 ? [{ what: 'run-through' as const, candidate: null, minutes: run }] : []),
  ];
  let block = 0;
  return {
    minutes: items.reduce((sum, item) => sum + item.minutes, 0),
    items: items.map((item) => {
      const checksBefore = block > 0 && block + item.minutes > BLOCK_MINUTES;
      block = checksBefore ? item.minutes : block + item.minutes;
      return { ...item, checksBefore };
    }),
    left: candidates.filter((_, i) => chosen[i] === 0),
    worth,
  };
}

/** Minutes of each candidate that are worth most together. */
function bestMinutes(candidates: readonly Candidate[], room: number): { chosen: number[]; worth: number } {
  let worth = new Float64Array(room + 1);
  const choices: Uint8Array[] = [];
  for (const { value } of candidates) {
    const next = worth.slice();
    const choice = new Uint8Array(room + 1);
    for (let left = 0; left <= room; left++)
      for (const minutes of ITEM_MINUTES) {
        if (minutes > left) break;
        const sum = worth[left - minutes]! + worthOf(value, minutes);
        if (sum > next[left]! + 1e-12) [next[left], choice[left]] = [sum, minutes];
      }
    choices.push(choice);
    worth = next;
  }
  let left = room;
  const chosen = candidates.map(() => 0);
  for (let i = candidates.length - 1; i >= 0; i--) {
    chosen[i] = choices[i]![left]!;
    left -= chosen[i]!;
  }
  return { chosen, worth: worth[room] ?? 0 };
}
