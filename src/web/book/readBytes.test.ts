/** @jest-environment node */
import { tuneOf } from './importProtocol';
import { readBytes, readInChunks } from './readBytes';

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string) => readBytes(bytes(text), {});

test('every bar is listed with its number and its own messages', () => {
  const { tunes } = read('X:1\nT:Two\nR:reelish\nM:4/4\nL:1/8\nK:D\n|:AB|d8|e7|(f8|g6:|\n');
  const [{ parts, messages, bars, notes }] = tunes as [(typeof tunes)[number]];
  expect([bars, notes]).toEqual([5, 6]);
  expect(messages.map(({ code }) => code)).toEqual(['unknown-type']);
  expect(parts).toHaveLength(1);
  expect(parts[0]!.bars.map(({ number }) => number)).toEqual([0, 1, 2, 3, 4]);
  expect(parts[0]!.bars.map((bar) => bar.messages.map(({ code }) => code))).toEqual([
    [],
    [],
    ['bar-sum'],
    ['unclosed-slur'],
    [],
  ]);
});

test('first and second endings count alike, and each part counts from one', () => {
  const { tunes } = read('X:1\nT:E\nM:2/4\nL:1/8\nK:D\n|:d4|1 e4:|2 f4||:g4|a4:|\n');
  expect(tunes[0]!.parts.map(({ name, bars }) => [name, bars.map(({ number }) => number)])).toEqual([
    ['A', [1, 2, 2]],
    ['B', [1, 2]],
  ]);
});

test('an empty file, a binary one and prose are told apart', () => {
  expect(readBytes(new Uint8Array(0), {}).messages[0]!.code).toBe('empty');
  expect(readBytes(new Uint8Array([0, 1, 2, 255, 0]), {}).messages[0]!.code).toBe('not-text');
  expect(read('Once there was a fiddler.').messages[0]!.code).toBe('no-notes');
});

test('a plan is read back, and one that is not as expected says where', () => {
  const plan = tuneOf(read('X:1\nT:P\nM:4/4\nL:1/8\nK:D\nd8|\n').tunes[0]!);
  expect(tuneOf(read(JSON.stringify(plan)).tunes[0]!)).toEqual(plan);
  const { tunes, messages } = read(JSON.stringify({ ...plan, form: ['Q'] }));
  expect(tunes).toEqual([]);
  expect(messages[0]!.matter).toMatchObject({ what: 'plan-field', path: 'form.0' });
});

test('tunes are handed on while the others are still read', () => {
  const many = Array.from({ length: 45 }, (_, i) => `X:${i}\nT:N${i}\nM:4/4\nL:1/8\nK:D\nd8|\n`).join('\n');
  const chunks = [...readInChunks(bytes(many), {})];
  expect(chunks.map(({ length }) => length)).toEqual([20, 20, 5]);
  expect(chunks.flat().map(({ title }) => title)).toEqual(Array.from({ length: 45 }, (_, i) => `N${i}`));
});
