import type { Seconds } from '#core/base';
import type { Visit } from './align';
import { type CloseFrame, Closer, type Stray, straysOf } from './closer';
import type { ExpectedNote } from './expected';
import type { Listener } from './listen';
import { envelope } from './measure';
import { type Onset, onsetOf } from './onset';
import { type NotePitch, pitchNear } from './pitchOf';
import { RATE } from './resample';
import { HOP_SECONDS } from './spectra';
import { tempoCurve, type TempoPoint } from './tempoCurve';

/** Agreement beyond which a note is there, and surely there. */
const THERE = { least: 0.22, sure: 0.6 } as const;
/** Share of a note's middle in which another pitch is there, for it to be there instead. */
const MOSTLY = 0.55;
/** A finger that stood instead of brushing was down for so long before the note. */
const BRUSHED: Seconds = 0.1;
/** The note before is still seen for so long. */
const NEIGHBOUR: Seconds = 0.02;
/** Half of an 80 % interval where only frames tell when something began. */
const ROUGH_MS = 20;
/** A pitch farther off than this is not the note's. */
const OFF_CENTS = 70;
/** Frames below so many dB under the loud ones of the note's take are silent. */
const NOTHING_BELOW = 26;

/** A note of the plan as it was played. */
export interface HeardNote {
  readonly note: ExpectedNote;
  /** null: the player never came here. */
  readonly visit: Visit | null;
  readonly heard: boolean;
  readonly onset: Seconds;
  readonly onsetUncertaintyMs: number;
  /** Where the next note begins. */
  readonly end: Seconds;
  /** Until when it should sound: its end, but for a rest after it. */
  readonly soundsUntil: Seconds;
  /** Against the player's own time about it; NaN: too little around it. */
  readonly offMs: number;
  /** How much slower than the plan the player is about here. */
  readonly slower: number;
  readonly cents: number;
  readonly centsUncertainty: number;
  readonly pitch: NotePitch | null;
  /** The pitch that was played instead: cents from the one meant. */
  readonly otherCents: number | null;
  readonly level: number;
  readonly confidence: number;
  /** Other pitches in it, as long as they were there. */
  readonly strays: readonly Stray[];
  /** The note before it was held through its time. */
  readonly isHeldOver: boolean;
  /** The next note of the plan came right after it. */
  readonly isFollowed: boolean;
  /** The note before it on the player's way, and when that began. */
  readonly before: ExpectedNote | null;
  readonly beforeOnset: Seconds;
}

/** Something that was played and is not in the plan. */
export interface AddedNote {
  /** The expected note after which it came. */
  readonly after: number;
  readonly from: Seconds;
  readonly to: Seconds;
}

/** Notes played again, or passed over, at a moment. */
export interface Jump {
  readonly from: number;
  readonly to: number;
  readonly at: Seconds;
}

export interface Heard {
  readonly notes: readonly HeardNote[];
  readonly added: readonly AddedNote[];
  readonly jumps: readonly Jump[];
  /** Expected notes that were left out on a way that went on. */
  readonly leftOut: readonly number[];
}

/** A visit to a note on the player's way, with what came of it. */
interface Passage {
  readonly visit: Visit;
  readonly onset: Onset;
  readonly tempo: TempoPoint;
  /** The note before it on the way, if it was one of the plan. */
  readonly before: ExpectedNote | null;
  readonly beforeOnset: Seconds;
  readonly end: Seconds;
  readonly isFollowed: boolean;
}

