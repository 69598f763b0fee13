import { fraction } from '#core/base';
import type { Key } from '#core/pitch';
import { unroll } from '#core/tune';
import { part, seeded, tune } from '../testing/tunes';
import { parseChord } from './chord';
import { bestChords, chordsOfKey, harmonyOf } from './harmony';

const D_MAJOR: Key = { letter: 'D', alter: 0, mode: 'major' };

test.each([
  ['D', [2, 6, 9, 2]],
  ['Em', [4, 7, 11, 4]],
  ['A7', [9, 1, 4, 9]],
  ['Bb', [10, 2, 5, 10]],
  ['F#dim', [6, 9, 0, 6]],
  ['Gmaj7', [7, 11, 2, 7]],
  ['D/F#', [2, 6, 9, 6]],
  ['Asus4', [9, 2, 4, 9]],
  ['C+', [0, 4, 8, 0]],
])('%s is its root, third, fifth and bass', (symbol, expected) => {
  const { root, third, fifth, bass } = parseChord(symbol)!;
  expect([root, third, fifth, bass]).toEqual(expected);
});

test.each(['slowly', 'Hold', '', 'A part', '2nd time'])('"%s" is no chord', (words) => {
  expect(parseChord(words)).toBeNull();
});

test.each([
  [D_MAJOR, 'D Em F#m G A Bm'],
  [{ letter: 'D', alter: 0, mode: 'dorian' }, 'Dm Em F G Am C'],
  [{ letter: 'B', alter: -1, mode: 'major' }, 'Bb Cm Dm Eb F Gm'],
  [{ letter: 'A', alter: 0, mode: 'mixolydian' }, 'A Bm D Em F#m G'],
] as [Key, string][])('the chords of %o', (key, names) => {
  expect(
    chordsOfKey(key)
      .map(({ name }) => name)
      .join(' '),
  ).toBe(names);
});

const HALF = fraction(1, 2);

test('broken chords are found as what they are, and the tune ends at home', () => {
  const t = tune([part('A', 'D4 F#4 A4 F#4 G4 B4 D5 B4 | A4 C#5 E5 C#5 D5 A4 F#4 D4')], { key: D_MAJOR });
  expect(harmonyOf(t, unroll(t), HALF).map(({ chord }) => chord.name)).toEqual(['D', 'G', 'A', 'D']);
});

test('in three-time the chord changes once a bar at most', () => {
  const waltz = tune([part('A', 'D4:2 F#4:2 A4:2 | G4:2 A4:2 B4:2 | A4:2 C#5:2 E5:2 | D5:6')], {
    key: D_MAJOR,
    danceType: 'waltz',
    meter: { num: 3, den: 4 },
  });
  const spans = harmonyOf(waltz, unroll(waltz), fraction(1, 4));
  expect(spans.map(({ from, chord }) => [from, chord.name])).toEqual([
    [0, 'D'],
    [0.75, 'G'],
    [1.5, 'A'],
    [2.25, 'D'],
  ]);
});

test('each pass closes at home, from the fifth step or the flat seventh', () => {
  // Nothing in the last two bars says more of one chord than of another.
  const plain = 'D4:4 F#4:4 | G4:4 B4:4 | A4:4 E4:4 | E4:4 D4:4';
  const closing = (key: Key) => {
    const t = tune([part('A', plain)], { key, form: ['A', 'A'] });
    return harmonyOf(t, unroll(t), HALF).map(({ chord }) => chord.name);
  };
  const inD = closing(D_MAJOR);
  expect([inD[7], inD[15]]).toEqual(['D', 'D']);
  const mixolydian = closing({ letter: 'D', alter: 0, mode: 'mixolydian' });
  expect(mixolydian[7]).toBe('D');
  expect(['C', 'A', 'Am']).toContain(mixolydian[6]);
});

test('written chords hold until the next, wherever it stands; before the first they are found', () => {
  const plain = part('A', 'D4 F#4 A4 F#4 G4 B4 D5 B4 | A4 C#5 E5 C#5 D5 A4 F#4 D4');
  const given = { A5: 'Em', A8: 'A7' } as Record<string, string>;
  const t = tune(
    [
      {
        ...plain,
        events: plain.events.map((event) => (event.kind === 'note' ? { ...event, chord: given[event.id] } : event)),
      },
    ],
    { key: D_MAJOR },
  );
  const spans = harmonyOf(t, unroll(t), HALF);
  expect(spans.map(({ from, chord, given: isGiven }) => [from, chord.name, isGiven])).toEqual([
    [0, 'D', false],
    [0.5, 'Em', true],
    [0.875, 'A7', true],
    [1, 'A7', true],
    [1.5, 'A7', true],
  ]);
});

test('the best chain equals trying all', () => {
  const random = seeded(5);
  const changeCost = 0.45;
  const home = 0.8;
  for (let round = 0; round < 40; round++) {
    const fits = Array.from({ length: 5 }, () => Array.from({ length: 4 }, () => 2 * random() - 1));
    const worth = (path: readonly number[]) =>
      path.reduce((sum, c, i) => sum + fits[i]![c]! - (i > 0 && c !== path[i - 1] ? changeCost : 0), 0) +
      (path.at(-1) === 0 ? home : 0);
    let best = -Infinity;
    for (let code = 0; code < 4 ** 5; code++)
      best = Math.max(best, worth([0, 1, 2, 3, 4].map((i) => Math.floor(code / 4 ** i) % 4)));
    expect(worth(bestChords(fits))).toBeCloseTo(best, 12);
  }
  expect(bestChords([])).toEqual([]);
});
