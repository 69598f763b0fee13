import { type BeatsPerMinute, type Fraction, type Seconds, toNumber } from '#core/base';
import { isCompound, type PlayedBar, type Unrolled } from '#core/tune';
import { hasDottedBeats, wholeNoteSeconds } from './beat';
import { type Lilt, liltLeft, liltShift, STRAIGHT } from './lilt';
import { freeLengths } from './rubato';

/** Places and lengths of played notes, in whole notes. `x[i]` belongs to note i. */
interface Lengths {
  readonly onsets: readonly number[];
  readonly durations: readonly number[];
  /** Silence before each note. */
  readonly rests: readonly number[];
}

/** What the full lilt adds to places and lengths. */
interface Lean extends Lengths {
  /** How much later than written the place stands at which the tune begins, in a pickup within a beat; all counts from there. */
  readonly start: number;
  /** What it adds to the whole tune. */
  readonly total: number;
}

/** A tune's notes in time, at no tempo yet. */
export interface NoteTimes {
  /** By the page. */
  readonly written: Lengths;
  /** As they are played before any lilt: by the page, or freely. */
  readonly played: Lengths;
  /** It is played freely: by its holds, breaths and paces. */
  readonly isFree: boolean;
  /** What the full lilt adds to each length; null where every length stays as it is written. */
  readonly lean: Lean | null;
  /** The whole tune, in whole notes. */
  readonly total: number;
  readonly lilt: Lilt;
  /** The beat of the dance, and the beat that the lilt divides, in whole notes. */
  readonly beat: Fraction;
  readonly liltedBeat: number;
}

/** Notes in seconds. */
export interface Timing {
  readonly onsets: readonly Seconds[];
  readonly durations: readonly Seconds[];
  readonly rests: readonly Seconds[];
  readonly total: Seconds;
  /** The same notes at any other tempo. */
  readonly atAnyTempo: NoteTimes;
}

const SIMPLE_BEAT = 1 / 4;
const COMPOUND_BEAT = 3 / 8;

/**
 * Where each note lies by the page, how its dotted pairs are played, and how far the lilt moves it. A tune that is played
 * freely has neither.
 *
 * Beats are counted from each bar's beginning, in a pickup back from its end; a last part of a bar that is no whole
 * beat stays even, unless a pickup follows that completes it, as it does where the tune begins again. A note from x to y
 * lasts y − x + left·(shift(y) − shift(x)) whole notes, where `left` is what tempo leaves of the lilt: so the notes of a
 * beat always sum to the beat. Time begins at the first note, wherever in its beat a pickup begins.
 * Time O(notes + bars).
 */
export function noteTimes(
  unrolled: Unrolled,
  beat: Fraction,
  lilt: Lilt = STRAIGHT,
  dottedRatio = WRITTEN_RATIO,
): NoteTimes {
  const { notes, bars, duration } = unrolled;
  const free = freeLengths(unrolled);
  const written = {
    onsets: notes.map(({ onset }) => toNumber(onset)),
    durations: notes.map((note) => toNumber(note.duration)),
    rests: notes.map(({ restBefore }) => toNumber(restBefore)),
  };
  const first = bars[0]?.meter;
  const pairs = free || dottedRatio === WRITTEN_RATIO ? null : dottedPairs(unrolled, written);
  return {
    written,
    played: free ?? (pairs ? withRatio(written, pairs, dottedRatio) : written),
    isFree: free !== null,
    lean: !free && (lilt.simple || lilt.compound) ? leanOf(written, bars, lilt, beat, pairs) : null,
    total: toNumber(duration),
    lilt,
    beat,
    liltedBeat: first && hasDottedBeats(first, beat) ? COMPOUND_BEAT : SIMPLE_BEAT,
  };
}

