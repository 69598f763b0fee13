import { wrapped } from './wrapped';

test('text is broken between words, keeps its paragraphs, and no line is longer than asked', () => {
  const text = `Slow at first.\n${'short bows, '.repeat(20)}\n${'x'.repeat(250)}`;
  const lines = wrapped(text, 100);
  expect(lines[0]).toBe('Slow at first.');
  expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(100);
  expect(lines.join('').replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
  expect(wrapped('  ', 100)).toEqual([]);
});
