import { practicePlan } from '#core/practice';
import { reportTune } from '#core/report';
import { part, tune } from '../core/testing/tunes';
import { biteWords, candidateWords, stretchWords } from './practice';

const at = (bar: number, ending: number | null = null) => ({ bar, part: 'A', ending });

test.each([
  [at(1), at(2), 'bars 1–2 of A'],
  [at(3), at(3), 'bar 3 of A'],
  [at(0), at(2), 'the pickup and bars 1–2 of A'],
  [at(0), at(1), 'the pickup and bar 1 of A'],
  [at(7, 2), at(8, 2), 'bars 7–8 of A, 2nd ending'],
])('a stretch is told by its bars', (from, to, words) => {
  expect(stretchWords(from, to)).toBe(words);
});

test('a bite that begins within a bar says where', () => {
  const report = reportTune(tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5 | D5:8')], { form: ['A'] }));
  const { cuts } = practicePlan(report);
  const half = cuts.find(({ terms }) => terms.place === 0.4)!;
  const { bites } = practicePlan(report, { given: new Set([half.before]) });
  expect(bites.map((bite) => biteWords(report, bite))).toEqual(['bar 1 of A', 'bars 1–2 of A from beat 3']);
});

test('what is to be practised says why, with its figures', () => {
  expect(candidateWords({ what: 'weakest', share: 0.123, chance: 0.4 })).toBe(
    'Most is at stake here: 12 % of the playing time, a 40 % chance of coming out clean at the goal.',
  );
});
