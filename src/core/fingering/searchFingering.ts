import { toNumber } from '#core/base';
import type { Instrument } from '#core/instrument';
import { type NoteEvent, type Tune, type Unrolled, type UnrolledNote, writtenNotes } from '#core/tune';
import { choiceKey, type Choices, choicesOf } from './choices';
import { FREE_HAND, type Hand } from './hand';
import { type Following, HAND_COSTS, type HandChord, moveCost, stopCost } from './handCosts';
import { type HandGround, handGround } from './handGround';

/** A note this long, in whole notes, is wanted stopped where vibrato is wanted: a dotted quarter. */
const LONG_NOTE = 3 / 8;

/** How a written note is fingered in the best whole, and what else could be done there. */
export interface FingeredNote {
  readonly id: string;
  readonly chord: HandChord;
  /**
   * Every choice with what the best whole with it costs more, the chosen one first, which costs 0 more, then the cheapest.
   * Counted for all notes when they are first asked for.
   */
  readonly alternatives: readonly Alternative[];
  readonly pinBanned: boolean;
  readonly pinMisfits: boolean;
  readonly stopsLost: boolean;
}

export interface Alternative {
  readonly chord: HandChord;
  /** Millimetres of the objective above the best whole. */
  readonly costsMore: number;
}

export interface FingeringResult {
  readonly notes: ReadonlyMap<string, FingeredNote>;
  /** Millimetres of the objective. */
  readonly cost: number;
  /** Notes that no position reaches, or that the player's hand leaves no way to play. */
  readonly unfingered: readonly { readonly id: string; readonly because: 'out-of-reach' | 'banned' }[];
  /** Notes with a span or a shape that should not be asked for, kept only because nothing else is left. */
  readonly forced: readonly string[];
}

/** A written note with the one that is played before it on its first time. */
interface Step {
  readonly note: NoteEvent;
  readonly before: number;
  readonly following: Following;
}

/**
 * The cheapest fingering of a whole tune over place, finger and position.
 *
 * Each written note has one fingering on all passes. It follows the note played before it on its first time, so that two
 * endings both hang on the bar before them: the notes form a tree, and the sum of `stopCost` of each note and `moveCost`
 * from the note before is least over all choices. Found exactly by passing least costs up the tree and down again, which
 * also gives the least whole with each choice of each note. A note that no choice is left for parts the tree.
 * Time O(n·c²) for n written notes with c choices, most matrices of moves counted once; memory O(n·c).
 */
export function searchFingering(
  tune: Tune,
  unrolled: Unrolled,
  hand: Hand,
  instrument: Pick<Instrument, 'stringLengthMm'>,
  held: ReadonlyMap<string, HandChord> = new Map(),
): FingeringResult {
  const steps = stepsOf(tune, unrolled);
  const board = new Board(tune, hand, handGround(tune, instrument));
  const choices = steps.map(({ note }) => board.choices(note, held.get(note.id)));
  const moves = steps.map(({ before, following }, i) =>
    before < 0 || choices[before]!.chords.length === 0 ? null : board.moves(choices[before]!, choices[i]!, following),
  );

  // Up: the least cost of a note's choice with all that hangs on it; `joins[i]` is what it adds to each choice before it.
  const down = choices.map((choice, i) =>
    board.stopCosts(choice, toNumber(steps[i]!.note.duration) >= LONG_NOTE).slice(),
  );
  const joins: (Float64Array | null)[] = steps.map(() => null);
  for (let i = steps.length - 1; i >= 0; i--) {
    const matrix = moves[i];
    if (!matrix || choices[i]!.chords.length === 0) continue;
    const { before } = steps[i]!;
    const join = leastOverColumns(matrix, down[i]!, choices[before]!.chords.length);
    joins[i] = join;
    const above = down[before]!;
    for (let s = 0; s < join.length; s++) above[s]! += join[s]!;
  }
  let cost = 0;
  const chosen = new Int32Array(steps.length).fill(-1);
  const notes = new Map<string, FingeredNote>();
  // Down: the least cost of all the rest, for the alternatives.
  let known: Float64Array[] | null = null;
  const up = () => (known ??= upwards(steps, choices, moves, joins, down));
  for (let i = 0; i < steps.length; i++) {
    const choice = choices[i]!;
    const { chords } = choice;
    if (chords.length === 0) continue;
    const matrix = joins[i] ? moves[i] : null;
    const pick = matrix ? bestAfter(matrix, down[i]!, chosen[steps[i]!.before]!) : lowest(down[i]!);
    chosen[i] = pick;
    if (!matrix) cost += down[i]![pick]!;
    notes.set(steps[i]!.note.id, new Fingered(steps[i]!.note.id, choice, pick, () => up()[i]!, down[i]!));
  }
  return {
    notes,
    cost,
    unfingered: steps.flatMap(({ note }, i) =>
      choices[i]!.chords.length > 0
        ? []
        : [
            {
              id: note.id,
              because: choicesOf(note, tune.tuning, FREE_HAND).chords.length > 0 ? 'banned' : 'out-of-reach',
            },
          ],
    ),
    forced: steps.flatMap(({ note, before }, i) => {
      if (chosen[i]! < 0) return [];
      const own = board.stopCosts(choices[i]!, false)[chosen[i]!]!;
      const matrix = moves[i];
      const move = matrix ? matrix.cost[chosen[before]! * matrix.columns + chosen[i]!]! : 0;
      return own >= HAND_COSTS.forbidden || move >= HAND_COSTS.forbidden ? [note.id] : [];
    }),
  };
}