/** What was heard of each note of the plan: the last time the player came to it. Time O(length of the take). */
export function hear(listener: Listener, visits: readonly Visit[]): Heard {
  const { notes } = listener.expected;
  const onsets = onsetsOf(listener, visits);
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

interface Hearing {
  readonly listener: Listener;
  readonly closer: Closer;
  /** Level of the loud notes of the take. */
  readonly loud: number;
}

function hearNote({ listener, closer, loud }: Hearing, note: ExpectedNote, passage: Passage): HeardNote {
  const { samples, levels } = listener;
  const { visit, onset, tempo, before, end, isFollowed } = passage;
  const pace = Number.isNaN(tempo.slower) ? 1 : tempo.slower;
  const hasRest = note.seconds - note.sounding > 0.02;
  const until = hasRest ? Math.min(end, onset.seconds + note.sounding * pace + 0.02) : end;
  const span = { from: onset.seconds, to: Math.max(onset.seconds + 0.02, until) };
  const level = levelIn(levels, span);
  const frames = closer.framesOf(note, span.from, span.to);
  const planned = note.seconds * pace;
  const { own, otherMidi } = middleOf(
    frames,
    leadsOn(frames, span, planned) ? { ...span, to: span.from + planned } : span,
  );
  const pitch = pitchNear(samples, note.hertz, note.secondHertz === null ? [] : [note.secondHertz], span);
  const isHeldOver = wasHeldOver(samples, note, before, otherMidi, {
    onset: onset.seconds,
    beforeOnset: Number.isNaN(passage.beforeOnset) ? -Infinity : passage.beforeOnset,
  });
  const isOther = otherMidi !== null && !isHeldOver;
  const otherCents = isOther ? 100 * (otherMidi - note.midi) : null;
  const isNear = pitch !== null && Math.abs(pitch.cents) < OFF_CENTS;
  const isThere = level > loud - NOTHING_BELOW && own >= THERE.least && otherMidi === null && !isHeldOver && isNear;
  return {
    note,
    visit,
    heard: isThere || isOther,
    onset: onset.seconds,
    onsetUncertaintyMs: onset.uncertaintyMs,
    end,
    soundsUntil: span.to,
    offMs: 1000 * (onset.seconds - tempo.own),
    slower: tempo.slower,
    cents: otherCents ?? pitch?.cents ?? NaN,
    centsUncertainty: pitch?.uncertainty ?? NaN,
    pitch,
    otherCents,
    level,
    confidence: Math.max(0, Math.min(1, own / THERE.sure)) * (isOther ? 0.5 : 1),
    strays: straysOf(note.marks.includes('flick') ? closer.framesOf(note, span.from - BRUSHED, span.to) : frames),
    isFollowed,
    isHeldOver,
    before,
    beforeOnset: passage.beforeOnset,
  };
}

/** When a note and the one before it began. */
interface Begins {
  readonly onset: Seconds;
  readonly beforeOnset: Seconds;
}

/** A note before may rise for so long after its own beginning. */
const BEFORE_RISES: Seconds = 0.1;

/** Whether the note before was held, or rang on, through a note's time: its pitch is there, and does not begin anew. */
function wasHeldOver(
  samples: Float32Array,
  note: ExpectedNote,
  before: ExpectedNote | null,
  otherMidi: number | null,
  begins: Begins,
): boolean {
  if (before === null) return false;
  if (otherMidi !== null) return before.midi === otherMidi && !risesAgain(samples, before.hertz, begins, RISEN.turn);
  const repeats = note.startsStroke && note.restBefore === 0 && before.midi === note.midi;
  return repeats && !risesAgain(samples, note.hertz, begins, RISEN.any);
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
    isHeldOver: false,
    before: null,
    beforeOnset: NaN,
  };
}

/** A note that is followed by one too many lasts so many times its length, and sounds for so long first. */
const ADDED = { times: 1.3, first: 0.045 } as const;

/** Whether a note is there first and something else after it, in more time than it should have. */
function leadsOn(
  frames: readonly CloseFrame[],
  { from, to }: { readonly from: Seconds; readonly to: Seconds },
  planned: Seconds,
): boolean {
  const first = frames.find(({ isOther, time }) => isOther && time > from + NEIGHBOUR);
  return to - from > ADDED.times * planned && first !== undefined && first.time - from >= ADDED.first + 0.5 * NEIGHBOUR;
}

/** A turn of the bow is heard as a rise to so many times what was before it; what does not rise even so little was held. */
const RISEN = { turn: 1.35, any: 1.12 } as const;

/** Whether a pitch that sounded before begins anew about a time. */
function risesAgain(samples: Float32Array, hertz: number, { onset, beforeOnset }: Begins, times: number): boolean {
  const from = Math.max(onset - 0.08, beforeOnset + BEFORE_RISES);
  const level = envelope(samples, hertz, [], { from, to: onset + 0.08, step: 0.004, window: 0.018 });
  // Too little lies between: it cannot be told.
  if (!(level.length >= 12)) return true;
  let least = Infinity;
  return level.some((value) => {
    least = Math.min(least, value);
    return value > times * least;
  });
}

/** How well a note agrees in its middle, and which other pitch is there for most of it. */
function middleOf(frames: readonly CloseFrame[], { from, to }: { readonly from: Seconds; readonly to: Seconds }) {
  const length = to - from;
  const inside = frames.filter(
    ({ time }) => time >= from + Math.min(0.04, 0.3 * length) && time <= to - Math.min(0.03, 0.25 * length),
  );
  const middle = inside.length > 0 ? inside : frames;
  const own = middle.reduce((sum, frame) => sum + frame.own, 0) / Math.max(1, middle.length);
  const votes = new Map<number, number>();
  for (const { isOther, midi } of middle) if (isOther) votes.set(midi, (votes.get(midi) ?? 0) + 1);
  const most = [...votes].reduce((a, b) => (b[1] > a[1] ? b : a), [NaN, 0]);
  return { own, otherMidi: most[1] > MOSTLY * middle.length ? most[0] : null };
}

function levelIn(levels: readonly number[], { from, to }: { readonly from: Seconds; readonly to: Seconds }): number {
  const first = Math.floor(from / HOP_SECONDS);
  const end = Math.max(first + 1, Math.min(levels.length, Math.ceil(to / HOP_SECONDS)));
  let sum = 0;
  for (let t = first; t < end; t++) sum += 10 ** ((levels[t] ?? -100) / 10);
  return 10 * Math.log10(sum / (end - first) + 1e-12);
}

/** Level that a twentieth of the frames are above. */
function loudLevel(levels: readonly number[]): number {
  const sorted = Float64Array.from(levels).sort();
  return sorted[Math.floor(0.95 * (sorted.length - 1))] ?? -100;
}
