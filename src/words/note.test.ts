import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { part, tune } from '../core/testing/tunes';
import { callOf, spokenNote } from './note';
import { writtenKey, writtenPitch } from './pitch';

function spoken(line: string, index: number, tuning = 'G3 D4 A4 E5') {
  const t = tune([part('A', line)], { tuning: parseTuning(tuning)!, start: 'down' });
  const note = writtenNotes(t)[index]!;
  const state = noteStates(reportTune(t), {}).get(note.id);
  return spokenNote(note, state, 3, t.tuning);
}

test('a note is told by place, pitch, string, finger and bow', () => {
  expect(spoken('D4 E4 F#4', 1)).toBe('Bar 3, the “and” of 1: E, D string, first finger, up-bow');
  expect(spoken('D4 (E4 F#4)', 2)).toBe(
    'Bar 3, beat 2: F sharp, D string, second finger, up-bow, slurred to the one before',
  );
  expect(spoken('D4 (E4 F#4)', 1)).toContain('slurred with the next');
});

test('in a cross-tuning the string says what it is tuned to, and the finger is that of the tuning', () => {
  expect(spoken('C#5 D5', 0, 'A3 E4 A4 C#5')).toBe('Bar 3, beat 1: C sharp, E string tuned to C sharp, open, down-bow');
  expect(spoken('B3', 0, 'A3 E4 A4 E5')).toContain('G string tuned to A, first finger');
});

test('what no hand reaches is said', () => {
  expect(spoken('C7', 0)).toContain('out of reach');
});

test('written names carry proper signs', () => {
  expect([
    writtenPitch({ letter: 'F', alter: 1, octave: 5 }),
    writtenPitch({ letter: 'B', alter: -1, octave: 3 }),
  ]).toEqual(['F♯5', 'B♭3']);
  expect(writtenKey({ letter: 'B', alter: -1, mode: 'major' })).toBe('B♭ major');
  const states = noteStates(reportTune(tune([part('A', 'A4')])), {});
  expect(callOf(states.get('A1')!)).toBe('A:0');
});
