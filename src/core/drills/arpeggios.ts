import { equals, ZERO } from '#core/base';
import { midiOf } from '#core/pitch';
import type { Unrolled, UnrolledNote } from '#core/tune';

/** Notes in a row of one chord from which on they are an arpeggio: a figure. */
const MIN_NOTES = 4;

/** Third and fifth over the root of the chords that are broken: major and minor. */
const CHORDS = [
  [4, 7],
  [3, 7],
] as const;

/**
 * Parts in which a chord is broken: four notes or more in a row, without rest or repeated note, that are all of one major
 * or minor triad and have its root, third and fifth among them.
 * Time O(n) for n played notes.
 */
export function arpeggioParts({ notes }: Unrolled): string[] {
  const parts = new Set<string>();
  for (let root = 0; root < 12; root++)
    for (const [third, fifth] of CHORDS) {
      const steps = new Set([0, third, fifth]);
      let run: UnrolledNote[] = [];
      for (const note of [...notes, null]) {
        const before = run[run.length - 1];
        const goesOn =
          note !== null &&
          steps.has(above(note, root)) &&
          (!before ||
            (note.passIndex === before.passIndex &&
              equals(note.restBefore, ZERO) &&
              midiOf(note.note.pitch) !== midiOf(before.note.pitch)));
        if (goesOn) {
          run.push(note);
          continue;
        }
        if (run.length >= MIN_NOTES && new Set(run.map((one) => above(one, root))).size === steps.size)
          parts.add(run[0]!.part);
        run = note !== null && steps.has(above(note, root)) ? [note] : [];
      }
    }
  return [...parts].sort((a, b) => firstOf(notes, a) - firstOf(notes, b));
}

const above = ({ note }: UnrolledNote, root: number): number => (midiOf(note.pitch) - root + 120) % 12;
const firstOf = (notes: readonly UnrolledNote[], part: string): number => notes.findIndex((note) => note.part === part);
