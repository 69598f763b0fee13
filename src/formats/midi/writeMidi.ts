import type { MidiEvent } from 'midi-file';
import { equals, type Fraction, toNumber } from '#core/base';
import { bowVelocities } from '#core/performance';
import { keyFifths, midiOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import { barLength, PLACES } from '#core/tune';
import { midiBytes } from './midiBytes';

export const TICKS_PER_QUARTER = 960;
/** A bowed fiddle among the usual sounds, counted from 0. */
const FIDDLE = 40;
/** A separate stroke is let go a little before the next; within a stroke the notes touch. */
const SEPARATION = 0.06;
const MAX_TICKS_OFF = 40;

interface Timed {
  readonly tick: number;
  /** Ends go before beginnings at one moment. */
  readonly order: number;
  readonly event: MidiEvent;
}

/**
 * The tune as it is played: melody on one track, other strings on a second; onsets with the lilt, velocities by the bow.
 * Ticks are counted from the page with the lilt of the report's tempo in them, so that a tune without lilt stands exactly
 * on its beats.
 */
export function writeMidi(report: TuneReport): Uint8Array<ArrayBuffer> {
  const { tune, unrolled, timing, settings } = report;
  const ticksPerSecond = (TICKS_PER_QUARTER * settings.bpm * toNumber(settings.beat) * 4) / 60;
  const tickOf = (seconds: number) => Math.round(seconds * ticksPerSecond);
  const velocities = bowVelocities(report);
  const melody: Timed[] = [];
  const second: Timed[] = [];
  for (const [i, { note }] of unrolled.notes.entries()) {
    const from = tickOf(timing.onsets[i]!);
    const full = Math.max(1, tickOf(timing.onsets[i]! + timing.durations[i]!) - from);
    const isJoined = (report.figures.bowed[i + 1]?.inStroke ?? 1) > 1;
    const length = isJoined ? full : Math.max(1, full - Math.min(MAX_TICKS_OFF, Math.round(SEPARATION * full)));
    const velocity = velocities[i]!;
    sound(melody, 0, { noteNumber: midiOf(note.pitch), tick: from, length, velocity });
    for (const stop of note.stops ?? []) sound(second, 1, { noteNumber: midiOf(stop), tick: from, length, velocity });
    const fingering = report.fingers.get(note.id);
    const place = fingering && PLACES.indexOf(fingering.place) + (note.drone === 'upper' ? 1 : -1);
    const open = note.drone && place !== undefined ? tune.tuning[place] : undefined;
    if (open) sound(second, 1, { noteNumber: midiOf(open), tick: from, length, velocity: Math.max(1, velocity - 14) });
  }
  const head: MidiEvent[] = [
    { deltaTime: 0, meta: true, type: 'trackName', text: tune.title },
    {
      deltaTime: 0,
      meta: true,
      type: 'setTempo',
      microsecondsPerBeat: Math.round(60e6 / (settings.bpm * toNumber(settings.beat) * 4)),
    },
    {
      deltaTime: 0,
      meta: true,
      type: 'keySignature',
      key: keyFifths(tune.key),
      scale: tune.key.mode === 'minor' ? 1 : 0,
    },
    ...timeSignatures(unrolled),
    { deltaTime: 0, meta: true, type: 'endOfTrack' },
  ];
  const tracks = [head, track('Melody', 0, melody), ...(second.length > 0 ? [track('Second string', 1, second)] : [])];
  return midiBytes({
    header: { format: 1, numTracks: tracks.length, ticksPerBeat: TICKS_PER_QUARTER },
    tracks,
  });
}

/** Where the length of bars changes, short bars counted as they sound, so that bar lines fall where they are written. */
function timeSignatures({ bars }: TuneReport['unrolled']): MidiEvent[] {
  let before = 0;
  let known = '';
  return bars.flatMap(({ meter, duration, onset }): MidiEvent[] => {
    const { num, den } = equals(duration, barLength(meter)) || duration.n === 0 ? meter : shortMeter(duration);
    if (known === `${num}/${den}`) return [];
    known = `${num}/${den}`;
    const tick = Math.round(toNumber(onset) * 4 * TICKS_PER_QUARTER);
    const deltaTime = tick - before;
    before = tick;
    return [
      {
        deltaTime,
        meta: true,
        type: 'timeSignature',
        numerator: num,
        denominator: den,
        metronome: 24,
        thirtyseconds: 8,
      },
    ];
  });
}

/** A short bar's length as a meter, in eighths where it is a whole number of them. */
function shortMeter({ n, d }: Fraction): { num: number; den: number } {
  return d <= 8 ? { num: (n * 8) / d, den: 8 } : { num: Math.max(1, Math.round((n * 64) / d)), den: 64 };
}

interface SoundedNote {
  readonly noteNumber: number;
  readonly tick: number;
  readonly length: number;
  readonly velocity: number;
}

function sound(into: Timed[], channel: number, { noteNumber, tick, length, velocity }: SoundedNote) {
  into.push({ tick, order: 1, event: { deltaTime: 0, type: 'noteOn', channel, noteNumber, velocity } });
  into.push({
    tick: tick + length,
    order: 0,
    event: { deltaTime: 0, type: 'noteOff', channel, noteNumber, velocity: 0 },
  });
}

function track(name: string, channel: number, timed: Timed[]): MidiEvent[] {
  timed.sort((a, b) => a.tick - b.tick || a.order - b.order);
  let before = 0;
  const events = timed.map(({ tick, event }): MidiEvent => {
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime };
  });
  return [
    { deltaTime: 0, meta: true, type: 'trackName', text: name },
    { deltaTime: 0, type: 'programChange', channel, programNumber: FIDDLE },
    ...events,
    { deltaTime: 0, meta: true, type: 'endOfTrack' },
  ];
}
