import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { bar, part, tune } from '../../core/testing/tunes';
import { strokeToTell } from './strokeToTell';

const played = tune([part('A', 'D4 (E4 F#4) G4 A4:4')], { start: 'down', tempoBpm: 100 });
const report = reportTune(played);

test('the stroke of a selected note is told with its time and hair, slurred notes as one', () => {
  const state = noteStates(report, {}).get('A3');
  const told = strokeToTell(report, state, 'bar 1 of A')!;
  // Two eighths of 150 ms.
  expect(told.seconds).toBeCloseTo(0.3, 9);
  expect(told.words).toBe(`The stroke in bar 1 of A: 300 ms at dance tempo, ${told.cm.toFixed(0)} cm of hair.`);
});

test('without a selection it is the longest, and without notes there is none', () => {
  expect(strokeToTell(report, undefined, '')!.seconds).toBeCloseTo(0.6, 9);
  expect(strokeToTell(reportTune(tune([{ name: 'A', events: [bar('b')] }])), undefined, '')).toBeNull();
});
