import { format, subDays } from 'date-fns';
import { newFiddle, type Pegs } from '#contract/pegs';

const FIDDLE = '5f0c2f5e-8a41-4d0a-9b52-6f6a0e1c7d10';
const TUNING = '3a9e6f0d-1b7c-4f35-8c21-0d5b9a2e4c11';

/** A fiddle of the boathouse with strings of different ages, and a tuning of its class. `now` in milliseconds. */
export function demoPegs(now: number): Pegs {
  const daysAgo = (days: number) => format(subDays(now, days), 'yyyy-MM-dd');
  const fiddle = newFiddle(FIDDLE, 'The boathouse fiddle');
  const strings = fiddle.strings.map((string, i) => ({
    ...string,
    name: ['wound, medium', 'wound, medium', 'wound, light', 'plain steel'][i]!,
    fittedOn: [daysAgo(140), daysAgo(140), daysAgo(400), daysAgo(9)][i]!,
    hours: [85, 85, 190, 0][i]!,
    hoursOn: [daysAgo(60), daysAgo(60), daysAgo(60), null][i]!,
  }));
  return {
    fiddles: [
      {
        ...fiddle,
        strings,
        hairGaps: [
          { date: daysAgo(120), mm: 8.5, bpm: 108 },
          { date: daysAgo(64), mm: 6.5, bpm: 63 },
          { date: daysAgo(12), mm: 8, bpm: 112 },
        ],
        rosinedOn: daysAgo(5),
        rehairedOn: daysAgo(250),
      },
    ],
    chosen: FIDDLE,
    tunings: [
      {
        id: TUNING,
        name: 'low tide',
        strings: 'G3 D4 A4 D5',
        source: 'the Saturday class',
        variants: [{ strings: 'A3 D4 A4 D5', source: 'the monthly dance' }],
      },
    ],
  };
}
