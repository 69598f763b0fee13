import { type Seconds, toNumber } from '#core/base';
import { hertzAt, pitchGesture } from '#core/performance';
import { midiOf, REFERENCE_PITCH } from '#core/pitch';
import type { TuneReport } from '#core/report';
import { TRIPLET_TIME, wholeNoteSeconds } from '#core/tempo';
import { type NoteMark, PLACES } from '#core/tune';

/** A note of the plan as it should be heard. */
export interface ExpectedNote {
  /** Of the played note in the plan, and which time round. */
  readonly index: number;
  readonly loop: number;
  /** From the span's beginning; until the next note; and how long of it the note lasts, without a rest after it. */
  readonly at: Seconds;
  readonly seconds: Seconds;
  readonly sounding: Seconds;
  readonly restBefore: Seconds;
  /** Held longer than it is written, as airs are played. */
  readonly isHeld: boolean;
  readonly hertz: number;
  /** The same by its number, however the fiddle is tuned. */
  readonly midi: number;
  /** String by place, and the finger's distance from its nut. */
  readonly place: number;
  readonly semitones: number;
  /** The string that sounds along, if any; -1: none. */
  readonly secondHertz: number | null;
  readonly secondIsOpen: boolean;
  /** Pitches with which it may begin, ornaments first. */
  readonly begins: readonly number[];
  /** Which pitches may sound together at one time or another of the note, the plain note first. */
  readonly voices: readonly (readonly number[])[];
  readonly hasGesture: boolean;
  /** Share of the dance's beat that lies before it in its bar. */
  readonly beatShare: number;
  readonly startsStroke: boolean;
  /** Time of the three strokes of a bowed triplet. */
  readonly tripletSeconds: Seconds;
  readonly marks: readonly NoteMark[];
  /** Open pitch of a string that the bow passes over on its way here; null: none. */
  readonly skippedHertz: number | null;
  readonly skippedMidi: number | null;
  /** A beginning of a bar, of a pass: where one begins again. */
  readonly isBarStart: boolean;
  readonly isPassStart: boolean;
}

export interface Expected {
  readonly notes: readonly ExpectedNote[];
  /** Notes of one time round. */
  readonly perLoop: number;
  /** Pitch of A4 to which the fiddle is tuned. */
  readonly a4: number;
}

/** A beginning counts as such for so long. */
const BEGINS_WITHIN: Seconds = 0.07;

/**
 * What should be heard of a span of a checked plan, played so many times over, on a fiddle tuned to `a4`.
 * Time O(n).
 */
export function expectedOf(
  report: TuneReport,
  options: {
    readonly span?: { readonly from: number; readonly to: number } | null;
    readonly loops?: number;
    readonly a4?: number;
  } = {},
): Expected {
  const { unrolled, figures, timing, tune, settings } = report;
  const { loops = 1, a4 = REFERENCE_PITCH.usual } = options;
  const span = options.span ?? { from: 0, to: unrolled.notes.length };
  const tuned = a4 / REFERENCE_PITCH.usual;
  const openHertz = tune.tuning.map((open) => tuned * hertzAt(open));
  const endOf = (i: number) => timing.onsets[i + 1] ?? timing.total;
  const from = timing.onsets[span.from] ?? 0;
  const loopSeconds = span.to > span.from ? endOf(span.to - 1) - from : 0;
  const barStarts = new Set(unrolled.bars.map(({ passIndex, bar }) => `${passIndex} ${bar}`));
  const once = Array.from({ length: Math.max(0, span.to - span.from) }, (_, k) => {
    const index = span.from + k;
    const second = secondOf(report, index, tuned, openHertz);
    return {
      index,
      at: timing.onsets[index]! - from,
      seconds: endOf(index) - timing.onsets[index]!,
      sounding: Math.min(endOf(index) - timing.onsets[index]!, timing.durations[index]!),
      restBefore: k > 0 ? (timing.rests[index] ?? 0) : 0,
      isHeld: (unrolled.notes[index]!.note.hold ?? 1) > 1,
      ...second,
      ...pitchesOf(report, index, tuned, second.secondHertz),
      ...handOf(report, index),
      beatShare: beatShareOf(report, index),
      startsStroke: figures.bowed[index]!.inStroke === 1,
      tripletSeconds: Math.min(
        endOf(index) - timing.onsets[index]!,
        TRIPLET_TIME * wholeNoteSeconds(settings.bpm, settings.beat),
      ),
      marks: unrolled.notes[index]!.note.marks ?? [],
      ...(k > 0 ? skippedOf(report, index, openHertz) : NOTHING_SKIPPED),
      isBarStart: barStarts.delete(`${unrolled.notes[index]!.passIndex} ${unrolled.notes[index]!.bar}`),
      isPassStart: unrolled.passes.some(({ firstNote }) => firstNote === index),
    };
  });
  const notes = Array.from({ length: loops }, (_, loop) =>
    once.map((note): ExpectedNote => ({ ...note, loop, at: note.at + loop * loopSeconds })),
  ).flat();
  return { notes, perLoop: once.length, a4 };
}

