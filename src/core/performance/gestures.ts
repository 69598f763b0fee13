import type { Seconds } from '#core/base';
import { hertzOf } from '#core/pitch';
import { alterInKey, type Key, midiOf, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import { LONG_ROLL_TIME } from '#core/tempo';
import type { NoteMark, UnrolledNote } from '#core/tune';

/** A pitch that a note goes to at a moment of its own time. */
export interface Move {
  /** Seconds after the note's beginning. */
  readonly after: Seconds;
  readonly hertz: number;
  readonly glide: Seconds;
}

/** Lengths of what a finger does in passing, the longest and as a share of the note; guesses. */
const CUT = { max: 0.028, share: 0.3 } as const;
const GRACE = { max: 0.06, share: 0.4 } as const;
const SLIDE = { max: 0.1, share: 0.4, cents: 170 } as const;
const RUN = { each: 0.045, share: 0.45, notes: 3 } as const;
const TRILL_HERTZ = 11;
/** A finger comes down within this time. */
const FINGER_SECONDS = 0.003;

export function hertzAt(pitch: Pitch): number {
  return hertzOf(midiOf(pitch));
}

/** The next note of the scale above (1) or below (-1), or farther. */
function neighbour(pitch: Pitch, key: Key, steps: number): number {
  const natural = pitchAtStep(staffStep(pitch) + steps);
  return hertzAt({ ...natural, alter: alterInKey(key, natural.letter) });
}

/**
 * How the pitch of a note goes from its beginning: grace notes, and what its ornaments do to it. Strongest first where
 * it has several: a roll goes before a cut, any of them before a slide.
 * @param seconds how long it lasts
 * @param next the note after it, towards which runs go
 */
export function pitchGesture(
  { note, duration }: UnrolledNote,
  seconds: Seconds,
  key: Key,
  next: UnrolledNote | undefined,
  marks: readonly NoteMark[],
): Move[] {
  const { pitch, graceNotes = [] } = note;
  const own = hertzAt(pitch);
  const plain = (after: Seconds, hertz = own): Move => ({ after, hertz, glide: FINGER_SECONDS });
  const up = neighbour(pitch, key, 1);
  const down = neighbour(pitch, key, -1);
  const cut = Math.min(CUT.max, CUT.share * seconds);
  const graced = graceNotes.length > 0 ? Math.min(GRACE.max, (GRACE.share * seconds) / graceNotes.length) : 0;
  const graces = graceNotes.map((grace, i) => plain(i * graced, hertzAt(grace)));
  const start = graces.length * graced;
  if (marks.includes('roll')) {
    const isLong = duration.n / duration.d >= LONG_ROLL_TIME * (1 - 1e-9);
    return isLong
      ? [
          ...graces,
          plain(start),
          plain(seconds / 3, up),
          plain(seconds / 3 + cut),
          plain((2 / 3) * seconds, down),
          plain((2 / 3) * seconds + cut),
        ]
      : [...graces, plain(start, up), plain(start + cut), plain(seconds / 2, down), plain(seconds / 2 + cut)];
  }
  if (marks.includes('trill')) {
    const each = 1 / (2 * TRILL_HERTZ);
    const count = Math.max(2, 2 * Math.floor((seconds - start) / (2 * each)));
    return [
      ...graces,
      ...Array.from({ length: count }, (_, i) => plain(start + ((seconds - start) * i) / count, i % 2 ? own : up)),
    ];
  }
  if (marks.includes('turn'))
    return [...graces, ...[up, own, down, own].map((hertz, i) => plain(start + (i * (seconds - start)) / 4, hertz))];
  if (marks.includes('mordent')) return [...graces, plain(start), plain(start + cut, down), plain(start + 2 * cut)];
  if (marks.includes('cut')) return [...graces, plain(start, up), plain(start + cut)];
  if (marks.includes('slide')) {
    const glide = Math.min(SLIDE.max, SLIDE.share * seconds);
    return [...graces, plain(start, own * 2 ** (-SLIDE.cents / 1200)), { after: start + 0.01, hertz: own, glide }];
  }
  const way = next ? Math.sign(staffStep(next.note.pitch) - staffStep(pitch)) : 0;
  if (marks.includes('passing-triplet'))
    return [
      ...graces,
      ...[0, 1, 2].map((i) => plain((i * seconds) / 3, i === 0 ? own : neighbour(pitch, key, i * (way || 1)))),
    ];
  if (marks.includes('brushed-run') && next) {
    const each = Math.min(RUN.each, (RUN.share * seconds) / RUN.notes);
    const run = Array.from({ length: RUN.notes }, (_, i) =>
      plain(seconds - (RUN.notes - i) * each, neighbour(next.note.pitch, key, i - RUN.notes)),
    );
    return [...graces, plain(start), ...run];
  }
  return [...graces, plain(start)];
}
