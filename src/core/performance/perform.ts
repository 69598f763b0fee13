import { type Seconds, toNumber } from '#core/base';
import { opposite } from '#core/bowing';
import { hertzOf } from '#core/drones';
import { type ChordSpan, harmonyOf } from '#core/harmony';
import { midiOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import type { BowStroke, Click, Contact, PitchMove, Pluck, SoundPlan, Swell, Touch, Vibrato } from '#core/sound';
import { TRIPLET_TIME, secondsAt, wholeNoteSeconds } from '#core/tempo';
import { type Direction, type NoteMark, PLACES, isCompound } from '#core/tune';
import { type Beat, beatsOf, offbeatOf } from './beats';
import { hertzAt, pitchGesture } from './gestures';

/** What is played together; a layer that is off is not in the plan at all. */
export const LAYERS = ['melody', 'drones', 'bowing', 'colour', 'backing', 'click', 'tone'] as const;
export type Layer = (typeof LAYERS)[number];

export interface PerformanceWish {
  readonly layers: ReadonlySet<Layer>;
  /** Notes by index from the first to, not including, the last; null: the whole tune. */
  readonly span: { readonly from: number; readonly to: number } | null;
  /** Bars counted in before it. */
  readonly countIn: number;
  /** A gap as long as the span after it, in which it is answered. */
  readonly answer: boolean;
}

export const PLAIN_WISH: PerformanceWish = {
  layers: new Set(['melody', 'drones', 'bowing', 'colour']),
  span: null,
  countIn: 0,
  answer: false,
};

/** A plan of sound, and where in the tune its seconds lie. */
export interface Performance {
  readonly plan: SoundPlan;
  /** When what was counted in begins: a loop comes back to here. */
  readonly begins: Seconds;
  /** End of the span, before any gap for the answer. */
  readonly ends: Seconds;
  /** Beginnings of the span's notes in the plan's seconds; `first` is the index of the first. */
  readonly first: number;
  readonly onsets: readonly Seconds[];
  /** The same in whole notes. */
  readonly places: readonly number[];
  /** Whole notes at the span's beginning and end. */
  readonly from: number;
  readonly to: number;
  /** Seconds of the plan for a place in whole notes. */
  readonly secondsAt: (place: number) => Seconds;
}

/** A gap of the bow at a hook, the bow in the air before a retake. Guesses. */
const HOOK_SECONDS = 0.03;
const LIFT = { most: 0.07, share: 0.35 } as const;
/** Share of a staccato note that sounds, and of a snapped one. */
const STACCATO = 0.55;
const SNAPPED = 0.85;
/** Usual and least or most speeds of the bow that are heard, m/s; how much of a difference in speed the weight leaves. */
const SPEED = { usual: 0.35, drawn: 0.45, least: 0.2, most: 0.55, power: 0.4 } as const;
const FORCE = 0.8;
const BITE = { triplet: 2.2, accent: 1.5, snap: 1.7, seconds: 0.012, accentSeconds: 0.05 } as const;
const PULSE_DECIBELS = 5;
const ACCENT_DECIBELS = 2.5;
const CLOSING_DECIBELS = 4;
const FLICK = { at: 0.45, seconds: 0.022 } as const;
const PRESS = { most: 0.09, share: 0.4 } as const;
const VIBRATO = { after: 0.12, rate: 5.6, cents: 28, grow: 0.3 } as const;
/** A rolled chord: its lower strings first. */
const ROLLED = { most: 0.09, share: 0.3 } as const;
/** Bass below the tune, chord between. */
const BASS_OCTAVE = 36;
const CHORD_OCTAVE = 50;

/**
 * The plan of a checked tune as sound, at the report's tempo and with its lilt: its bow changes, slurs, hooks, retakes,
 * pulses, double stops, drones and ornaments, backing from given or found chords, and clicks.
 * With the layer of bowing off every note is a stroke of its own; with that of colour off nothing decorates it.
 * Time O(n).
 */
export function perform(report: TuneReport, wish: PerformanceWish = PLAIN_WISH): Performance {
  const { unrolled, timing, settings } = report;
  const { notes } = unrolled;
  const first = wish.span?.from ?? 0;
  const end = wish.span?.to ?? notes.length;
  const from = wish.span ? toNumber(notes[first]!.onset) : 0;
  const to = end < notes.length ? toNumber(notes[end]!.onset) : toNumber(unrolled.duration);
  const inTune = secondsAt(timing.atAnyTempo, unrolled, settings.bpm);
  const beats = beatsOf(unrolled, settings.beat);
  const counted = countIn(report, from, wish.countIn);
  const shift = counted.seconds - inTune(from);
  const ends = inTune(to) + shift;
  const at = (index: number): Seconds => timing.onsets[index]! + shift;
  const plucks = wish.layers.has('backing') ? backing(report, beats, from, to, (place) => inTune(place) + shift) : [];
  const clicks = wish.layers.has('click') ? clicksOf(beats, from, to, (place) => inTune(place) + shift) : [];
  return {
    plan: {
      seconds: ends + (wish.answer ? ends - counted.seconds : 0),
      openHertz: report.tune.tuning.map((open) => hertzAt(open)) as [number, number, number, number],
      ...played(report, wish.layers, first, end, at),
      plucks,
      clicks: [...counted.clicks, ...clicks],
      toneHertz: wish.layers.has('tone') ? toneOf(report) : null,
    },
    begins: counted.seconds,
    ends,
    first,
    onsets: Array.from({ length: Math.max(0, end - first) }, (_, i) => at(first + i)),
    places: notes.slice(first, end).map(({ onset }) => toNumber(onset)),
    from,
    to,
    secondsAt: (place) => inTune(place) + shift,
  };
}

/** The tonic, near the middle of the fiddle. */
function toneOf({ tune: { key } }: TuneReport): number {
  return hertzOf(57 + ((midiOf({ ...key, octave: 4 }) - 57 + 120) % 12));
}

/**
 * Clicks before the span: so many bars of the meter it begins in, less what the pickup or the rest of its bar takes, so
 * that the span's own first beat falls where it must.
 */
function countIn(
  { unrolled, settings }: TuneReport,
  from: number,
  bars: number,
): { readonly seconds: Seconds; readonly clicks: Click[] } {
  const bar = unrolled.bars.findLast(({ onset }) => toNumber(onset) <= from + 1e-9) ?? unrolled.bars[0];
  if (bars === 0 || !bar) return { seconds: 0, clicks: [] };
  const whole = wholeNoteSeconds(settings.bpm, settings.beat);
  const beat = toNumber(settings.beat);
  const full = bar.meter.num / bar.meter.den;
  // Up to the next bar line, from where the span begins.
  const line = toNumber(bar.onset) + toNumber(bar.duration);
  const lead = bar.isPickup || from > toNumber(bar.onset) + 1e-9 ? line - from : 0;
  const length = lead > 0 ? bars * full + (full - lead) : bars * full;
  const count = Math.ceil(length / beat - 1e-9);
  const perBar = Math.max(1, Math.round(full / beat));
  const clicks = Array.from({ length: count }, (_, i): Click => ({
    at: i * beat * whole,
    kind: i % perBar === 0 ? 'bar' : 'beat',
  }));
  return { seconds: length * whole, clicks };
}

function clicksOf(beats: readonly Beat[], from: number, to: number, at: (place: number) => Seconds): Click[] {
  return beats
    .flatMap((beat): { place: number; kind: Click['kind'] }[] => [
      { place: beat.at, kind: beat.isFirst ? 'bar' : 'beat' },
      { place: offbeatOf(beat), kind: 'offbeat' },
    ])
    .filter(({ place }) => place >= from - 1e-9 && place < to - 1e-9)
    .map(({ place, kind }) => ({ at: at(place), kind }));
}

/** Nothing but the clicks of the whole tune, a bar of them before it. */
export function clickTrack(report: TuneReport): Performance {
  return perform(report, { layers: new Set(['click']), span: null, countIn: 1, answer: false });
}

/** Bass on the beat, by turns root and fifth; chord on the offbeat. In three-time the bass has the first beat, the chord the others. */
function backing(
  { tune, unrolled }: TuneReport,
  beats: readonly Beat[],
  from: number,
  to: number,
  at: (place: number) => Seconds,
): Pluck[] {
  const chords = harmonyOf(
    tune,
    unrolled,
    beats.filter(({ at: place }) => place >= 0).map(({ at: place }) => place),
  );
  const chordAt = (place: number): ChordSpan | undefined => chords.findLast((span) => span.from <= place + 1e-9);
  return beats.flatMap((beat): Pluck[] => {
    const { meter } = beat.bar;
    const inThree = !isCompound(meter) && meter.num === 3 && beat.length <= 1 / meter.den + 1e-9;
    const bassAt = inThree && beat.index !== 0 ? null : beat.at;
    const chordPlace = inThree ? (beat.index === 0 ? null : beat.at) : offbeatOf(beat);
    const isIn = (place: number | null): place is number => place !== null && place >= from - 1e-9 && place < to - 1e-9;
    const under = chordAt(beat.at)?.chord;
    if (!under) return [];
    const bass = beat.index % 2 === 0 || inThree ? under.bass : under.fifth;
    return [
      ...(isIn(bassAt)
        ? [{ at: at(bassAt), hertz: hertzOf(BASS_OCTAVE + ((bass - BASS_OCTAVE + 120) % 12)), kind: 'bass' as const }]
        : []),
      ...(isIn(chordPlace)
        ? [under.root, under.third, under.fifth].map((pitch) => ({
            at: at(chordPlace),
            hertz: hertzOf(CHORD_OCTAVE + ((pitch - CHORD_OCTAVE + 120) % 12)),
            kind: 'chord' as const,
          }))
        : []),
    ];
  });
}

type Played = Pick<SoundPlan, 'strokes' | 'contacts' | 'pitches' | 'vibrato' | 'swells' | 'touches'>;

/** What bow and fingers do on the notes of a span. */
function played(
  report: TuneReport,
  layers: ReadonlySet<Layer>,
  first: number,
  end: number,
  at: (index: number) => Seconds,
): Played {
  const { unrolled, fingers, timing, settings, tune } = report;
  const strings = () => PLACES.map((): never[] => []);
  const contacts: Contact[][] = strings();
  const pitches: PitchMove[][] = strings();
  const vibrato: Vibrato[][] = strings();
  const touches: Touch[][] = strings();
  const swells: Swell[] = [];
  const hasColour = layers.has('colour');
  for (let i = first; i < end; i++) {
    const unrolledNote = unrolled.notes[i]!;
    const { note } = unrolledNote;
    const fingering = fingers.get(note.id);
    const [begin, seconds] = [at(i), timing.durations[i]!];
    // What no string reaches is sounded on the highest string all the same.
    const place = fingering?.reachable ? PLACES.indexOf(fingering.place) : 3;
    const marks: readonly NoteMark[] = (hasColour && note.marks) || [];
    const until = begin + soundingSeconds(seconds, marks);
    if (layers.has('melody')) touch(contacts[place]!, { from: begin, to: until, role: 'melody' });
    const gesture = pitchGesture(
      hasColour ? unrolledNote : { ...unrolledNote, note: { ...note, graceNotes: [] } },
      seconds,
      tune.key,
      unrolled.notes[i + 1],
      marks,
    );
    for (const { after, hertz, glide } of gesture) pitches[place]!.push({ at: begin + after, hertz, glide });
    if (layers.has('drones')) soundSecond(report, i, { begin, until, seconds, place }, contacts, pitches);
    if (marks.includes('vibrato') || marks.includes('vibrato-growing'))
      vibrato[place]!.push({
        from: begin + VIBRATO.after,
        to: begin + seconds,
        rate: VIBRATO.rate,
        cents: VIBRATO.cents,
        grow: marks.includes('vibrato-growing') ? seconds - VIBRATO.after : VIBRATO.grow,
      });
    if (marks.includes('flick')) {
      const from = begin + FLICK.at * seconds;
      touches[place]!.push({ kind: 'flick', from, to: from + Math.min(FLICK.seconds, 0.3 * seconds) });
    }
    if (marks.includes('pressed-in'))
      touches[place]!.push({ kind: 'press', from: begin, to: begin + Math.min(PRESS.most, PRESS.share * seconds) });
    const swell = swellOf(layers.has('bowing') ? (note.marks ?? []) : marks, begin, seconds, settings.schools.pulse);
    if (swell) swells.push(swell);
  }
  return { strokes: strokesOf(report, layers, first, end, at), contacts, pitches, vibrato, swells, touches };
}

/** A note that follows on the same string keeps the bow on it: one touch. */
function touch(list: Contact[], next: Contact): void {
  const last = list[list.length - 1];
  if (last && last.role === next.role && next.from - last.to < 1e-6) list[list.length - 1] = { ...last, to: next.to };
  else list.push(next);
}

function soundingSeconds(seconds: Seconds, marks: readonly NoteMark[]): Seconds {
  return marks.includes('staccato') ? STACCATO * seconds : marks.includes('snap') ? SNAPPED * seconds : seconds;
}

/** The other strings of a double stop or a chord, and an open string that sounds along. */
function soundSecond(
  { unrolled, fingers, tune }: TuneReport,
  index: number,
  { begin, until, seconds, place }: { begin: Seconds; until: Seconds; seconds: Seconds; place: number },
  contacts: Contact[][],
  pitches: PitchMove[][],
): void {
  const { note } = unrolled.notes[index]!;
  const stops = fingers.get(note.id)?.stops ?? [];
  const rolled = Math.min(ROLLED.most, ROLLED.share * seconds);
  for (const [i, stop] of stops.entries()) {
    const pitch = note.stops?.[i];
    if (!stop || !pitch) continue;
    const string = PLACES.indexOf(stop.place);
    if (string === place) continue;
    pitches[string]!.push({ at: begin, hertz: hertzAt(pitch), glide: 0 });
    // The bow lies on two strings: lower ones of a chord are left again at once.
    touch(contacts[string]!, { from: begin, to: i === 0 ? until : begin + rolled, role: 'second' });
  }
  if (!note.drone || (note.drone === 'upper' && stops[0])) return;
  const string = place + (note.drone === 'upper' ? 1 : -1);
  const open = tune.tuning[string];
  if (!open) return;
  pitches[string]!.push({ at: begin, hertz: hertzAt(open), glide: 0 });
  touch(contacts[string]!, { from: begin, to: until, role: 'second' });
}

function swellOf(
  marks: readonly NoteMark[],
  from: Seconds,
  seconds: Seconds,
  pulse: TuneReport['settings']['schools']['pulse'],
): Swell | null {
  const to = from + seconds;
  if (marks.includes('pulse')) return { from, to, decibels: PULSE_DECIBELS, by: pulse, returns: true };
  if (marks.includes('closing-swell')) return { from, to, decibels: CLOSING_DECIBELS, by: 'speed', returns: false };
  if (marks.includes('accent'))
    return { from, to: from + seconds / 2, decibels: ACCENT_DECIBELS, by: 'weight', returns: true };
  return null;
}

/** Strokes as planned; bowed triplets are three of their own. */
function strokesOf(
  report: TuneReport,
  layers: ReadonlySet<Layer>,
  first: number,
  end: number,
  at: (index: number) => Seconds,
): BowStroke[] {
  const { unrolled, figures, timing, settings } = report;
  const strokes: BowStroke[] = [];
  const asPlanned = layers.has('bowing');
  const hasColour = layers.has('colour');
  const tripletSeconds = TRIPLET_TIME * wholeNoteSeconds(settings.bpm, settings.beat);
  let plain: Direction = 'up';
  for (let i = first, next = i; i < end; i = next) {
    next = i + 1;
    if (asPlanned) while (next < end && figures.bowed[next]!.inStroke > 1) next += 1;
    plain = opposite(plain);
    const sign = (asPlanned ? figures.bowed[i]!.bow : plain) === 'down' ? 1 : -1;
    const [from, last] = [at(i), next - 1];
    let to = at(last) + timing.durations[last]!;
    const marks = (hasColour && unrolled.notes[i]!.note.marks) || [];
    const lastMarks = (hasColour && unrolled.notes[last]!.note.marks) || [];
    to = at(last) + soundingSeconds(to - at(last), lastMarks);
    if (asPlanned && figures.bowed[next]?.link === 'retake' && unrolled.notes[next]!.restBefore.n === 0)
      to -= Math.min(LIFT.most, LIFT.share * (to - at(last)));
    const speed = speedOf(report, i, next, to - from);
    const stroke = { from, to, sign, speed, force: FORCE, bite: 1, biteSeconds: 0, stops: [] } as const;
    if (marks.includes('bowed-triplet') && last === i) {
      const third = Math.min(to - from, tripletSeconds) / 3;
      const bite = { bite: BITE.triplet, biteSeconds: BITE.seconds };
      for (const part of [0, 1, 2])
        strokes.push({
          ...stroke,
          ...bite,
          from: from + part * third,
          to: part === 2 ? to : from + (part + 1) * third,
          sign: part === 1 ? (-sign as 1 | -1) : sign,
        });
      continue;
    }
    const stops = [];
    for (let j = i + 1; j < next; j++) {
      const before = (hasColour && unrolled.notes[j - 1]!.note.marks) || [];
      const sounded = at(j - 1) + soundingSeconds(timing.durations[j - 1]!, before);
      const isStopped = figures.bowed[j]!.link === 'hook' || unrolled.notes[j]!.restBefore.n > 0;
      const stopFrom = isStopped ? Math.min(sounded, at(j) - HOOK_SECONDS) : sounded;
      if (at(j) - stopFrom > 0.01) stops.push({ from: stopFrom, to: at(j) });
    }
    const bite = marks.includes('snap')
      ? { bite: BITE.snap, biteSeconds: BITE.accentSeconds }
      : marks.includes('accent')
        ? { bite: BITE.accent, biteSeconds: BITE.accentSeconds }
        : {};
    strokes.push({ ...stroke, ...bite, stops });
  }
  return strokes;
}

/** What is left of a difference in the bow's speed once the weight goes with it. */
function speedOf({ figures }: TuneReport, from: number, to: number, seconds: Seconds): number {
  const cm = Math.abs(figures.travel[to - 1]!.bowEndCm - figures.travel[from]!.bowStartCm);
  const drawn = seconds > 0 ? cm / 100 / seconds : SPEED.drawn;
  return Math.min(SPEED.most, Math.max(SPEED.least, SPEED.usual * (drawn / SPEED.drawn) ** SPEED.power));
}
