import { noteLines, readTeachersNote, writeTeachersNote } from './teachersNote';

test('a note is broken between words, keeps its paragraphs, and no line is longer than the paper', () => {
  const note = `Slow at first.\n${'short bows, '.repeat(20)}\n${'x'.repeat(250)}`;
  const lines = noteLines(note);
  expect(lines[0]).toBe('Slow at first.');
  expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(100);
  expect(lines.join('').replace(/\s/g, '')).toBe(note.replace(/\s/g, ''));
  expect(noteLines('  ')).toEqual([]);
});

test('each tune has its own, and an empty one leaves nothing', () => {
  writeTeachersNote('a', 'lift before the turn');
  expect([readTeachersNote('a'), readTeachersNote('b')]).toEqual(['lift before the turn', '']);
  writeTeachersNote('a', ' ');
  expect(localStorage.length).toBe(0);
});
