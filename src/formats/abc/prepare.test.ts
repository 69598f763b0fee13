import { TextPositions } from '../text';
import { prepareText } from './prepare';

const prepared = (text: string) => prepareText(text, new TextPositions(text));
const codes = (text: string) => prepared(text).messages.map(({ code, line, column }) => `${code} ${line}:${column}`);

test('every character stays at its place, whatever is blanked out', () => {
  for (const text of [
    'd(e!trill f g|\nA "x B|c)d|',
    '|:a::b:|:c:||:d::|e|::f::|',
    '%%morrin-links 5:slur\nw: la la\nab|[K:D]cd|',
    '((((((((((((((((((a))))))))))))))))))|',
    `a${' '.repeat(200)}b|${' '.repeat(90)}`,
  ])
    expect(prepared(text).text).toHaveLength(text.length);
});

test('music that needs nothing is given to the parser as it is', () => {
  const text = 'K:D\n|:(dA) !trill!F2 "Am"[DA]2 (3abc|{g}a4:|\n% a remark with ( in it\nw: la (la';
  expect(prepared(text)).toEqual({ text, messages: [], playsAt: new Map(), openSlurs: new Set(), endings: new Map() });
});

test('repeat signs that the parser does not know are written as it knows them', () => {
  expect(prepared('|a:|:b').text).toBe('|a::`b');
  expect(prepared('|a:||:b').text).toBe('|a::``b');
  expect(prepared('|a:||b').text).toBe('|a:||b');
});

test('what is played more than twice is counted at the sign', () => {
  const plays = (text: string) => [...prepared(text).playsAt.values()];
  expect(plays('|::a::|')).toEqual([3]);
  expect(plays('|:::a:::|')).toEqual([4]);
  expect(plays('|:a:|')).toEqual([]);
  expect(plays('|:a::b:|')).toEqual([2]);
});

test('a mark, a chord or a slur that is left open is told with its place, and blanked out', () => {
  expect(codes('ab!trill cd|')).toEqual(['unclosed-mark 1:3']);
  expect(prepared('ab!trill cd|').text).toBe('ab`````` cd|');
  expect(codes('K:D\nab "Am cd|')).toEqual(['unclosed-mark 2:4']);
  expect(prepared('K:D\nab "Am cd|').text).toBe('K:D\nab %%%%%%%');
  expect(codes('a(b c|\nd|')).toEqual(['unclosed-slur 1:2']);
  expect([...prepared('a(b c|\nd|').openSlurs]).toEqual([1]);
  expect(codes('ab)c|')).toEqual(['unopened-slur 1:3']);
  expect(prepared('ab)c|').text).toBe('ab`c|');
});

test('slurs inside sixteen others are left out, once said', () => {
  const text = `${'('.repeat(18)}a${')'.repeat(18)}|`;
  expect(codes(text)).toEqual(['not-kept 1:17']);
  expect(prepared(text).text).toBe(`${'('.repeat(16)}\`\`a\`\`${')'.repeat(16)}|`);
});

test('what looks like a sign inside a remark, a name or a field is none', () => {
  for (const text of ['a "(" b|', 'a % (b', 'a [K:Dm (x]b|', 'R:reel (fast', 'a !fermata! b|'])
    expect(codes(text)).toEqual([]);
});

test('our own lines are remarks to the parser', () => {
  expect(prepared('%%morrin-start up\n%%stretchlast 1').text).toBe('% morrin-start up\n%%stretchlast 1');
});
