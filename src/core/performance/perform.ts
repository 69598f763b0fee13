import { type Seconds, toNumber } from '#core/base';
import { hertzOf, midiOf, REFERENCE_PITCH } from '#core/pitch';
import type { TuneReport } from '#core/report';
import { type Click, retuned, type SoundPlan } from '#core/sound';
import { secondsAt, wholeNoteSeconds } from '#core/tempo';
import { backing, clicksOf } from './accompany';
import { beatsOf } from './beats';
import { hertzAt } from './gestures';
import { unevenSeconds } from './human';
import type { PlayedPlan } from './soundingTime';
import { played } from './strings';
import { strokesOf } from './strokes';
import { type PerformanceWish, PLAIN_WISH } from './wish';

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
}

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
  const felt = (index: number): Seconds =>
    wish.isHuman ? Math.max(0, at(index) + unevenSeconds(timing.durations, index)) : at(index);
  const plucks = wish.layers.has('backing') ? backing(report, beats, from, to, (place) => inTune(place) + shift) : [];
  const clicks = wish.layers.has('click') ? clicksOf(beats, from, to, (place) => inTune(place) + shift) : [];
  const plan: SoundPlan = {
    seconds: ends + (wish.answer ? ends - counted.seconds : 0),
    openHertz: report.tune.tuning.map((open) => hertzAt(open)) as [number, number, number, number],
    ...playNotes(report, wish, { first, end }, felt),
    plucks,
    clicks: [...counted.clicks, ...clicks],
    toneHertz: wish.layers.has('tone') ? toneOf(report) : null,
  };
  return {
    plan: retuned(plan, (wish.a4 ?? REFERENCE_PITCH.usual) / REFERENCE_PITCH.usual),
    begins: counted.seconds,
    ends,
    first,
    onsets: Array.from({ length: Math.max(0, end - first) }, (_, i) => at(first + i)),
    places: notes.slice(first, end).map(({ onset }) => toNumber(onset)),
    from,
    to,
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

/** What bow and fingers do on the notes of a span: the part of a plan that a player makes. */
export type Playing = Omit<SoundPlan, 'seconds' | 'openHertz' | 'plucks' | 'clicks' | 'toneHertz'>;

/** Notes from `first` up to, not including, `end` as they are played when each begins at a time of the player's own. */
export function playNotes(
  report: PlayedPlan,
  wish: PerformanceWish,
  { first, end }: { readonly first: number; readonly end: number },
  at: (index: number) => Seconds,
): Playing {
  return { strokes: strokesOf(report, wish, first, end, at), ...played(report, wish.layers, first, end, at) };
}

/** Nothing but the clicks of the whole tune, a bar of them before it. */
export function clickTrack(report: TuneReport): Performance {
  return perform(report, { layers: new Set(['click']), span: null, countIn: 1, answer: false, isHuman: false });
}
