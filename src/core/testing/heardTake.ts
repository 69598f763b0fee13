import type { TuneReport } from '#core/report';
import { type Expected, type ExpectedNote, expectedOf, type Heard, type HeardNote } from '#core/take';

/** A visit of ten milliseconds a frame, on the way. */
const visitOf = (note: number, from: number, to: number) => ({
  note,
  from: Math.round(100 * from),
  to: Math.round(100 * to),
  leftOut: 0,
  isJump: false,
});

/** How a note of a made-up take differs from one played as planned. */
type Change = (note: ExpectedNote, i: number) => Partial<HeardNote>;

/** What would be heard of a plan that is played note by note as it stands, but for what is changed. */
export function heardTake(
  report: TuneReport,
  change: Change = () => ({}),
  options: Parameters<typeof expectedOf>[1] = {},
): { readonly expected: Expected; readonly heard: Heard } {
  const expected = expectedOf(report, options);
  const plain = expected.notes.map((note, i): HeardNote => {
    const onset = note.at + 1;
    return {
      note,
      visit: visitOf(i, onset, onset + note.seconds),
      heard: true,
      onset,
      onsetUncertaintyMs: 3,
      end: onset + note.seconds,
      soundsUntil: onset + note.sounding,
      offMs: 0,
      slower: 1,
      cents: 0,
      centsUncertainty: 1,
      pitch: { cents: 0, uncertainty: 1, isShared: false, curve: [] },
      otherCents: null,
      level: -20,
      confidence: 1,
      strays: [],
      isPassedOver: false,
      isFollowed: i + 1 < expected.notes.length,
      before: expected.notes[i - 1] ?? null,
      beforeOnset: i > 0 ? expected.notes[i - 1]!.at + 1 : NaN,
    };
  });
  const notes = plain.map((one, i) => ({ ...one, ...change(one.note, i) }));
  return { expected, heard: { notes, added: [], jumps: [], leftOut: [] } };
}

/** The same from other beginnings: where each note ends follows from them. */
export function heardAt(report: TuneReport, onsetOf: (note: ExpectedNote, i: number) => number) {
  const { expected, heard } = heardTake(report);
  const onsets = expected.notes.map(onsetOf);
  const notes = heard.notes.map((one, i): HeardNote => {
    const end = onsets[i + 1] ?? onsets[i]! + one.note.seconds;
    return {
      ...one,
      onset: onsets[i]!,
      end,
      soundsUntil: end,
      beforeOnset: onsets[i - 1] ?? NaN,
      visit: visitOf(i, onsets[i]!, end),
    };
  });
  return { expected, heard: { ...heard, notes } };
}
