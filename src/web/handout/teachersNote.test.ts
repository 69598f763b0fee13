import { readTeachersNote, writeTeachersNote } from './teachersNote';

test('each tune has its own, and an empty one leaves nothing', () => {
  writeTeachersNote('a', 'lift before the turn');
  expect([readTeachersNote('a'), readTeachersNote('b')]).toEqual(['lift before the turn', '']);
  writeTeachersNote('a', ' ');
  expect(localStorage.length).toBe(0);
});
