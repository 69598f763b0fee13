import type { Seconds } from '#core/base';
import { toNumber } from '#core/base';
import { type Fingering, FREE_HAND, type Hand, isBanned, type Stop, stopOnString } from '#core/fingering';
import { type Place, PLACES, type Tune, type Unrolled, writtenNotes } from '#core/tune';

/** An open string is doubled only where it sounds at least this long. */
const MIN_SECONDS: Seconds = 0.2;

/** An open string thickened by the same pitch stopped on the next lower one. */
export interface Doubling {
  readonly index: number;
  readonly id: string;
  readonly open: Place;
  readonly stop: Stop;
  /** A finger that may lie on the lower string before, from which the doubling finger is reached. */
  readonly approaches: readonly number[];
}

/** The finger that doubles an open string, and from which fingers it is approached; null where none reaches it. */
export function doublingOf(open: Place, tuning: Tune['tuning']): Pick<Doubling, 'stop' | 'approaches'> | null {
  const at = PLACES.indexOf(open);
  const below = PLACES[at - 1];
  const stop = below ? stopOnString(tuning[at]!, below, tuning) : null;
  if (!stop || stop.finger === 0) return null;
  return { stop, approaches: Array.from({ length: stop.finger }, (_, finger) => finger) };
}

/**
 * Places for a unison doubling: open notes that sound longer than the running note of their part and at least 200 ms.
 * The running note is the commonest length of the part. Time O(n).
 */
export function doublings(
  tune: Tune,
  unrolled: Unrolled,
  fingers: ReadonlyMap<string, Fingering>,
  durations: readonly Seconds[],
  hand: Hand = FREE_HAND,
): Doubling[] {
  const running = new Map(tune.parts.map((part) => [part.name, runningNote({ ...tune, parts: [part] })]));
  return unrolled.notes.flatMap(({ note, part, duration, index }): Doubling[] => {
    const { place, finger, stops } = fingers.get(note.id)!;
    if (finger !== 0 || stops.length > 0) return [];
    if (toNumber(duration) <= running.get(part)! || durations[index]! < MIN_SECONDS) return [];
    const doubled = doublingOf(place, tune.tuning);
    return doubled && !isBanned(hand, doubled.stop) ? [{ index, id: note.id, open: place, ...doubled }] : [];
  });
}

/** The commonest length, a dotted pair counted as the two even notes that it stands for; the shorter of two as common. */
function runningNote(tune: Tune): number {
  const counts = new Map<number, number>();
  const count = (length: number, times: number) => counts.set(length, (counts.get(length) ?? 0) + times);
  const lengths = writtenNotes(tune).map(({ duration }) => toNumber(duration));
  for (let i = 0; i < lengths.length; i++) {
    const [here, next] = [lengths[i]!, lengths[i + 1] ?? 0];
    const isPair = next > 0 && (Math.abs(here - 3 * next) < 1e-9 || Math.abs(next - 3 * here) < 1e-9);
    if (!isPair) count(here, 1);
    else {
      count((here + next) / 2, 2);
      i += 1;
    }
  }
  const [first] = [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0]);
  return first?.[0] ?? 0;
}
