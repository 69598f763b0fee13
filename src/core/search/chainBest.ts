import { opposite, staysInStroke } from '#core/bowing';
import type { Direction } from '#core/tune';
import { type Choice, CHOICES, type SearchModel } from './model';
import { MAX_IN_STROKE } from './wishes';

const DIRECTIONS: readonly Direction[] = ['down', 'up'];
const [CHANGE, SLUR, HOOK, RETAKE] = [0, 1, 2, 3] as const;

/** One bowing of a chain. */
export interface ChainBowing {
  /** In whole millionths of a point, all playings counted. */
  readonly cost: number;
  /** Direction of its first note. */
  readonly bow: Direction;
  readonly links: readonly Choice[];
}

/** The costs of a chain with all its playings summed; `[note][choice][direction]` and so on. */
export interface ChainTable {
  readonly length: number;
  readonly choices: readonly (readonly Choice[])[];
  /** `note[(k·4 + choice)·2 + direction]`. */
  readonly note: Float64Array;
  /** Cost and cell after the stroke of n notes that ends before note k: at `strokeIndex`. */
  readonly stroke: Float64Array;
  readonly cell: Uint8Array;
  readonly home: readonly [number, number];
  readonly cells: number;
}

/**
 * Sums the costs of a chain once, so that searches with other penalties need not count them again.
 * @param like the same chain's table under another template, which changes nothing of its strokes
 */
export function chainTable(model: SearchModel, chain: number, like?: ChainTable): ChainTable {
  const { starts, length } = model.chains[chain]!;
  const { cells } = model;
  const choices = Array.from({ length }, (_, k) => model.choicesAt(chain, k));
  const note = new Float64Array(length * 8);
  for (let k = 0; k < length; k++)
    for (const choice of choices[k]!)
      for (const [d, bow] of DIRECTIONS.entries())
        note[(k * 4 + CHOICES.indexOf(choice)) * 2 + d] = starts.reduce(
          (sum, start) => sum + sumOf(model.noteTerms(start + k, choice, bow)),
          0,
        );
  if (like) return { ...like, note };
  const size = (length + 1) * MAX_IN_STROKE * 2 * cells;
  const stroke = new Float64Array(size);
  const cell = new Uint8Array(size);
  for (let end = 1; end <= length; end++)
    for (let count = 1; count <= Math.min(MAX_IN_STROKE, end); count++) {
      const timed = starts.reduce((sum, start) => sum + sumOf(model.strokeTerms(start + end - count, count)), 0);
      for (const [d, bow] of DIRECTIONS.entries())
        for (let c = 0; c < cells; c++) {
          const landing = model.land(starts[0]! + end - count, count, bow, c, end === length);
          const at = strokeIndex(cells, end, count, d, c);
          stroke[at] = timed + starts.length * landing.cost;
          cell[at] = landing.cell;
        }
    }
  return { length, choices, note, stroke, cell, home: [model.home('down'), model.home('up')], cells };
}

function sumOf(terms: object): number {
  let sum = 0;
  for (const cost of Object.values(terms) as number[]) sum += cost;
  return sum;
}

const strokeIndex = (cells: number, end: number, count: number, d: number, c: number) =>
  ((end * MAX_IN_STROKE + count - 1) * 2 + d) * cells + c;

/**
 * The K best bowings of a chain for each direction of its first note and of its last, `best[bow][exit]`.
 *
 * Dynamic programming from the end: the state before note k is the direction of the bow, the notes in the stroke and
 * the cell in which the stroke began; `value[k][state]` lists the K least costs of all that is still to come. Note k
 * stays in the stroke, or ends it (which moves the bow to its next cell) and begins another. Ties go to the earlier of
 * `CHOICES` at the first note that differs, since lists are merged in that order.
 * @param penalty added to a note's choice: `penalty(k, choice)`, in whole millionths
 * Time O(n·m·c·K) for n notes, m notes in a stroke at most and c cells; memory the same.
 */
