import { fraction } from '#core/base';
import { alterInKey, type Key, pitchAtStep } from '#core/pitch';
import type { BarEvent, DanceType, Link, Meter, NoteEvent, Part, Tune, TuneEvent } from '#core/tune';
import { STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { seeded } from './tunes';

const FIRST_WORDS = [
  'Salt',
  'Heron',
  'Pewter',
  'Reed',
  'Lantern',
  'Tern',
  'Mudflat',
  'Oyster',
  'Willow',
  'Causeway',
  'Sluice',
  'Samphire',
  'Bittern',
  'Ferry',
  'Rushlight',
  'Gunwale',
];
const MIDDLE_WORDS = ['in the', 'over the', 'under the', 'by the', 'of the', 'and the', 'beyond the', 'at the'];
const LAST_WORDS = [
  'Shallows',
  'Boathouse',
  'Slipway',
  'Marsh',
  'Sandbar',
  'Tideway',
  'Lamp',
  'Weir',
  'Jetty',
  'Dunes',
  'Creek',
  'Withies',
  'Saltings',
  'Harbour',
  'Net Loft',
  'Ebb',
];
const DANCES: readonly { readonly type: DanceType; readonly meter: Meter }[] = [
  { type: 'reel', meter: { num: 4, den: 4 } },
  { type: 'jig', meter: { num: 6, den: 8 } },
  { type: 'polka', meter: { num: 2, den: 4 } },
  { type: 'hornpipe', meter: { num: 4, den: 4 } },
  { type: 'slip jig', meter: { num: 9, den: 8 } },
  { type: 'waltz', meter: { num: 3, den: 4 } },
];
const KEYS: readonly Key[] = [
  { letter: 'D', alter: 0, mode: 'major' },
  { letter: 'G', alter: 0, mode: 'major' },
  { letter: 'A', alter: 0, mode: 'dorian' },
  { letter: 'E', alter: 0, mode: 'minor' },
  { letter: 'A', alter: 0, mode: 'mixolydian' },
  { letter: 'B', alter: -1, mode: 'major' },
];

/** Lowest and highest staff steps of a melody: open G to B above the E string. */
const LOWEST = 32;
const HIGHEST = 48;

/**
 * A tune as a book might hold it, invented from a seed: two or three parts of eight bars in a dance's own meter, a walk
 * up and down a scale, slurred in pairs at times. The same seed gives the same tune.
 */
export function inventedTune(seed: number): Tune {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const { type, meter } = pick(DANCES);
  const key = pick(KEYS);
  const tuning = random() < 0.1 ? pick(TUNINGS).tuning : STANDARD_TUNING;
  const names = ['A', 'B', 'C'].slice(0, random() < 0.15 ? 3 : 2);
  let step = 37 + Math.floor(random() * 6);
  let isFirst = true;
  const parts = names.map((name): Part => {
    const events: TuneEvent[] = [];
    let count = 0;
    for (let bar = 1; bar <= 8; bar++) {
      events.push({ kind: 'bar', id: `${name}b${bar}` } satisfies BarEvent);
      const eighths = (meter.num * 8) / meter.den;
      for (let left = eighths; left > 0;) {
        const length = left >= 2 && (bar === 8 || random() < 0.15) ? 2 : 1;
        step = Math.min(HIGHEST, Math.max(LOWEST, step + pick([-2, -1, -1, 0, 1, 1, 2, 3, -3])));
        const natural = pitchAtStep(step);
        const link: Link = isFirst ? 'start' : random() < 0.2 ? 'slur' : 'change';
        isFirst = false;
        events.push({
          kind: 'note',
          id: `${name}${++count}`,
          pitch: { ...natural, alter: alterInKey(key, natural.letter) },
          duration: fraction(length, 8),
          link,
        } satisfies NoteEvent);
        left -= length;
      }
    }
    return { name, events };
  });
  return {
    schemaVersion: 1,
    title: inventedTitle(random),
    danceType: type,
    meter,
    key,
    tuning,
    tempoBpm: null,
    start: null,
    parts,
    form: names.flatMap((name) => [name, name]),
  };
}

function inventedTitle(random: () => number): string {
  const pick = (words: readonly string[]) => words[Math.floor(random() * words.length)]!;
  return `${pick(FIRST_WORDS)} ${pick(MIDDLE_WORDS)} ${pick(LAST_WORDS)} ${1 + Math.floor(random() * 99)}`;
}
