import type { Visit } from './align';
import { Closer } from './closer';
import type { ExpectedNote } from './expected';
import type { Heard, HeardNote } from './heard';
import { hearNote } from './hearNote';
import type { Listener } from './listen';
import { type Onset, onsetOf, UNCLEAR_MS } from './onset';
import { RATE } from './resample';
import { HOP_SECONDS } from './spectra';
import { tempoCurve, type TempoPoint } from './tempoCurve';

/** Half of an 80 % interval where only frames tell when something began. */
const ROUGH_MS = 20;

/** What was heard of each note of the plan: the last time the player came to it. Time O(length of the take). */
export function hear(listener: Listener, followed: readonly Visit[]): Heard {
  const { notes } = listener.expected;
  const onsets = onsetsOf(listener, followed);
  const visits = ringsOn(notes, followed, onsets) ? followed.slice(0, -1) : followed;
  const tempos = temposOf(notes, visits, onsets);
  const last = new Map<number, number>();
  for (const [i, { note }] of visits.entries()) if (note !== null) last.set(note, i);
  const closer = new Closer(listener.samples, listener.expected.a4);
  const loud = loudLevel(listener.levels);
  const heardNotes = notes.map((note, k): HeardNote => {
    const i = last.get(k);
    if (i === undefined) return notPlayed(note);
    const visit = visits[i]!;
    const next = visits[i + 1];
    const passage = {
      visit,
      onset: onsets[i]!,
      tempo: tempos.get(i) ?? { slower: NaN, own: NaN },
      before: noteBefore(notes, visits, i),
      beforeOnset: onsets[i - 1]?.seconds ?? NaN,
      end: next && !next.isJump ? onsets[i + 1]!.seconds : visit.to * HOP_SECONDS,
      next: next && next.note !== null && !next.isJump ? notes[next.note]! : null,
      isLed: next !== undefined && !next.isJump,
      isFollowed: next?.note === k + 1 && !next.isJump && last.get(k + 1) === i + 1,
    };
    return hearNote({ listener, closer, loud }, note, passage);
  });
  return {
    notes: heardNotes,
    added: visits.flatMap(({ note, from, to }, i) =>
      note === null ? [{ after: visits[i - 1]?.note ?? 0, from: from * HOP_SECONDS, to: to * HOP_SECONDS }] : [],
    ),
    jumps: visits.flatMap((visit, i) => {
      const before = visits.slice(0, i).findLast(({ note }) => note !== null);
      return visit.isJump && visit.note !== null && before
        ? [{ from: before.note!, to: visit.note, at: onsets[i]!.seconds }]
        : [];
    }),
    leftOut: visits.flatMap(({ note, leftOut }) =>
      note === null ? [] : Array.from({ length: leftOut }, (_, k) => note - leftOut + k),
    ),
  };
}

/** Whether the last note is none: a string that rings on after the end of a pass, as which the next one would begin. */
function ringsOn(notes: readonly ExpectedNote[], visits: readonly Visit[], onsets: readonly Onset[]): boolean {
  const last = visits[visits.length - 1]?.note ?? null;
  return (
    last !== null &&
    visits.length > 1 &&
    notes[last]!.isPassStart &&
    onsets[visits.length - 1]!.uncertaintyMs >= UNCLEAR_MS
  );
}

function noteBefore(notes: readonly ExpectedNote[], visits: readonly Visit[], i: number): ExpectedNote | null {
  const before = visits[i - 1]?.note ?? null;
  return before === null ? null : notes[before]!;
}

/** When each visit began, as exactly as it can be told. */
function onsetsOf({ samples, expected, length }: Listener, visits: readonly Visit[]): Onset[] {
  return visits.map((visit, i) => {
    const rough = visit.from * HOP_SECONDS;
    if (visit.note === null) return { seconds: rough, uncertaintyMs: ROUGH_MS };
    const within = {
      from: i > 0 ? (visits[i - 1]!.from + 2) * HOP_SECONDS : 0,
      to: Math.min(length / RATE, (visit.to - 1) * HOP_SECONDS),
    };
    return onsetOf(samples, expected.notes[visit.note]!, noteBefore(expected.notes, visits, i), rough, within);
  });
}

/** The player's own time about each visit to a note of the plan. */
function temposOf(
  notes: readonly ExpectedNote[],
  visits: readonly Visit[],
  onsets: readonly Onset[],
): Map<number, TempoPoint> {
  let run = 0;
  const timed = visits.flatMap(({ note, isJump }, i) => {
    if (isJump) run += 1;
    return note === null ? [] : [{ i, at: notes[note]!.at, onset: onsets[i]!.seconds, run }];
  });
  return new Map(tempoCurve(timed).map((point, k) => [timed[k]!.i, point]));
}

function notPlayed(note: ExpectedNote): HeardNote {
  return {
    note,
    visit: null,
    heard: false,
    onset: NaN,
    onsetUncertaintyMs: NaN,
    end: NaN,
    soundsUntil: NaN,
    offMs: NaN,
    slower: NaN,
    cents: NaN,
    centsUncertainty: NaN,
    pitch: null,
    otherCents: null,
    level: NaN,
    confidence: 0,
    strays: [],
    isFollowed: false,
    isPassedOver: false,
    before: null,
    beforeOnset: NaN,
  };
}

/** Level that a twentieth of the frames are above. */
function loudLevel(levels: readonly number[]): number {
  const sorted = Float64Array.from(levels).sort();
  return sorted[Math.floor(0.95 * (sorted.length - 1))] ?? -100;
}
