import type { Tune } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';

/** A tune with one part and no note, as it is begun. */
export function blankTune(): Tune {
  return {
    schemaVersion: 1,
    title: '',
    danceType: 'reel',
    meter: { num: 4, den: 4 },
    key: { letter: 'D', alter: 0, mode: 'major' },
    tuning: STANDARD_TUNING,
    tempoBpm: null,
    start: null,
    parts: [{ name: 'A', events: [{ kind: 'bar', id: 'b1' }] }],
    form: ['A', 'A'],
  };
}
