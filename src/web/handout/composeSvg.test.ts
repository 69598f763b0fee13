import { pagesOf, singleSvg, textBlock } from './composeSvg';

const block = (name: string, height: number) => ({ markup: `<path data-name="${name}"/>`, height });

test('blocks fill a page from the top, and one that does not fit begins the next', () => {
  const pages = pagesOf([block('a', 40), block('b', 50), block('c', 20), block('d', 80)], 100, 100);
  expect(pages.map((page) => [...page.matchAll(/data-name="(\w)"/g)].map(([, name]) => name))).toEqual([
    ['a', 'b'],
    ['c', 'd'],
  ]);
  expect(pages[0]).toContain('translate(0 40.00)');
});

test('a block taller than a page still stands on one of its own', () => {
  expect(pagesOf([block('a', 10), block('b', 300), block('c', 10)], 100, 100)).toHaveLength(3);
  expect(pagesOf([], 100, 100)).toEqual([]);
});

test('text is written as text, whatever signs are in it', () => {
  const { markup } = textBlock('Tide <b> & "Turn"', 12);
  const parsed = new DOMParser().parseFromString(
    `<svg xmlns="http://www.w3.org/2000/svg">${markup}</svg>`,
    'image/svg+xml',
  );
  expect(parsed.querySelector('text')!.textContent).toBe('Tide <b> & "Turn"');
});

test('one drawing is as tall as its blocks together, in millimetres of the paper', () => {
  expect(singleSvg([block('a', 100), block('b', 50)], 300, '', 180)).toContain(
    'width="180mm" height="90.0mm" viewBox="0 0 300 150.0"',
  );
});
