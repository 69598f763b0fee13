import { add, divide, type Fraction, fraction, toNumber, ZERO } from '#core/base';
import { midiOf } from '#core/pitch';
import { type Bar, barsOnPass, isCompound, type Meter, type Tune, writtenBars } from '#core/tune';

/** A part's melody on its first pass: the sounding pitch (MIDI) at each place of an even grid. */
export interface MelodyLine {
  readonly part: string;
  readonly pitches: readonly number[];
}

/** Places of a line that are looked at: four times a long tune; what comes after says nothing new. */
const MAX_PLACES = 1024;

/**
 * The melody of each part on a grid of running notes: eighths, but sixteenths in 2/4, where those are the running notes.
 * What falls between the places (grace notes, the inner notes of a triplet) is left out, so that settings that only
 * differ in ornaments have equal lines. A rest lets the note before it sound on; a part without notes has no line.
 * Time O(n) for n written events.
 */
export function melodyLines(tune: Tune): MelodyLine[] {
  return [...writtenBars(tune)].flatMap(([part, bars]) => {
    const pitches = linePitches(barsOnPass(bars, 1).played).slice(0, MAX_PLACES);
    return pitches.length > 0 ? [{ part, pitches }] : [];
  });
}

/** All parts as one line. */
export function wholeLine(lines: readonly MelodyLine[]): number[] {
  return lines.flatMap(({ pitches }) => pitches).slice(0, MAX_PLACES);
}

function runningNote(meter: Meter): Fraction {
  if (isCompound(meter) || meter.den <= 2) return fraction(1, 8);
  if (meter.den === 4) return meter.num === 2 ? fraction(1, 16) : fraction(1, 8);
  return fraction(1, 2 * meter.den);
}

function linePitches(bars: readonly Bar[]): number[] {
  const pitches: number[] = [];
  let sounding: number | null = null;
  for (const { events, meter, duration } of bars) {
    const step = runningNote(meter);
    const places = Math.min(Math.ceil(toNumber(divide(duration, step)) - 1e-9), MAX_PLACES - pitches.length);
    let next = 0;
    let onset = ZERO;
    for (let place = 0; place < places; place++) {
      // The onset is not after the place: both sides times their denominators.
      while (next < events.length && onset.n * step.d <= step.n * place * onset.d) {
        const event = events[next]!;
        if (event.kind === 'note') sounding = midiOf(event.pitch);
        onset = add(onset, event.duration);
        next += 1;
      }
      if (sounding !== null) pitches.push(sounding);
    }
    if (pitches.length >= MAX_PLACES) break;
  }
  return pitches;
}
