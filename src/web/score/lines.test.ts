import { setLinks } from '#core/bowing';
import { reuseBars } from '#core/editing';
import { readAbc } from '#formats/abc';
import { engravingKey, lineKeeper, scoreLines } from './lines';

const read = (music: string, meter = '4/4') => readAbc(`X:1\nT:L\nM:${meter}\nL:1/8\nK:D\n${music}\n`).tunes[0]!.tune;
const numbers = (music: string, size = 4) =>
  scoreLines(read(music), size).map(({ part, bars }) => `${part}: ${bars.map(({ number }) => number).join(' ')}`);

test('lines hold four bars, a pickup rides with the first, and each part begins a line', () => {
  expect(numbers('|:A2|d8|d8|d8|d8|d8|d8|d8|d6:||:d8|d8|d8|d8:|')).toEqual([
    'A: 0 1 2 3 4',
    'A: 5 6 7 8',
    'B: 1 2 3 4',
  ]);
});

test('a lone last bar joins the line before, as a second ending does', () => {
  expect(numbers('|:d8|d8|d8|1 d8:|2 d8|]')).toEqual(['A: 1 2 3 4 4']);
  expect(numbers('d8|d8|d8|d8|d8|]', 2)).toEqual(['A: 1 2', 'A: 3 4 5']);
});

test('repeat signs and endings stand where the form has them', () => {
  const [line] = scoreLines(read('|:d8|1 d8:|2 d8||'), 4);
  expect(line!.bars.map(({ beginsRepeat, endsRepeat }) => [beginsRepeat, endsRepeat])).toEqual([
    [true, false],
    [false, true],
    [false, false],
  ]);
  expect(line!.bars.map(({ ending }) => ending && [ending.label, ending.opens, ending.closes])).toEqual([
    null,
    ['1.', true, true],
    ['2.', true, true],
  ]);
});

test('an edit of links leaves the engraving as it is, an edit of notes does not', () => {
  const t = read('d4 e4|f4 g4|');
  const [line] = scoreLines(t, 4);
  const [slurred] = scoreLines(setLinks(t, new Map([['n2', 'slur']])), 4);
  const [other] = scoreLines(read('d4 e4|f4 ^g4|'), 4);
  expect(engravingKey(slurred!)).toBe(engravingKey(line!));
  expect(engravingKey(other!)).not.toBe(engravingKey(line!));
});

test('of two lines an edit leaves one the very same value, and a new key or repeat does not', () => {
  const keep = lineKeeper();
  const t = read('|:d4 e4|f4 g4|a4 b4|c8:|', '4/4');
  const [first, second] = keep(scoreLines(t, 2));
  const [slurred, untouched] = keep(scoreLines(setLinks(t, new Map([['n2', 'slur']])), 2));
  expect(slurred).not.toBe(first);
  expect(untouched).toBe(second);
  const [, once] = keep(scoreLines({ ...t, form: ['A'] }, 2));
  expect(once).not.toBe(second);
});

test('bars that take up others say which, where they begin', () => {
  const tune = read('P:A\nd8|e8|f8|g8||\nP:B\nA8|B8|');
  const ids = scoreLines(tune, 4)[0]!.bars.map(({ id }) => id);
  const linked = reuseBars(tune, ids.slice(1, 3), 'B', null)!;
  expect(scoreLines(linked, 4)[1]!.bars.map(({ reuses }) => reuses)).toEqual([null, null, 'as A 2–3', null]);
});

test('a part of a bar or two is not stretched over the page, one of many fills its lines', () => {
  const bars = (count: number) => read(`|:${Array.from({ length: count }, () => 'd4a4').join('|')}:|`);
  expect(scoreLines(bars(1), 4)[0]!.fullBars).toBe(4);
  expect(scoreLines(bars(2), 8)[0]!.fullBars).toBe(4);
  expect(scoreLines(bars(8), 8)[0]!.fullBars).toBe(8);
  expect(scoreLines(bars(8), 2)[0]!.fullBars).toBe(2);
});