function beatShareOf({ unrolled, settings }: TuneReport, index: number): number {
  const { beat, meter } = unrolled.notes[index]!;
  const beats = (beat - 1) / meter.den / toNumber(settings.beat);
  return beats - Math.floor(beats + 1e-9);
}

/** The string that sounds along with a note: a stopped one, or an open neighbour. */
function secondOf({ unrolled, fingers }: TuneReport, index: number, tuned: number, openHertz: readonly number[]) {
  const { note } = unrolled.notes[index]!;
  const stop = fingers.get(note.id)?.stops?.[0] && note.stops?.[0];
  if (stop) return { secondHertz: tuned * hertzAt(stop), secondIsOpen: false };
  const { place } = handOf({ unrolled, fingers }, index);
  const open = note.drone && openHertz[place + (note.drone === 'upper' ? 1 : -1)];
  return { secondHertz: open ?? null, secondIsOpen: open !== undefined };
}

/** Where the hand is. */
function handOf({ unrolled, fingers }: Pick<TuneReport, 'unrolled' | 'fingers'>, index: number) {
  const fingering = fingers.get(unrolled.notes[index]!.note.id);
  return {
    place: fingering?.reachable ? PLACES.indexOf(fingering.place) : PLACES.length - 1,
    semitones: fingering?.semitones ?? 1,
  };
}

/** The pitches a note goes through. */
function pitchesOf({ unrolled, timing, tune }: TuneReport, index: number, tuned: number, second: number | null) {
  const played = unrolled.notes[index]!;
  const { note } = played;
  const seconds = (timing.onsets[index + 1] ?? timing.total) - timing.onsets[index]!;
  const gesture = pitchGesture(played, seconds, tune.key, unrolled.notes[index + 1], note.marks ?? []);
  const hertz = tuned * hertzAt(note.pitch);
  const others = [...new Set(gesture.map((move) => tuned * move.hertz))].filter(
    (one) => Math.abs(one / hertz - 1) > 1e-6,
  );
  const pitches = [hertz, ...others];
  const begins = gesture.filter(({ after }) => after < BEGINS_WITHIN).map((move) => tuned * move.hertz);
  return {
    hertz,
    midi: midiOf(note.pitch),
    begins: [...new Set(begins)],
    voices: second === null ? pitches.map((one) => [one]) : pitches.flatMap((one) => [[one, second], [one]]),
    hasGesture: gesture.length > 1,
  };
}

const NOTHING_SKIPPED = { skippedHertz: null, skippedMidi: null } as const;

/** The open string between that of the note before and a note's own. */
function skippedOf(report: TuneReport, index: number, openHertz: readonly number[]) {
  if ((report.figures.arm.crossings[index]?.skips ?? 0) === 0) return NOTHING_SKIPPED;
  const [before, own] = [handOf(report, index - 1).place, handOf(report, index).place];
  const between = Math.round((before + own) / 2);
  if (between === before || between === own) return NOTHING_SKIPPED;
  return { skippedHertz: openHertz[between]!, skippedMidi: midiOf(report.tune.tuning[between]!) };
}
