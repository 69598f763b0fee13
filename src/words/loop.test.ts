import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { DEFAULT_SCHOOLS } from '#core/schools';
import { part, tune } from '../core/testing/tunes';
import { loopWords } from './loop';

const played = tune([part('A', 'D4 E4 F#4 G4 A4:4'), part('B', 'A4:4 D4:4')], { start: 'down' });
const report = reportTune(played);
const states = noteStates(report, {});

test('an even chunk comes round, an odd one flips and is offered a retake', () => {
  expect(loopWords(report, states, ['A1', 'A2', 'A3', 'A4'])).toBe('looped: 4 strokes, 4 turns, comes round');
  expect(loopWords(report, states, ['A1', 'A2', 'A3'])).toBe(
    'looped: 3 strokes, 3 turns, flips to the up-bow each time: retake on the way back',
  );
});

test('where a passage is learned in both directions a chunk that flips is as good as any', () => {
  const both = reportTune(played, { schools: { ...DEFAULT_SCHOOLS, learning: 'both-directions' } });
  expect(loopWords(both, states, ['A1', 'A2', 'A3'])).toBe('looped: 3 strokes, 3 turns, goes both ways in turn');
});

test('a single note, and notes of two passes, are no chunk', () => {
  expect(loopWords(report, states, ['A1'])).toBeNull();
  expect(loopWords(report, states, [])).toBeNull();
  expect(loopWords(report, states, ['A5', 'B1'])).toBeNull();
});