function leanOf(
  { onsets, durations, rests }: Lengths,
  bars: readonly PlayedBar[],
  lilt: Lilt,
  beat: Fraction,
  pairs: readonly boolean[] | null,
): Lean {
  const places = liltedBars(bars, beat);
  const [firstBar, lastBar] = [places[0], places[places.length - 1]];
  const first = firstBar ? shiftAt(firstBar, firstBar.from, lilt) : 0;
  const last = lastBar ? shiftAt(lastBar, lastBar.from + lastBar.length, lilt) : 0;
  const lean = {
    onsets: [] as number[],
    durations: [] as number[],
    rests: [] as number[],
    start: first,
    total: last - first,
  };
  let [bar, before] = [0, first];
  for (let i = 0; i < onsets.length; i++) {
    const [from, to] = [onsets[i]!, onsets[i]! + durations[i]!];
    while (bar + 1 < bars.length && places[bar + 1]!.from <= from + 1e-12) bar += 1;
    let last = bar;
    while (last + 1 < bars.length && places[last + 1]!.from <= to + 1e-12) last += 1;
    // Between the notes of a dotted pair the dance's own ratio stands.
    const start = pairs?.[i - 1] ? 0 : shiftAt(places[bar]!, from, lilt);
    const end = pairs?.[i] ? 0 : shiftAt(places[last]!, to, lilt);
    lean.onsets.push(start - first);
    lean.durations.push(end - start);
    lean.rests.push(rests[i]! > 0 ? start - before : 0);
    before = end;
  }
  return lean;
}

/** Long to short of a dotted pair as it is written. */
const WRITTEN_RATIO = 3;
/** A dotted eighth and a sixteenth, in whole notes. */
const PAIR = 1 / 4;
const DOTTED = 3 / 16;
const SHORT = 1 / 16;

/** Whether a note and the next are a dotted pair, or a snap, that fills a quarter of a simple bar. */
function dottedPairs({ notes, bars }: Unrolled, { onsets, durations, rests }: Lengths): boolean[] {
  const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;
  let bar = 0;
  return notes.map(({ passIndex, bar: number }, i) => {
    const next = notes[i + 1];
    if (!next || next.passIndex !== passIndex || next.bar !== number || rests[i + 1]! > 0) return false;
    const [a, b] = [durations[i]!, durations[i + 1]!];
    if (!(near(a, DOTTED) && near(b, SHORT)) && !(near(a, SHORT) && near(b, DOTTED))) return false;
    while (bar + 1 < bars.length && toNumber(bars[bar + 1]!.onset) <= onsets[i]! + 1e-12) bar += 1;
    const { onset, meter, isPickup, duration } = bars[bar]!;
    // Beats of a pickup stand at its end.
    const from = toNumber(onset) + (isPickup ? toNumber(duration) : 0);
    const beats = (onsets[i]! - from) / PAIR;
    return !isCompound(meter) && near(beats, Math.round(beats));
  });
}

/** Dotted pairs by another ratio of their long note to the short one; what they fill stays. */
function withRatio({ onsets, durations, rests }: Lengths, pairs: readonly boolean[], ratio: number): Lengths {
  const played = { onsets: [...onsets], durations: [...durations], rests };
  for (const [i, isPair] of pairs.entries()) {
    if (!isPair) continue;
    const short = PAIR / (1 + ratio);
    const first = durations[i]! > durations[i + 1]! ? PAIR - short : short;
    played.durations[i] = first;
    played.durations[i + 1] = PAIR - first;
    played.onsets[i + 1] = onsets[i]! + first;
  }
  return played;
}

/** A bar as the lilt sees it, in whole notes. */
interface LiltedBar {
  readonly from: number;
  readonly length: number;
  readonly isThree: boolean;
  readonly isPickup: boolean;
  /** What follows is a pickup: its last beat is completed there. */
  readonly goesOn: boolean;
}

function liltedBars(bars: readonly PlayedBar[], beat: Fraction): LiltedBar[] {
  return bars.map(({ onset, duration, meter, isPickup }, i) => ({
    from: toNumber(onset),
    length: toNumber(duration),
    isThree: hasDottedBeats(meter, beat),
    isPickup,
    goesOn: bars[(i + 1) % bars.length]!.isPickup,
  }));
}

function shiftAt({ from, length, isThree, isPickup, goesOn }: LiltedBar, at: number, lilt: Lilt): number {
  const shares = isThree ? lilt.compound : lilt.simple;
  if (!shares) return 0;
  const size = isThree ? COMPOUND_BEAT : SIMPLE_BEAT;
  // Beats stand at the bar's beginning; those of a pickup at its end.
  const odd = isPickup ? length - size * Math.ceil(length / size - 1e-9) : 0;
  const beats = (at - from - odd) / size;
  const beat = Math.floor(beats + 1e-9);
  if (!isPickup && !goesOn && (beat + 1) * size > length + 1e-9) return 0;
  return size * liltShift(shares, Math.max(0, beats - beat));
}