export function bestOfChain(
  table: ChainTable,
  count: number,
  penalty: (k: number, choice: Choice) => number = () => 0,
): ChainBowing[][][] {
  const { length, note, cells } = table;
  const costs = Float64Array.from(note);
  for (let k = 0; k < length; k++)
    for (const choice of table.choices[k]!) {
      const more = penalty(k, choice);
      const at = (k * 4 + CHOICES.indexOf(choice)) * 2;
      costs[at]! += more;
      costs[at + 1]! += more;
    }
  // What is still to come hangs on how the chain ends, and not on how it began.
  const byExit = DIRECTIONS.map((_, exit) => valuesFrom(table, costs, exit, count));
  return DIRECTIONS.map((bow, d) =>
    byExit.map((values) => {
      const bowings: ChainBowing[] = [];
      for (const choice of table.choices[0]!) {
        const state = stateIndex(cells, d, 1, table.home[d]!);
        for (let rank = 0; rank < count; rank++) {
          const rest = values.cost[(1 * values.states + state) * count + rank]!;
          if (rest === Infinity) break;
          bowings.push({
            cost: rest + costs[CHOICES.indexOf(choice) * 2 + d]!,
            bow,
            links: [choice, ...linksOfRank(table, values, state, rank, d)],
          });
        }
      }
      return bowings;
    }),
  );
}

export const stateIndex = (cells: number, d: number, notes: number, c: number) =>
  (d * MAX_IN_STROKE + notes - 1) * cells + c;

export interface Values {
  readonly states: number;
  readonly count: number;
  /** `[(k·states + state)·count + rank]`. */
  readonly cost: Float64Array;
  /** By which choice, and to which rank of the state that follows. */
  readonly choice: Uint8Array;
  readonly rank: Uint8Array;
}

/** Values of which only what follows the last note is known: its stroke ends in the direction `exit`. */
export function valuesAtEnd(table: ChainTable, exit: number, count: number): Values {
  const { length, cells, stroke } = table;
  const states = 2 * MAX_IN_STROKE * cells;
  const size = (length + 1) * states * count;
  const values: Values = {
    states,
    count,
    cost: new Float64Array(size).fill(Infinity),
    choice: new Uint8Array(size),
    rank: new Uint8Array(size),
  };
  for (let notes = 1; notes <= Math.min(MAX_IN_STROKE, length); notes++)
    for (let c = 0; c < cells; c++)
      values.cost[(length * states + stateIndex(cells, exit, notes, c)) * count] =
        stroke[strokeIndex(cells, length, notes, exit, c)]!;
  return values;
}

function valuesFrom(table: ChainTable, costs: Float64Array, exit: number, count: number): Values {
  const values = valuesAtEnd(table, exit, count);
  if (count === 1) fillBest(table, costs, values);
  else fillLists(table, costs, values);
  return values;
}

/** The costs of a note's choices for the direction before it; infinite where it may not be. */
function choiceCosts(table: ChainTable, costs: Float64Array, k: number, d: number) {
  const of = (number: number, bow: number) =>
    table.choices[k]!.includes(CHOICES[number]!) ? costs[(k * 4 + number) * 2 + bow]! : Infinity;
  return { turn: of(CHANGE, 1 - d), slur: of(SLUR, d), hook: of(HOOK, d), retake: of(RETAKE, d) };
}

/** `fillLists` for K = 1, by far the most asked for: no list to keep, and several times as quick. */
function fillBest(table: ChainTable, costs: Float64Array, values: Values): void {
  for (let k = table.length - 1; k >= 1; k--) fillBestAt(table, costs, values, k);
}

/** One step of `fillBest`: the states before note k from those after it. */
export function fillBestAt(table: ChainTable, costs: Float64Array, { states, cost, choice }: Values, k: number): void {
  const { cells, stroke, cell, home } = table;
  const to = (k + 1) * states;
  for (let d = 0; d < 2; d++) {
    const { turn, slur, hook, retake } = choiceCosts(table, costs, k, d);
    // Of slur and hook, which lead to the same state, only the cheaper counts, the slur on a tie.
    const join = Math.min(slur, hook);
    const joined = slur <= hook ? SLUR : HOOK;
    const lifted = cost[to + stateIndex(cells, d, 1, home[d]!)]! + retake;
    const turning = to + stateIndex(cells, 1 - d, 1, 0);
    for (let notes = 1; notes <= Math.min(MAX_IN_STROKE, k); notes++) {
      const from = k * states + stateIndex(cells, d, notes, 0);
      const ending = strokeIndex(cells, k, notes, d, 0);
      const staying = notes < MAX_IN_STROKE ? to + stateIndex(cells, d, notes + 1, 0) : -1;
      for (let c = 0; c < cells; c++) {
        const end = stroke[ending + c]!;
        let least = cost[turning + cell[ending + c]!]! + turn + end;
        let by: number = CHANGE;
        if (staying >= 0) {
          const stays = cost[staying + c]! + join;
          if (stays < least) {
            least = stays;
            by = joined;
          }
        }
        const lifts = lifted + end;
        if (lifts < least) {
          least = lifts;
          by = RETAKE;
        }
        cost[from + c] = least;
        choice[from + c] = by;
      }
    }
  }
}

