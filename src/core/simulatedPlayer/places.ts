import { toNumber } from '#core/base';
import { midiOf, type Pitch } from '#core/pitch';
import type { TuneReport } from '#core/report';
import type { MistakeKind } from '#core/take';
import { PLACES } from '#core/tune';

/** Where a mistake can be made at all: shortest notes in seconds, and lengths in beats. */
const LEAST = {
  late: 0.13,
  added: 0.1,
  drone: 0.25,
  scratch: 0.16,
  hold: 0.45,
  vibrato: 0.5,
  wrong: 0.09,
  pulse: 0.18,
  rest: 0.12,
  cloudy: 0.2,
} as const;

/** The played notes on which a kind of mistake can be made. */
export function placesOf(report: TuneReport, kind: MistakeKind): number[] {
  const { unrolled, fingers, figures, timing } = report;
  const { notes } = unrolled;
  const { onsets } = timing;
  const place = (i: number) => PLACES.indexOf(fingers.get(notes[i]!.note.id)!.place);
  const isOpen = (i: number) => fingers.get(notes[i]!.note.id)!.semitones === 0;
  const marked = (i: number, ...marks: readonly string[]) =>
    notes[i]!.note.marks?.some((mark) => marks.includes(mark)) ?? false;
  const seconds = (i: number) => (onsets[i + 1] ?? timing.total) - onsets[i]!;
  const isPlain = (i: number) => !notes[i]!.note.marks?.length && !notes[i]!.note.graceNotes?.length;
  const isAlone = (i: number) => notes[i]!.note.drone === undefined && !notes[i]!.note.stops?.length;
  const startsStroke = (i: number) => figures.bowed[i]!.inStroke === 1;
  const restBefore = (i: number) => timing.rests[i] ?? 0;
  const openBeside = (i: number) => {
    const { drone } = notes[i]!.note;
    return drone && report.tune.tuning[place(i) + (drone === 'upper' ? 1 : -1)];
  };
  // An octave or a unison is one sound: what is done to one string is not told from the other.
  const isOneSound = (one: Pitch, other: Pitch) => (midiOf(one) - midiOf(other)) % 12 === 0;
  const hasOctave = (i: number) => {
    const open = openBeside(i);
    return open !== undefined && isOneSound(notes[i]!.note.pitch, open);
  };
  const second = (i: number) => openBeside(i) !== undefined && isPlain(i) && !hasOctave(i);
  const isSkippedApart = (i: number) => {
    const open = report.tune.tuning[Math.round((place(i - 1) + place(i)) / 2)]!;
    return ![notes[i - 1]!, notes[i]!].some(({ note }) => isOneSound(note.pitch, open));
  };
  const first = (i: number) => i === 0;
  const last = (i: number) => i === notes.length - 1;
  const fits: Record<MistakeKind, (i: number) => boolean> = {
    sharp: (i) => !isOpen(i) && isPlain(i) && !hasOctave(i) && seconds(i) >= LEAST.wrong,
    flat: (i) => !isOpen(i) && isPlain(i) && !hasOctave(i) && seconds(i) >= LEAST.wrong,
    'wrong-note': (i) => isPlain(i) && seconds(i) >= LEAST.wrong && !last(i),
    'left-out': (i) =>
      !first(i) &&
      !last(i) &&
      isPlain(i) &&
      seconds(i) >= LEAST.wrong &&
      !samePitch(report, i, i - 1) &&
      !samePitch(report, i, i + 1),
    // Before a flick it cannot be told from a finger that stood.
    'added-note': (i) => isPlain(i) && seconds(i) >= LEAST.added && !last(i) && !marked(i + 1, 'flick'),
    'started-again': (i) => i >= 6 && i < notes.length - 4,
    'wrong-pass': (i) =>
      unrolled.passes.some(({ firstNote }, pass) => pass > 0 && firstNote === i && unrolled.passes.length > 2),
    'late-finger': (i) =>
      !first(i) &&
      isPlain(i) &&
      isPlain(i - 1) &&
      startsStroke(i) &&
      !isOpen(i) &&
      restBefore(i) === 0 &&
      place(i) === place(i - 1) &&
      !samePitch(report, i, i - 1) &&
      seconds(i) >= LEAST.late,
    'bumped-drone': (i) => second(i) && seconds(i) >= LEAST.drone,
    'dropped-second': (i) => second(i) && seconds(i) >= LEAST.drone,
    'skipped-string-sounds': (i) =>
      (figures.arm.crossings[i]?.skips ?? 0) > 0 && seconds(i) >= LEAST.late && isSkippedApart(i),
    'rushed-turn': (i) => restBefore(i) >= LEAST.rest && place(i) !== place(i - 1),
    scratch: (i) => startsStroke(i) && isPlain(i) && isAlone(i) && seconds(i) >= LEAST.scratch,
    'flick-became-note': (i) => marked(i, 'flick') && seconds(i) >= LEAST.late,
    'uneven-triplet': (i) => marked(i, 'bowed-triplet') && startsStroke(i) && (last(i) || startsStroke(i + 1)),
    'pulse-stayed': (i) => marked(i, 'pulse') && seconds(i) >= LEAST.pulse,
    rushing: (i) => onsets[i]! > 2 && onsets[i]! < timing.total - 5 && isBarStart(report, i),
    dragging: (i) => onsets[i]! > 2 && onsets[i]! < timing.total - 5 && isBarStart(report, i),
    'late-entry': (i) => restBefore(i) >= LEAST.rest,
    'hold-cut-short': (i) => !last(i) && isPlain(i) && seconds(i) >= LEAST.hold && restBefore(i + 1) === 0,
    'silence-cut-short': (i) => restBefore(i) >= LEAST.rest && place(i) === place(i - 1),
    'staccato-runs-together': (i) =>
      marked(i, 'staccato') && !last(i) && restBefore(i + 1) === 0 && seconds(i) >= LEAST.late,
    'narrow-vibrato': (i) => marked(i, 'vibrato', 'vibrato-growing') && seconds(i) >= LEAST.vibrato && !hasOctave(i),
    // Only a note that comes again can be told from its usual sound.
    'cloudy-low-string': (i) =>
      place(i) === 0 &&
      isPlain(i) &&
      seconds(i) >= LEAST.cloudy &&
      notes.filter((_, k) => place(k) === 0 && samePitch(report, i, k)).length > 2,
  };
  return notes.map((_, i) => i).filter((i) => fingers.get(notes[i]!.note.id) !== undefined && fits[kind](i));
}

function samePitch({ unrolled: { notes } }: TuneReport, one: number, other: number): boolean {
  const [a, b] = [notes[one]?.note.pitch, notes[other]?.note.pitch];
  return a !== undefined && b !== undefined && a.letter === b.letter && a.alter === b.alter && a.octave === b.octave;
}

function isBarStart({ unrolled }: TuneReport, index: number): boolean {
  const { onset } = unrolled.notes[index]!;
  return unrolled.bars.some((bar) => Math.abs(toNumber(bar.onset) - toNumber(onset)) < 1e-9);
}
