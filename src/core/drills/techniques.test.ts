import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { arpeggioParts } from './arpeggios';
import { ARPEGGIO, techniquesOf } from './techniques';

const STEPS = 'D4 E4 F#4 G4 A4 G4 F#4 E4';

test('a technique is told with the parts that ask for it, as they are first played', () => {
  const skips = 'D4 E5 D4 E5 D4 E5 D4 E5';
  const found = techniquesOf(reportTune(tune([part('A', STEPS), part('B', skips)], { form: ['A', 'A', 'B'] })));
  expect(found.get('skipped-string')).toEqual(['B']);
  expect(found.has('flick')).toBe(false);
});

test('a bowing belongs to the parts that follow it for two bars', () => {
  const pairs = '(D4 E4) (F#4 G4) (A4 G4) (F#4 E4)';
  const found = techniquesOf(reportTune(tune([part('A', `${STEPS} | ${STEPS}`), part('B', `${pairs} | ${pairs}`)])));
  const bowings = [...found].filter(([name]) => name.startsWith('pattern:'));
  expect(bowings.length).toBeGreaterThan(0);
  for (const [, parts] of bowings) expect(parts).toEqual(['B']);
});

test.each([
  ['a major chord up and down', 'D4 F#4 A4 D5', true],
  ['a minor chord', 'E4 G4 B4 G4', true],
  ['root and fifth alone', 'D4 A4 D4 A4', false],
  ['three notes', 'D4 F#4 A4 B4', false],
  ['with a repeated note', 'D4 F#4 F#4 A4', false],
  ['over a rest', 'D4 F#4 z A4 D5', false],
  ['a scale', 'D4 E4 F#4 G4', false],
  ['begun within a run of another chord', 'B4 D4 F#4 A4 F#4', true],
])('%s', (_name, line, isOne) => {
  const { unrolled } = reportTune(tune([part('A', STEPS), part('B', line)]));
  expect(arpeggioParts(unrolled)).toEqual(isOne ? ['B'] : []);
});

test('an arpeggio is among the techniques', () => {
  expect(techniquesOf(reportTune(tune([part('A', 'D4 F#4 A4 D5')]))).get(ARPEGGIO)).toEqual(['A']);
});
