import { type Block, contentsBlock, pagesOf, placedPages, singleSvg, stacked, textBlock } from './composeSvg';

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

test('each block is told the page on which it begins, and the foot stands on every page', () => {
  const block = (height: number): Block => ({ markup: '<g/>', height });
  const { pages, pageOf } = placedPages([block(60), block(30), block(50), block(90)], 100, 110, {
    height: 10,
    markup: (page) => `<text>${page + 1}</text>`,
  });
  expect(pageOf).toEqual([0, 0, 1, 2]);
  expect(pages.map((page) => /<text>(\d)<\/text>/.exec(page)![1])).toEqual(['1', '2', '3']);
});

test('blocks that stay together are as tall as all of them', () => {
  const whole = stacked([
    { markup: '<a/>', height: 10 },
    { markup: '<b/>', height: 5 },
  ]);
  expect(whole.height).toBe(15);
  expect(whole.markup).toBe('<g transform="translate(0 0.00)"><a/></g><g transform="translate(0 10.00)"><b/></g>');
});

test('a title in the contents is text, whatever signs are in it', () => {
  expect(contentsBlock('<b> & co', '12', 200, 20).markup).toContain('&lt;b&gt; &amp; co');
});

test('what is better not parted begins a page where it fits, and is parted only where no page can hold it', () => {
  const tune = (name: string, together: number): Block[] => [
    { ...block(name, 40), together },
    block(`${name}2`, together - 40),
  ];
  const pageOf = (...blocks: Block[][]) => placedPages(blocks.flat(), 100, 100).pageOf;
  // 30 are left on the first page, 70 are needed.
  expect(pageOf(tune('a', 70), tune('b', 70))).toEqual([0, 0, 1, 1]);
  // 50 fit under 50.
  expect(pageOf(tune('a', 50), tune('b', 50))).toEqual([0, 0, 0, 0]);
  // No page holds 120: it begins where its first lines fit.
  expect(pageOf(tune('a', 50), tune('b', 120))).toEqual([0, 0, 0, 1]);
});