/** What tempo leaves of the lilt, 0 to 1. */
function leftAt({ lilt, beat, liltedBeat }: NoteTimes, bpm: BeatsPerMinute): number {
  return liltLeft(lilt, (bpm * toNumber(beat)) / liltedBeat);
}

/** The notes in seconds at a tempo of the dance's beat. Time O(n). */
export function timing(times: NoteTimes, bpm: BeatsPerMinute): Timing {
  return new TimedNotes(times, bpm);
}

class TimedNotes implements Timing {
  readonly durations: readonly Seconds[];
  readonly rests: readonly Seconds[];
  readonly total: Seconds;
  private known: readonly Seconds[] | null = null;

  constructor(
    readonly atAnyTempo: NoteTimes,
    private readonly bpm: BeatsPerMinute,
  ) {
    const { played, lean, total, beat } = atAnyTempo;
    this.durations = this.inSeconds(played.durations, lean?.durations);
    this.rests = this.inSeconds(played.rests, lean?.rests);
    const left = lean ? leftAt(atAnyTempo, bpm) : 0;
    this.total = wholeNoteSeconds(bpm, beat) * (total + (lean ? left * lean.total : 0));
  }

  /** Asked for by few: counted then. */
  get onsets(): readonly Seconds[] {
    const { played, lean } = this.atAnyTempo;
    return (this.known ??= this.inSeconds(played.onsets, lean?.onsets));
  }

  private inSeconds(lengths: readonly number[], lean: readonly number[] | undefined): Seconds[] {
    const whole = wholeNoteSeconds(this.bpm, this.atAnyTempo.beat);
    if (!lean) return lengths.map((length) => whole * length);
    const left = leftAt(this.atAnyTempo, this.bpm);
    return lengths.map((length, i) => whole * (length + left * lean[i]!));
  }
}

/** Seconds of some notes written into arrays of all: for the same few notes at many tempos. */
export function timeNotes(
  times: NoteTimes,
  bpm: BeatsPerMinute,
  from: number,
  to: number,
  into: { readonly durations: Float64Array; readonly rests: Float64Array },
): void {
  const whole = wholeNoteSeconds(bpm, times.beat);
  const left = times.lean ? leftAt(times, bpm) : 0;
  const { played, lean } = times;
  for (let i = from; i < to; i++) {
    into.durations[i] = whole * (played.durations[i]! + (lean ? left * lean.durations[i]! : 0));
    into.rests[i] = whole * (played.rests[i]! + (lean ? left * lean.rests[i]! : 0));
  }
}

/**
 * Seconds at a tempo of any place, in whole notes from the beginning, also between notes and beyond the end: beats and
 * offbeats go with the lilt, and with the notes around them where a tune is played freely. Time O(log n) for each.
 */
export function secondsAt(times: NoteTimes, { bars }: Unrolled, bpm: BeatsPerMinute): (place: number) => Seconds {
  const whole = wholeNoteSeconds(bpm, times.beat);
  if (times.isFree) return freeSeconds(times, whole);
  if (!times.lean) return (place) => whole * place;
  const left = leftAt(times, bpm);
  const { start, total } = times.lean;
  const places = liltedBars(bars, times.beat);
  return (place) => {
    let [low, high] = [0, bars.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (places[middle]!.from <= place + 1e-12) low = middle;
      else high = middle - 1;
    }
    const bar = places[low];
    if (!bar || place < 0) return whole * place;
    if (place > bar.from + bar.length) return whole * (place + left * total);
    return whole * (place + left * (shiftAt(bar, place, times.lilt) - start));
  };
}

/** On the way between the beginnings and ends of the notes around a place. */
function freeSeconds({ written, played, total }: NoteTimes, whole: Seconds): (place: number) => Seconds {
  const knots: [number, number][] = [[0, 0]];
  for (let i = 0; i < written.onsets.length; i++) {
    knots.push([written.onsets[i]!, played.onsets[i]!]);
    knots.push([written.onsets[i]! + written.durations[i]!, played.onsets[i]! + played.durations[i]!]);
  }
  knots.push([total, total]);
  return (place) => {
    let [low, high] = [0, knots.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (knots[middle]![0] <= place + 1e-12) low = middle;
      else high = middle - 1;
    }
    const [[x, y], next] = [knots[low]!, knots[low + 1]];
    if (!next || next[0] <= x) return whole * (y + Math.max(0, place - x));
    return whole * (y + ((next[1] - y) * (place - x)) / (next[0] - x));
  };
}