function fillLists(table: ChainTable, costs: Float64Array, values: Values): void {
  const { length, cells, stroke, cell, home } = table;
  const { states, count, cost } = values;
  for (let k = length - 1; k >= 1; k--) {
    for (let d = 0; d < 2; d++) {
      const { turn, slur, hook, retake } = choiceCosts(table, costs, k, d);
      for (let notes = 1; notes <= Math.min(MAX_IN_STROKE, k); notes++) {
        const mayStay = notes < MAX_IN_STROKE;
        const to = (k + 1) * states;
        const staying = to + stateIndex(cells, d, notes + 1, 0);
        const turning = to + stateIndex(cells, 1 - d, 1, 0);
        const lifting = (to + stateIndex(cells, d, 1, home[d]!)) * count;
        for (let c = 0; c < cells; c++) {
          const at = (k * states + stateIndex(cells, d, notes, c)) * count;
          const ended = strokeIndex(cells, k, notes, d, c);
          const end = stroke[ended]!;
          const stay = (staying + c) * count;
          // In the order of CHOICES, so that ties go to the earlier one.
          for (let r = 0; r < count; r++)
            if (!put(values, at, cost[(turning + cell[ended]!) * count + r]! + turn + end, CHANGE, r)) break;
          if (mayStay) for (let r = 0; r < count; r++) if (!put(values, at, cost[stay + r]! + slur, SLUR, r)) break;
          if (mayStay) for (let r = 0; r < count; r++) if (!put(values, at, cost[stay + r]! + hook, HOOK, r)) break;
          for (let r = 0; r < count; r++) if (!put(values, at, cost[lifting + r]! + retake + end, RETAKE, r)) break;
        }
      }
    }
  }
}

/** Puts a cost into a state's sorted list, behind its equals; false where it is not among the first. */
function put({ cost, choice, rank, count }: Values, at: number, total: number, number: number, r: number): boolean {
  if (!(total < cost[at + count - 1]!)) return false;
  let place = at + count - 1;
  for (; place > at && cost[place - 1]! > total; place--) {
    cost[place] = cost[place - 1]!;
    choice[place] = choice[place - 1]!;
    rank[place] = rank[place - 1]!;
  }
  cost[place] = total;
  choice[place] = number;
  rank[place] = r;
  return true;
}

/** The links of notes 1, 2 … along the pointers of a list. */
function linksOfRank(table: ChainTable, values: Values, state: number, rank: number, bow: number): Choice[] {
  let r = rank;
  const choiceAt = (k: number, at: number) => {
    const place = (k * values.states + at) * values.count + r;
    r = values.rank[place]!;
    return values.choice[place]!;
  };
  return linksFrom(table, choiceAt, state, bow);
}

/** The links of notes 1, 2 … when each state says by which choice it is left. */
export function linksFrom(
  { length, cells, cell, home }: ChainTable,
  choiceAt: (k: number, state: number) => number,
  state: number,
  bow: number,
): Choice[] {
  const links: Choice[] = [];
  let [d, notes, c] = [bow, 1, state % cells];
  for (let k = 1; k < length; k++) {
    const choice = CHOICES[choiceAt(k, stateIndex(cells, d, notes, c))]!;
    links.push(choice);
    if (staysInStroke(choice)) {
      notes += 1;
      continue;
    }
    c = choice === 'retake' ? home[d]! : cell[strokeIndex(cells, k, notes, d, c)]!;
    if (choice === 'change') d = 1 - d;
    notes = 1;
  }
  return links;
}

/** The direction in which a chain must be come to for its first link to give its first direction. */
export function directionBefore({ bow, links: [first] }: ChainBowing): Direction {
  return first === 'change' ? opposite(bow) : bow;
}
