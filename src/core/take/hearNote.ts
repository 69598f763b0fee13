import type { Seconds } from '#core/base';
import { type CloseFrame, type Closer, type Stray, straysOf } from './closer';
import type { ExpectedNote } from './expected';
import type { HeardNote, Passage } from './heard';
import type { Listener } from './listen';
import { envelope } from './measure';
import { type NotePitch, pitchNear } from './pitchOf';
import { HOP_SECONDS } from './spectra';

/** Agreement beyond which a note is there, and surely there. */
const THERE = { least: 0.22, sure: 0.6 } as const;
/** Share of a note's middle in which another pitch is there, for it to be there instead. */
const MOSTLY = 0.55;
/** A finger that stood instead of brushing was down for so long before the note. */
const BRUSHED: Seconds = 0.1;
/** Share of its length below which nothing is a note. */
const TOO_SHORT = 0.4;
/** The note before is still seen for so long. */
const NEIGHBOUR: Seconds = 0.02;
/** A pitch farther off than this is not the note's. */
const OFF_CENTS = 70;
/** Frames below so many dB under the loud ones of the note's take are silent. */
const NOTHING_BELOW = 26;

/** Where a note is heard in. */
export interface Hearing {
  readonly listener: Listener;
  readonly closer: Closer;
  /** Level of the loud notes of the take. */
  readonly loud: number;
}

/** What was heard of a note on the player's way. */
export function hearNote({ listener, closer, loud }: Hearing, note: ExpectedNote, passage: Passage): HeardNote {
  const { samples, levels } = listener;
  const { visit, onset, tempo, before, end, isFollowed } = passage;
  const pace = Number.isNaN(tempo.slower) ? 1 : tempo.slower;
  const span = { from: onset.seconds, to: soundsUntil(note, passage, pace) };
  const level = levelIn(levels, span);
  const frames = closer.framesOf(note, span.from, span.to);
  const planned = note.seconds * pace;
  const { own, otherMidi } = middleOf(
    frames,
    leadsOn(frames, span, planned) ? { ...span, to: span.from + planned } : span,
  );
  const strays = straysOf(note.marks.includes('flick') ? closer.framesOf(note, span.from - BRUSHED, span.to) : frames);
  const late = comesLate(frames, strays, before, span);
  const pitched = late === null ? span : { ...span, from: late };
  const pitch = pitchNear(samples, note.hertz, note.secondHertz === null ? [] : [note.secondHertz], pitched);
  const isPassedOver =
    late === null && (isCutOff(passage, otherMidi, planned) || wasHeldOver(samples, note, passage, otherMidi));
  const otherCents = otherMidi !== null && !isPassedOver && late === null ? 100 * (otherMidi - note.midi) : null;
  const isThere = level > loud - NOTHING_BELOW && own >= THERE.least && !isPassedOver && isNear(pitch);
  return {
    note,
    visit,
    heard: isThere || otherCents !== null,
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
    confidence: Math.max(0, Math.min(1, own / THERE.sure)) * (otherCents === null ? 1 : 0.5),
    strays,
    isFollowed,
    isPassedOver,
    before,
    beforeOnset: passage.beforeOnset,
  };
}

/** Until when a note should sound: what follows it, but for a rest after it, or where nothing follows. */
function soundsUntil(note: ExpectedNote, { onset, end, isLed }: Passage, pace: number): Seconds {
  const hasRest = note.seconds - note.sounding > 0.02;
  const until = hasRest || !isLed ? Math.min(end, onset.seconds + note.sounding * pace + 0.02) : end;
  return Math.max(onset.seconds + 0.02, until);
}

/** What is cut off at once, with the pitch of the next note, is the beginning of that one. */
function isCutOff({ next, onset, end }: Passage, otherMidi: number | null, planned: Seconds): boolean {
  return otherMidi !== null && otherMidi === next?.midi && end - onset.seconds < TOO_SHORT * planned;
}

const isNear = (pitch: NotePitch | null) => pitch !== null && Math.abs(pitch.cents) < OFF_CENTS;

/** A note comes late that is there for so long after what was there instead. */
const AFTER_ALL: Seconds = 0.03;

/** When a note comes whose time begins with the pitch of the note before; null: it is there, or never comes. */
function comesLate(
  frames: readonly CloseFrame[],
  strays: readonly Stray[],
  before: ExpectedNote | null,
  { from }: { readonly from: Seconds },
): Seconds | null {
  const held = strays.find((stray) => stray.midi === before?.midi && stray.from < from + NEIGHBOUR);
  if (!held || held.to < from + 2 * NEIGHBOUR) return null;
  const after = frames.filter(({ time, isOther, own }) => time > held.to && !isOther && own >= THERE.least);
  return after.length * HOP_SECONDS >= AFTER_ALL ? held.to : null;
}

/** A note before may rise for so long after its own beginning. */
const BEFORE_RISES: Seconds = 0.1;

/** Whether the note before was held, or rang on, through a note's time: its pitch is there, and does not begin anew. */
function wasHeldOver(samples: Float32Array, note: ExpectedNote, passage: Passage, otherMidi: number | null): boolean {
  const { before } = passage;
  if (before === null) return false;
  if (otherMidi !== null) return before.midi === otherMidi && !risesAgain(samples, before.hertz, passage, RISEN.turn);
  const repeats = note.startsStroke && note.restBefore === 0 && before.midi === note.midi;
  return repeats && !risesAgain(samples, note.hertz, passage, RISEN.any);
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
function risesAgain(samples: Float32Array, hertz: number, passage: Passage, times: number): boolean {
  const { onset, beforeOnset } = passage;
  const earliest = Number.isNaN(beforeOnset) ? -Infinity : beforeOnset + BEFORE_RISES;
  const from = Math.max(onset.seconds - 0.08, earliest);
  const level = envelope(samples, hertz, [], { from, to: onset.seconds + 0.08, step: 0.004, window: 0.018 });
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
