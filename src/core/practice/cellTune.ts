import { add, divide, type Fraction, fraction, multiply, toNumber, ZERO } from '#core/base';
import type { TuneReport } from '#core/report';
import { beatUnit } from '#core/tempo';
import type { NoteEvent, Tune, TuneEvent } from '#core/tune';
import type { Stretch } from './cell';

/** Finest part of a whole note in which a cell is counted. */
const FINEST = 32;

/**
 * A stretch as a tune of one bar that comes round and round, with a rest before one of its notes; bowed as in the tune.
 * Rests inside it are kept, and the bar has as many beats as it takes, up to the next whole dance beat.
 * @param bpm in the tune's own dance beat
 */
export function cellTune(
  { tune, unrolled, figures, fingers, settings }: TuneReport,
  { first, last }: Stretch,
  { at, restBeats, bpm }: { readonly at: number; readonly restBeats: number; readonly bpm: number },
): Tune {
  const { part } = unrolled.notes[first]!;
  const events: TuneEvent[] = [{ kind: 'bar', id: 'b1' }];
  let total: Fraction = ZERO;
  let rests = 0;
  const rest = (duration: Fraction) => {
    if (toNumber(duration) <= 0) return;
    events.push({ kind: 'rest', id: `r${++rests}`, duration });
    total = add(total, duration);
  };
  for (let index = first; index <= last; index++) {
    const { note, duration, restBefore } = unrolled.notes[index]!;
    if (index > first) rest(restBefore);
    if (index === at && index > first) rest(multiply(settings.beat, fraction(Math.round(4 * restBeats), 4)));
    const fingering = fingers.get(note.id);
    const { linkOnPass: _own, lock: _lock, tie: _tie, chord: _chord, ...plain } = note;
    const pinned: Partial<NoteEvent> =
      fingering?.reachable && fingering.finger !== null ? { place: fingering.place, finger: fingering.finger } : {};
    events.push({
      ...plain,
      ...pinned,
      id: note.id,
      duration,
      link: index === first ? 'start' : figures.bowed[index]!.link,
    });
    total = add(total, duration);
  }
  const whole = Math.ceil(toNumber(divide(total, settings.beat)) - 1e-9);
  rest(add(multiply(settings.beat, fraction(whole, 1)), multiply(total, fraction(-1, 1))));
  const meter = meterOf(total);
  const beat = beatUnit(null, meter);
  return {
    ...tune,
    danceType: null,
    meter,
    tempoBpm: (bpm * toNumber(settings.beat)) / toNumber(beat),
    start: figures.bowed[first]!.bow,
    parts: [{ name: part, events }],
    form: [part],
  };
}

/** A meter as long as a bar: in quarters where that can be, else in the coarsest parts that it is made of. */
function meterOf(length: Fraction): Tune['meter'] {
  for (let den = 4; den < FINEST; den *= 2) {
    const num = toNumber(multiply(length, fraction(den, 1)));
    if (Math.abs(num - Math.round(num)) < 1e-9) return { num: Math.round(num), den };
  }
  return { num: Math.max(1, Math.round(toNumber(length) * FINEST)), den: FINEST };
}