/** What a written note of a fingering is charged by itself and for the way from the note before; they sum to the cost. */
export interface FingeringTerms {
  readonly stop: number;
  readonly move: number;
}

/** The charges of a fingering, note by note. Time O(n). */
export function fingeringTerms(
  tune: Tune,
  unrolled: Unrolled,
  { notes }: FingeringResult,
  hand: Hand,
  instrument: Pick<Instrument, 'stringLengthMm'>,
): Map<string, FingeringTerms> {
  const ground = handGround(tune, instrument);
  const steps = stepsOf(tune, unrolled);
  const chordOf = (i: number): HandChord | undefined => notes.get(steps[i]!.note.id)?.chord;
  const terms = new Map<string, FingeringTerms>();
  for (const [i, { note, before, following }] of steps.entries()) {
    const chord = chordOf(i);
    if (!chord) continue;
    const from = before >= 0 ? chordOf(before) : undefined;
    terms.set(note.id, {
      stop: stopCost(chord, hand, toNumber(note.duration) >= LONG_NOTE, ground),
      move: from ? moveCost(from[0]!, chord[0]!, hand, following, ground) : 0,
    });
  }
  return terms;
}

/** A note of the result; what else could be done there is counted when it is asked for. */
class Fingered implements FingeredNote {
  private sorted: readonly Alternative[] | null = null;

  constructor(
    readonly id: string,
    private readonly choices: Choices,
    private readonly pick: number,
    private readonly up: () => Float64Array,
    private readonly down: Float64Array,
  ) {}

  get chord(): HandChord {
    return this.choices.chords[this.pick]!;
  }

  get pinBanned(): boolean {
    return this.choices.pinBanned;
  }

  get pinMisfits(): boolean {
    return this.choices.pinMisfits;
  }

  get stopsLost(): boolean {
    return this.choices.stopsLost;
  }

  get alternatives(): readonly Alternative[] {
    if (this.sorted) return this.sorted;
    const up = this.up();
    const least = up[this.pick]! + this.down[this.pick]!;
    const all = this.choices.chords.map((chord, s) => ({
      chord,
      costsMore: Math.max(0, up[s]! + this.down[s]! - least),
    }));
    const others = all.filter((_, s) => s !== this.pick).sort((a, b) => a.costsMore - b.costsMore);
    return (this.sorted = [all[this.pick]!, ...others]);
  }
}

/** The least cost of everything outside each note's own branch, for each of its choices. */
function upwards(
  steps: readonly Step[],
  choices: readonly Choices[],
  moves: readonly (Matrix | null)[],
  joins: readonly (Float64Array | null)[],
  down: readonly Float64Array[],
): Float64Array[] {
  const up = choices.map(({ chords }) => new Float64Array(chords.length));
  for (let i = 0; i < steps.length; i++) {
    const { before } = steps[i]!;
    const [join, matrix] = [joins[i], moves[i]];
    if (join && matrix) leastOverRows(matrix, up[before]!, down[before]!, join, up[i]!);
  }
  return up;
}

