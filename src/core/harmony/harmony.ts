import { type Fraction, toNumber } from '#core/base';
import { alterInKey, type Key, keyFifths, LETTERS, midiOf } from '#core/pitch';
import type { Tune, Unrolled } from '#core/tune';
import { type Chord, parseChord, triad } from './chord';
import { chordPlaces } from './places';

/** A stretch of the played tune under one chord, in whole notes. */
export interface ChordSpan {
  readonly from: number;
  readonly to: number;
  readonly chord: Chord;
  /** Written over the staff, or found from the melody. */
  readonly given: boolean;
}

/** What a melody note in or out of a chord is worth, times its length in quarters. All guesses. */
const FITS = { root: 1, third: 0.8, fifth: 0.85, outside: -0.55 } as const;
/** A note that begins on the stretch's beginning weighs more. */
const STRONG = 1.6;
/** How usual the steps of a scale are as chords in these tunes, and what a change costs. */
const COMMON_STEPS: Readonly<Record<number, number>> = { 0: 0.3, 3: 0.15, 4: 0.2, 6: 0.1, 5: 0 };
const RARE = -0.3;
const CHANGE = 0.45;
const HOME_AT_THE_END = 0.8;
/** A pass closes at home, from the fifth step or the flat seventh. */
const [HOME, LEADING] = [0, [4, 6] as readonly number[]];
const AT_HOME = 0.5;
const LEADS_HOME = 0.3;

/** A chord on each step of the scale; that on a step with a diminished fifth is left out. */
export function chordsOfKey(key: Key): Chord[] {
  const inFlats = keyFifths(key) < 0;
  const from = LETTERS.indexOf(key.letter);
  const steps = Array.from({ length: 7 }, (_, i) => {
    const letter = LETTERS[(from + i) % 7]!;
    return (midiOf({ letter, alter: alterInKey(key, letter), octave: 4 }) + 12) % 12;
  });
  return steps.flatMap((root, i) => {
    const third = (steps[(i + 2) % 7]! - root + 12) % 12;
    const fifth = (steps[(i + 4) % 7]! - root + 12) % 12;
    return fifth === 7 ? [triad(root, third === 4 ? 'major' : 'minor', inFlats)] : [];
  });
}

/**
 * What goes with the tune, stretch by stretch: chords that are written over the staff hold until the next; where none
 * is, the chords of the key that fit the melody best, with few changes and home at the end.
 *
 * Found ones maximise Σ fit − Σ changes over all stretches of the given places (Viterbi). Time O(n + stretches · 7²).
 * A pass ends at home, come to from the fifth step or the flat seventh, as phrases close. Stretches are those between the
 * places at which the dance lets a chord change.
 * @param beat the dance's beat, in whole notes
 */
export function harmonyOf(tune: Tune, unrolled: Unrolled, beat: Fraction): ChordSpan[] {
  const places = chordPlaces(unrolled, beat);
  const total = toNumber(unrolled.duration);
  const stretches = places.map((from, i) => ({ from, to: places[i + 1] ?? total }));
  const chords = chordsOfKey(tune.key);
  const tonic = chords[0]!.root;
  const ends = new Set(unrolled.passes.map(({ end }) => Math.round(toNumber(end) * 1e6)));
  const closes = stretches.map(({ to }) => ends.has(Math.round(to * 1e6)));
  const found = bestChords(
    stretches.map((stretch, s) =>
      chords.map((chord, i) => {
        const step = stepOf(chord, tonic, i, chords);
        const cadence = closes[s] && step === HOME ? AT_HOME : closes[s + 1] && LEADING.includes(step) ? LEADS_HOME : 0;
        return fitOf(unrolled, stretch, chord) + (COMMON_STEPS[step] ?? RARE) + cadence;
      }),
    ),
  );
  const given = givenChords(unrolled);
  return stretches.flatMap(({ from, to }, i): ChordSpan[] => {
    const own = { chord: chords[found[i]!]!, given: false };
    let last = given.findLast(({ at }) => at <= from + 1e-9);
    const within = given.filter(({ at }) => at > from + 1e-9 && at < to - 1e-9);
    const spans: ChordSpan[] = [];
    let begin = from;
    for (const next of within) {
      spans.push({ from: begin, to: next.at, ...(last ? { chord: last.chord, given: true } : own) });
      [begin, last] = [next.at, next];
    }
    spans.push({ from: begin, to, ...(last ? { chord: last.chord, given: true } : own) });
    return spans;
  });
}

function stepOf(chord: Chord, tonic: number, index: number, chords: readonly Chord[]): number {
  return chords.length === 7 ? index : STEP_OF_CLASS[(chord.root - tonic + 12) % 12]!;
}

const STEP_OF_CLASS: Readonly<Record<number, number>> = {
  0: 0,
  1: 1,
  2: 1,
  3: 2,
  4: 2,
  5: 3,
  6: 3,
  7: 4,
  8: 5,
  9: 5,
  10: 6,
  11: 6,
};

function fitOf({ notes }: Unrolled, { from, to }: { from: number; to: number }, chord: Chord): number {
  let fit = 0;
  for (let i = firstSounding(notes, from); i < notes.length; i++) {
    const { note, onset, duration } = notes[i]!;
    const begin = toNumber(onset);
    if (begin >= to - 1e-9) break;
    const length = Math.min(to, begin + toNumber(duration)) - Math.max(from, begin);
    if (length <= 1e-9) continue;
    const pitch = midiOf(note.pitch) % 12;
    const worth =
      pitch === chord.root
        ? FITS.root
        : pitch === chord.third
          ? FITS.third
          : pitch === chord.fifth
            ? FITS.fifth
            : FITS.outside;
    fit += 4 * length * worth * (Math.abs(begin - from) < 1e-9 ? STRONG : 1);
  }
  return fit;
}

function firstSounding(notes: Unrolled['notes'], from: number): number {
  let [low, high] = [0, notes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const { onset, duration } = notes[middle]!;
    if (toNumber(onset) + toNumber(duration) <= from + 1e-9) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * For each stretch the chord of the best whole: fits summed, less a cost for each change, with home (the first) at the end.
 * @param fits `fits[i][c]` of chord c on stretch i
 */
export function bestChords(fits: readonly (readonly number[])[]): number[] {
  if (fits.length === 0) return [];
  const count = fits[0]!.length;
  let best = fits[0]!.slice();
  const cameFrom: number[][] = [];
  for (const own of fits.slice(1)) {
    let leader = 0;
    for (let c = 1; c < count; c++) if (best[c]! > best[leader]!) leader = c;
    const from = best.map((score, c) => (best[leader]! - CHANGE > score ? leader : c));
    cameFrom.push(from);
    best = own.map((fit, c) => fit + (from[c] === c ? best[c]! : best[leader]! - CHANGE));
  }
  best[0]! += HOME_AT_THE_END;
  let chord = best.indexOf(Math.max(...best));
  const path = [chord];
  for (let i = cameFrom.length - 1; i >= 0; i--) path.unshift((chord = cameFrom[i]![chord]!));
  return path;
}

/** Chord symbols where they are played. */
function givenChords({ notes }: Unrolled): { readonly at: number; readonly chord: Chord }[] {
  return notes.flatMap(({ note, onset }) => {
    const chord = note.chord === undefined ? null : parseChord(note.chord);
    return chord ? [{ at: toNumber(onset), chord }] : [];
  });
}
