import { wrapped } from './wrapped';

/** Wide letters are twice as wide as the others. */
const widthOf = (text: string) => [...text].reduce((sum, letter) => sum + (/[MW]/.test(letter) ? 2 : 1), 0);

test('text is broken between words, keeps its paragraphs, and no line is wider than asked', () => {
  const text = `Slow at first.\n${'short bows, '.repeat(20)}\n${'WM'.repeat(75)} ${'x'.repeat(250)}`;
  const lines = wrapped(text, 100, widthOf);
  expect(lines[0]).toBe('Slow at first.');
  expect(Math.max(...lines.map(widthOf))).toBeLessThanOrEqual(100);
  expect(lines.join('').replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
  expect(wrapped('  ', 100, widthOf)).toEqual([]);
});

test('a letter that is wider than the line stands by itself', () => {
  expect(wrapped('WW x', 1, widthOf)).toEqual(['W', 'W', 'x']);
});
