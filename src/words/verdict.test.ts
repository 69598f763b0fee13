import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { part, tune } from '../core/testing/tunes';
import { termedPieces, TERMS } from './terms';
import { reportVerdict, verdictOf } from './verdict';

const GOOD = {
  comesRound: true,
  flips: [],
  mayFlip: false,
  ceilingBpm: 118.9,
  floorBpm: null,
  goalBpm: 109,
} as const;
const flips = [{ part: 'B', pass: 2 }];

test.each([
  [{}, 'good', 'It comes round, and holds up to 118.'],
  [{ ceilingBpm: null }, 'good', 'It comes round, and holds at any tempo.'],
  [{ goalBpm: 119 }, 'bad', 'It comes round, but breaks above 118.'],
  [{ comesRound: false, flips }, 'bad', 'B flips the 2nd time, but the tune holds up to 118.'],
  [{ comesRound: false, flips, goalBpm: 130 }, 'bad', 'B flips the 2nd time, and the tune breaks above 118.'],
  [{ comesRound: false, flips, mayFlip: true }, 'good', 'B flips the 2nd time, and the tune holds up to 118.'],
  [
    { comesRound: false, flips: [...flips, { part: 'C', pass: 3 }] },
    'bad',
    'B and C flip, but the tune holds up to 118.',
  ],
  [{ comesRound: false }, 'bad', 'The whole tune flips when it begins again, but holds up to 118.'],
  [{ floorBpm: 40.2, goalBpm: 40 }, 'bad', 'It comes round, but runs out of bow below 41.'],
] as const)('with %o it is %s', (more, kind, words) => {
  expect(verdictOf({ ...GOOD, ...more })).toEqual({ kind, words });
});

test('a checked tune is judged by its own goal, and one without notes is not', () => {
  const reportOf = (music: string) =>
    reportTune(readAbc(`X:1\nT:V\nR:reel\nM:4/4\nL:1/8\nK:D\n${music}\n`).tunes[0]!.tune);
  expect(reportVerdict(reportOf('|:dAFA defd:|')).kind).toBe('good');
  expect(reportVerdict(reportOf('|:dAFA defd:||:fgaf (gf)ed:|')).words).toMatch(/^B flips the 2nd time, /);
  expect(reportVerdict(reportTune(tune([part('A', 'z:8')])))).toEqual({
    kind: 'empty',
    words: 'There are no notes yet.',
  });
});

test('a sentence is cut at its terms and stays the same sentence', () => {
  const sentence = 'B flips the 2nd time, and the tune breaks above 96.';
  const pieces = termedPieces(sentence);
  expect(pieces.map(({ words }) => words).join('')).toBe(sentence);
  expect(pieces.flatMap(({ term }) => term ?? [])).toEqual(['flips', 'breaks above']);
  for (const explained of Object.values(TERMS)) expect(explained).toMatch(/^[A-Z].*\.$/);
});
