import { type Direction, occurrencesOf, type Unrolled } from '#core/tune';
import { againFrom, bowAgain, type BowedNote, entryNote } from './strokes';

/** One line of the count that fiddlers keep on paper. */
export interface PassLedger {
  readonly part: string;
  readonly pass: number;
  readonly ending: number | null;
  /** Direction of the pickup's first stroke; null without a pickup. */
  readonly pickup: Direction | null;
  /** What sounds at beat 1 of the first full bar; null where nothing is played any more. */
  readonly entry: Direction | null;
  readonly strokes: number;
  readonly turns: number;
  readonly exit: Direction | null;
  /** What sounds at beat 1 of the pass that follows; after the last one, of the tune begun again. */
  readonly next: Direction | null;
}

/** A written note met in both directions. */
export interface DirectionDifference {
  readonly id: string;
  /** By pass: `{ A1: 'down', A2: 'up' }`. */
  readonly directions: Readonly<Record<string, Direction>>;
  /** All passes enter the part alike, so that only a link changed for one pass can have made the difference. */
  readonly planned: boolean;
}

export interface RoundVerdict {
  /** Every part is entered in one direction on all its passes, and the second time through equals the first. */
  readonly comesRound: boolean;
  readonly comesRoundAgain: boolean;
  /** Parts entered in more than one direction, in the order of the form. */
  readonly flippedParts: readonly string[];
}

export interface Ledger extends RoundVerdict {
  readonly passes: readonly PassLedger[];
  readonly oneDirection: boolean;
  readonly differs: readonly DirectionDifference[];
}

/**
 * The count of strokes and turns pass by pass, and what follows from it. The direction after a pass is the direction
 * at its entry flipped once per turn, so an even number of turns comes back and an odd one flips the next pass.
 * A stroke belongs to the pass in which it begins.
 * Time O(n) for n played notes.
 */
export function bowingLedger(unrolled: Unrolled, bowed: readonly BowedNote[]): Ledger {
  const { entries, ...verdict } = enter(unrolled, bowed);
  const entryAgain = flipUnless(verdict.comesRoundAgain, entries[0] ?? null);

  const passes = unrolled.passes.map((pass, i): PassLedger => {
    const played = bowed.slice(pass.firstNote, pass.endNote);
    const next = entries[i + 1] === undefined ? entryAgain : entries[i + 1]!;
    return {
      part: pass.part,
      pass: pass.pass,
      ending: pass.ending,
      pickup: pass.hasPickup ? (played[0]?.bow ?? null) : null,
      entry: entries[i] ?? null,
      strokes: played.filter(({ inStroke }) => inStroke === 1).length,
      turns: played.filter(({ link }) => link === 'change').length,
      exit: played[played.length - 1]?.bow ?? null,
      next,
    };
  });

  const differs = directionDifferences(unrolled, bowed);
  return { ...verdict, passes, oneDirection: differs.length === 0, differs };
}

/** Whether a bowing comes round, without the rest of the count. Time O(p) for p passes, after the bowing itself. */
export function roundVerdict(unrolled: Unrolled, bowed: readonly BowedNote[]): RoundVerdict {
  const { comesRound, comesRoundAgain, flippedParts } = enter(unrolled, bowed);
  return { comesRound, comesRoundAgain, flippedParts };
}

function enter(
  unrolled: Unrolled,
  bowed: readonly BowedNote[],
): RoundVerdict & { entries: readonly (Direction | null)[] } {
  const entries = unrolled.passes.map(({ firstNote, endNote }, i) => {
    const note = firstNote === endNote ? null : entryNote(unrolled, i);
    return note === null ? null : bowed[note]!.bow;
  });
  const again = againFrom(unrolled);
  const comesRoundAgain = again === null || bowAgain(unrolled, bowed) === bowed[again.index]!.bow;
  const known = new Map<string, Direction | null>();
  const flipped = new Set<string>();
  for (const [i, { part }] of unrolled.passes.entries()) {
    // A pass in which no note begins cannot flip.
    if (entries[i] === null) continue;
    if (!known.has(part)) known.set(part, entries[i]!);
    else if (known.get(part) !== entries[i]) flipped.add(part);
  }
  const flippedParts = [...known.keys()].filter((part) => flipped.has(part));
  return { entries, comesRound: flippedParts.length === 0 && comesRoundAgain, comesRoundAgain, flippedParts };
}

function flipUnless(keep: boolean, direction: Direction | null): Direction | null {
  if (keep || direction === null) return direction;
  return direction === 'down' ? 'up' : 'down';
}

function directionDifferences(unrolled: Unrolled, bowed: readonly BowedNote[]): DirectionDifference[] {
  const { notes, passes } = unrolled;
  const met = occurrencesOf(unrolled);
  const timesPlayed = new Map<string, number>();
  for (const { part } of passes) timesPlayed.set(part, (timesPlayed.get(part) ?? 0) + 1);
  /** Direction, on each pass, of its first note that every pass of the part plays. */
  const bowOnEntry = passes.map(({ part, firstNote, endNote }) => {
    for (let i = firstNote; i < endNote; i++)
      if (met.get(notes[i]!.note.id)!.length === timesPlayed.get(part)) return bowed[i]!.bow;
    return null;
  });
  const passNames = passes.map(({ part, pass }) => `${part}${pass}`);
  const differs: DirectionDifference[] = [];
  for (const [id, meetings] of met) {
    const first = meetings[0]!;
    if (meetings.every((index) => bowed[index]!.bow === bowed[first]!.bow)) continue;
    const entryOf = (index: number) => bowOnEntry[notes[index]!.passIndex];
    const directions: Record<string, Direction> = {};
    for (const index of meetings) directions[passNames[notes[index]!.passIndex]!] = bowed[index]!.bow;
    differs.push({
      id,
      directions,
      planned: meetings.every((index) => entryOf(index) === entryOf(first)),
    });
  }
  return differs;
}
