import type { Direction, Unrolled } from '#core/tune';
import { type BowedNote, entryNote, follow, linkInFlow } from './strokes';

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

export interface Ledger {
  readonly passes: readonly PassLedger[];
  /** Every part is entered in one direction on all its passes, and the second time through equals the first. */
  readonly comesRound: boolean;
  readonly comesRoundAgain: boolean;
  /** Parts entered in more than one direction, in the order of the form. */
  readonly flippedParts: readonly string[];
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
  const entries = unrolled.passes.map((_, i) => {
    const note = entryNote(unrolled, i);
    return note === null ? null : bowed[note]!.bow;
  });
  const again = directionAgain(unrolled, bowed);
  const comesRoundAgain = again === null || again === bowed[0]!.bow;
  const entryAgain = flipUnless(comesRoundAgain, entries[0] ?? null);

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

  const flippedParts = [...new Set(unrolled.passes.map(({ part }) => part))].filter((part) => {
    const directions = passes.filter((pass) => pass.part === part).map(({ entry }) => entry);
    return new Set(directions).size > 1;
  });
  const differs = directionDifferences(unrolled, bowed);
  return {
    passes,
    comesRound: flippedParts.length === 0 && comesRoundAgain,
    comesRoundAgain,
    flippedParts,
    oneDirection: differs.length === 0,
    differs,
  };
}

/** Direction of the first note when the tune is begun again; null without notes. */
function directionAgain(unrolled: Unrolled, bowed: readonly BowedNote[]): Direction | null {
  const first = unrolled.notes[0];
  const last = bowed[bowed.length - 1];
  return first && last ? follow(last.bow, linkInFlow(first.note, first.pass)) : null;
}

function flipUnless(keep: boolean, direction: Direction | null): Direction | null {
  if (keep || direction === null) return direction;
  return direction === 'down' ? 'up' : 'down';
}

function directionDifferences(unrolled: Unrolled, bowed: readonly BowedNote[]): DirectionDifference[] {
  const met = new Map<string, { pass: number; label: string; bow: Direction }[]>();
  for (const { index, note, part, pass } of unrolled.notes) {
    const meetings = met.get(note.id);
    const meeting = { pass: unrolled.notes[index]!.passIndex, label: `${part}${pass}`, bow: bowed[index]!.bow };
    if (meetings) meetings.push(meeting);
    else met.set(note.id, [meeting]);
  }
  const bowOnEntry = unrolled.passes.map((pass) => commonEntry(unrolled, bowed, pass.part, pass.firstNote));
  const differs: DirectionDifference[] = [];
  for (const [id, meetings] of met) {
    if (meetings.every(({ bow }) => bow === meetings[0]!.bow)) continue;
    const enteredAlike = meetings.every(({ pass }) => bowOnEntry[pass] === bowOnEntry[meetings[0]!.pass]);
    differs.push({
      id,
      directions: Object.fromEntries(meetings.map(({ label, bow }) => [label, bow])),
      planned: enteredAlike,
    });
  }
  return differs;
}

/** Direction, on the pass that begins at note `from`, of the first written note that every pass of the part plays. */
function commonEntry(unrolled: Unrolled, bowed: readonly BowedNote[], part: string, from: number): Direction | null {
  const passes = unrolled.passes.filter((pass) => pass.part === part);
  const played = passes.map(
    (pass) => new Set(unrolled.notes.slice(pass.firstNote, pass.endNote).map(({ note }) => note.id)),
  );
  for (let i = from; i < unrolled.notes.length && unrolled.notes[i]!.part === part; i++)
    if (played.every((ids) => ids.has(unrolled.notes[i]!.note.id))) return bowed[i]!.bow;
  return null;
}
