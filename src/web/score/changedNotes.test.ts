import { setLinks } from '#core/bowing';
import { setDrone, toggleMark } from '#core/editing';
import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { changedNotes } from './changedNotes';

const plain = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 G4')], { start: 'down' });
const changes = (next: Tune) => {
  const states = (of: Tune) => noteStates(reportTune(of), {});
  return Object.fromEntries(changedNotes(states(plain), states(next)));
};

test('the same plan changes nothing', () => {
  expect(changes({ ...plain })).toEqual({});
});

test('one slur is one changed note, and those behind it turn round', () => {
  expect(changes(setLinks(plain, new Map([['A2', 'slur']])))).toEqual({
    A2: 'changed',
    ...Object.fromEntries(['A3', 'A4', 'A5', 'A6', 'A7', 'A8'].map((id) => [id, 'turned'])),
  });
});

test('a mark and a drone are changes of their own notes alone', () => {
  expect(changes(toggleMark(plain, new Set(['A3']), 'accent'))).toEqual({ A3: 'changed' });
  expect(changes(setDrone(plain, new Set(['A5']), 'lower'))).toEqual({ A5: 'changed' });
});