/** Written notes in the order in which they are first played, then those that are never played; tied ones follow their note. */
export function stepsOf(tune: Tune, unrolled: Unrolled): Step[] {
  const steps: Step[] = [];
  const stepOf = new Map<string, number>();
  const written = new Map(writtenNotes(tune).map((note) => [note.id, note]));
  const add = (note: NoteEvent, before: number, following: Following) => {
    stepOf.set(note.id, steps.length);
    steps.push({ note, before, following });
  };
  let before: UnrolledNote | null = null;
  for (const played of unrolled.notes) {
    const { note, ids } = played;
    if (!stepOf.has(note.id))
      add(note, before ? stepOf.get(before.ids[before.ids.length - 1]!)! : -1, followingOf(played));
    for (let k = 1; k < ids.length; k++)
      if (!stepOf.has(ids[k]!)) add(written.get(ids[k]!)!, stepOf.get(ids[k - 1]!)!, 'slur');
    before = played;
  }
  for (const note of written.values()) if (!stepOf.has(note.id)) add(note, -1, 'turn');
  return steps;
}

function followingOf({ note, restBefore }: UnrolledNote): Following {
  if (restBefore.n > 0) return 'rest';
  return note.link === 'slur' ? 'slur' : 'turn';
}

/** Moves between all choices of two notes: `cost[s * columns + t]`. */
interface Matrix {
  readonly columns: number;
  readonly cost: Float64Array;
}

/** Choices and moves of a tune, each counted once for all notes that are alike. */
class Board {
  private readonly known = new Map<string, Choices>();
  private readonly numbers = new Map<Choices, number>();
  private readonly matrices = new Map<string, Matrix>();
  private readonly stops = new Map<string, Float64Array>();

  constructor(
    private readonly tune: Tune,
    private readonly hand: Hand,
    private readonly ground: HandGround,
  ) {}

  choices(note: NoteEvent, held: HandChord | undefined): Choices {
    const key = held
      ? `held ${held.map(({ place, finger, position }) => `${place}${finger}${position}`).join(' ')} ${choiceKey(note)}`
      : choiceKey(note);
    const known = this.known.get(key);
    if (known) return known;
    const found = held
      ? { chords: [held], pinBanned: false, pinMisfits: false, stopsLost: false }
      : choicesOf(note, this.tune.tuning, this.hand);
    this.known.set(key, found);
    this.numbers.set(found, this.numbers.size);
    return found;
  }

  stopCosts(choices: Choices, isLong: boolean): Float64Array {
    const key = `${this.numbers.get(choices)} ${isLong}`;
    const known = this.stops.get(key);
    if (known) return known;
    const found = Float64Array.from(choices.chords, (chord) => stopCost(chord, this.hand, isLong, this.ground));
    this.stops.set(key, found);
    return found;
  }

  moves(from: Choices, to: Choices, following: Following): Matrix {
    const key = `${this.numbers.get(from)} ${this.numbers.get(to)} ${following}`;
    const known = this.matrices.get(key);
    if (known) return known;
    const columns = to.chords.length;
    const cost = new Float64Array(from.chords.length * columns);
    for (const [s, chord] of from.chords.entries())
      for (const [t, next] of to.chords.entries())
        cost[s * columns + t] = moveCost(chord[0]!, next[0]!, this.hand, following, this.ground);
    const found = { columns, cost };
    this.matrices.set(key, found);
    return found;
  }
}

function leastOverColumns({ columns, cost }: Matrix, own: Float64Array, rows: number): Float64Array {
  const least = new Float64Array(rows);
  for (let s = 0; s < rows; s++) {
    let best = Infinity;
    for (let t = 0; t < columns; t++) {
      const sum = cost[s * columns + t]! + own[t]!;
      if (sum < best) best = sum;
    }
    least[s] = best;
  }
  return least;
}

/** Fills `into` with the least cost of everything outside a note's own branch, for each of its choices. */
function leastOverRows(
  { columns, cost }: Matrix,
  up: Float64Array,
  down: Float64Array,
  join: Float64Array,
  into: Float64Array,
): void {
  into.fill(Infinity);
  for (let s = 0; s < up.length; s++) {
    const rest = up[s]! + down[s]! - join[s]!;
    for (let t = 0; t < columns; t++) {
      const sum = rest + cost[s * columns + t]!;
      if (sum < into[t]!) into[t] = sum;
    }
  }
}

function bestAfter({ columns, cost }: Matrix, own: Float64Array, row: number): number {
  let best = 0;
  let least = Infinity;
  for (let t = 0; t < columns; t++) {
    const sum = cost[row * columns + t]! + own[t]!;
    if (sum < least - 1e-9) [best, least] = [t, sum];
  }
  return best;
}

function lowest(costs: Float64Array): number {
  let best = 0;
  for (let s = 1; s < costs.length; s++) if (costs[s]! < costs[best]! - 1e-9) best = s;
  return best;
}
