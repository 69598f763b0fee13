import type { Tune } from '#core/tune';
import { counted } from '../testing/reads';
import { note, part, tune } from '../testing/tunes';
import { reportTune } from './report';

/** Steps for each played note may be so many times more in a tune eight times as long. */
const MAX_GROWTH = 1.6;

/** Steps that a whole report takes for each note it plays. */
function stepsANote(of: Tune): number {
  const { value, reads } = counted(of);
  const report = reportTune(value);
  expect(report.findings.length).toBeGreaterThanOrEqual(0);
  return reads() / report.unrolled.notes.length;
}

const repeated = (count: number, line: string, more: Partial<Tune> = {}) =>
  tune([part('A', Array.from({ length: count }, () => line).join(' '))], { form: ['A', 'A'], ...more });

test.each<[string, (count: number) => Tune]>([
  ['even quavers', (count) => repeated(count, 'D4 E4 F#4 G4 A4 B4 C#5 D5')],
  ['slurs', (count) => repeated(count, '(D4 E4 F#4) G4 (A4 B4 C#5) D5')],
  ['one string and another', (count) => repeated(count, 'G3 E5 G3 E5 G3 E5 G3 E5')],
  ['long notes', (count) => repeated(count, 'D4:8')],
  ['rests', (count) => repeated(count, 'D4 z z z z z z z')],
  [
    'many parts',
    (count) =>
      tune(
        Array.from({ length: count }, (_, i) => part(`P${i}`, 'D4 E4 F#4 G4')),
        { form: Array.from({ length: count }, (_, i) => `P${i}`) },
      ),
  ],
  ['one part over and over', (count) => tune([part('A', 'D4 E4 F#4')], { form: Array<string>(count * 3).fill('A') })],
])('the work of a report grows with the notes played: %s', (_what, make) => {
  const short = stepsANote(make(20));
  const long = stepsANote(make(160));
  expect(long / short).toBeLessThan(MAX_GROWTH);
});

test('ties without end are one note, at a step each', () => {
  const tied = (count: number) => {
    const events = Array.from({ length: count }, (_, i) => ({ ...note(`n${i}`, 'D4', 1), tie: true as const }));
    const [bar] = part('A', 'D4').events;
    return tune([{ name: 'A', events: [bar!, ...events] }]);
  };
  const steps = (count: number) => {
    const { value, reads } = counted(tied(count));
    expect(reportTune(value).unrolled.notes).toHaveLength(1);
    return reads() / count;
  };
  expect(steps(4000) / steps(500)).toBeLessThan(MAX_GROWTH);
});
