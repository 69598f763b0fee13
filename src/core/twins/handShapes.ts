import type { Fingering } from '#core/fingering';
import { barNumbers, type Tune, writtenBars } from '#core/tune';
import { handSteps } from './handTwins';
import { MIN_FIGURE } from './twins';

/** The shapes of a tune, and where they stand. */
export interface HandShapes {
  /** For each written note the shape of it and the three after it; 0 where no such figure begins. */
  readonly shapes: readonly number[];
  /** For each written note its part and bar: `A 3`. */
  readonly places: readonly string[];
}

/** FNV-1a, 32 bits. */
const FNV_BASIS = 0x811c9dc5;
const FNV_PRIME = 0x01000193;

/** Written notes of which shapes are kept: no tune that is played has more. */
const MAX_SHAPED = 1000;

/**
 * The hand and the bowing of every figure of four notes as one number: semitones above the open string, lengths, moves
 * between strings and rests as in a hand twin, and how the second to the fourth note are bowed. The string it begins on is
 * not part of it, so that what is known on one pair of strings is met again on another.
 * Time O(n) for n written notes. Numbers fit a signed 32-bit integer; 0 stands for none.
 */
export function handShapes(tune: Tune, fingers: ReadonlyMap<string, Fingering>): HandShapes {
  const steps = handSteps(tune, fingers);
  const shapeOf = new Map<string, number>();
  const length = 2 * MIN_FIGURE - 1;
  for (let at = 0; at + length <= steps.length; at++) {
    const { note } = steps[at]!;
    const figure = steps.slice(at, at + length);
    if (!note || figure.some(({ words }) => words === null)) continue;
    const bowing = figure.slice(1).flatMap((step) => step.note?.link ?? []);
    shapeOf.set(note.id, hashOf([...figure.map(({ words }) => words), ...bowing].join('|')));
  }
  const shapes: number[] = [];
  const places: string[] = [];
  for (const [part, bars] of writtenBars(tune)) {
    const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
    for (const { event, events } of bars)
      for (const item of events) {
        if (item.kind !== 'note' || shapes.length === MAX_SHAPED) continue;
        shapes.push(shapeOf.get(item.id) ?? 0);
        places.push(`${part} ${numbers.get(event.id) ?? 1}`);
      }
  }
  return { shapes, places };
}

function hashOf(words: string): number {
  let hash = FNV_BASIS;
  for (let i = 0; i < words.length; i++) hash = Math.imul(hash ^ words.charCodeAt(i), FNV_PRIME);
  return hash >>> 1 || 1;
}

/** Notes in a row that two tunes have alike. */
export interface SharedHand {
  /** Written notes of the one and of the other at which it begins, from 0. */
  readonly from: number;
  readonly otherFrom: number;
  readonly notes: number;
}

/**
 * The longest stretches of one tune that another has with the same hand and bowing, where they have as many notes as asked
 * for: from each note on the longest, in the order of the one tune, without those that lie within one told before.
 * Time O(n · m) for n and m shapes at worst, as where one figure fills both tunes; else about O(n + m).
 */
export function sharedHands(own: readonly number[], other: readonly number[], minNotes: number): SharedHand[] {
  const startsOf = new Map<number, number[]>();
  for (const [i, shape] of other.entries()) {
    const starts = startsOf.get(shape);
    if (starts) starts.push(i);
    else if (shape !== 0) startsOf.set(shape, [i]);
  }
  const longest: (SharedHand | null)[] = own.map(() => null);
  /** By where it begins in the other: how many shapes run alike from here on, and from the next note of the one on. */
  let next = new Uint16Array(other.length + 1);
  for (let from = own.length - 1; from >= 0; from--) {
    const here = new Uint16Array(other.length + 1);
    for (const otherFrom of startsOf.get(own[from]!) ?? []) {
      here[otherFrom] = 1 + next[otherFrom + 1]!;
      const notes = here[otherFrom] + MIN_FIGURE - 1;
      if (notes >= minNotes && notes > (longest[from]?.notes ?? 0)) longest[from] = { from, otherFrom, notes };
    }
    next = here;
  }
  let told = 0;
  return longest.flatMap((one) => {
    if (!one || one.from + one.notes <= told) return [];
    told = one.from + one.notes;
    return one;
  });
}
