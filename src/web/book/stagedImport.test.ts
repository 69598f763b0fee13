import { importPieceSchema, MAX_IN_PIECE, PIECE_BYTES } from '#contract/imports';
import { inventedTune } from '../../core/testing/books';
import type { Answer, Failure } from '../api/answer';
import { type ImportServer, StagedTunes } from './stagedImport';

const tunes = (count: number): string[] =>
  Array.from({ length: count }, (_, i) => JSON.stringify({ tune: inventedTune(i + 1), source: `X:${i}` }));
const fail = (code: Failure['code']): Answer<never> => ({ ok: false, failure: { code } });

/** A server that keeps what it is sent and fails when it is told to. */
function fakeServer(failures: Partial<Record<keyof ImportServer, Failure['code'][]>> = {}) {
  const log: string[] = [];
  const places: number[] = [];
  const answer = <T>(name: keyof ImportServer, value: T): Promise<Answer<T>> => {
    log.push(name);
    const code = failures[name]?.shift();
    return Promise.resolve(code ? fail(code) : { ok: true, value });
  };
  const server: ImportServer = {
    begin: () => answer('begin', { id: 'i' }),
    sendOriginal: () => answer('sendOriginal', null),
    sendPiece: (_id, piece) => {
      const { from, tunes: list } = importPieceSchema.parse(JSON.parse(piece));
      expect(list.length).toBeLessThanOrEqual(MAX_IN_PIECE);
      expect(piece.length).toBeLessThan(PIECE_BYTES + 100_000);
      list.forEach((_, i) => places.push(from + i));
      return answer('sendPiece', null);
    },
    finish: (_id, { expected, leftOut }) =>
      answer('finish', { tunes: expected - leftOut.length, settings: 0, first: null }),
    abort: () => answer('abort', null),
    wait: (ms) => {
      log.push(`wait ${ms}`);
      return Promise.resolve();
    },
  };
  return { server, log, places };
}
const plain = { leftOut: [], joins: [] };
const quiet = { onSent: () => undefined, isCancelled: () => false };

test('every tune is staged once, in its place, in pieces that fit into a request, before anything is finished', async () => {
  const { server, log, places } = fakeServer();
  const ready = new StagedTunes(server, 'a.abc');
  const list = tunes(MAX_IN_PIECE * 2 + 7);
  for (let at = 0; at < list.length; at += 13) ready.add(list.slice(at, at + 13));
  await new Promise((resolve) => setTimeout(resolve, 0));
  // Full pieces are on their way while the file is still read.
  expect(log.filter((name) => name === 'sendPiece').length).toBeGreaterThanOrEqual(2);
  const kept = await ready.finish(null, plain, quiet);
  expect(kept).toMatchObject({ kind: 'kept', finished: { tunes: list.length } });
  expect([...places].sort((a, b) => a - b)).toEqual(list.map((_, i) => i));
  expect(log[0]).toBe('begin');
  expect(log[log.length - 1]).toBe('finish');
});

test('what was left out is told when it is finished, and how far it is', async () => {
  const { server, log } = fakeServer();
  const ready = new StagedTunes(server, 'a.abc');
  ready.add(tunes(3));
  const sent: number[] = [];
  const kept = await ready.finish(
    new Blob(['x']),
    { leftOut: [1], joins: [] },
    { ...quiet, onSent: (count) => sent.push(count) },
  );
  expect(kept).toMatchObject({ kind: 'kept', finished: { tunes: 2 } });
  expect(log).toEqual(['begin', 'sendPiece', 'sendOriginal', 'finish']);
  expect(sent).toEqual([0, 3]);
});

test('a server that is started anew in the middle of it is waited for', async () => {
  const { server, log } = fakeServer({ sendPiece: ['no-connection', 'database-away'], finish: ['no-connection'] });
  const ready = new StagedTunes(server, 'a.abc');
  ready.add(tunes(1));
  expect((await ready.finish(null, plain, quiet)).kind).toBe('kept');
  expect(log).toEqual([
    'begin',
    'sendPiece',
    'wait 500',
    'sendPiece',
    'wait 1000',
    'sendPiece',
    'finish',
    'wait 500',
    'finish',
  ]);
});

test('what will not pass by itself is not tried again, and nothing is left behind', async () => {
  const { server, log } = fakeServer({ sendPiece: ['bad-tune'] });
  const ready = new StagedTunes(server, 'a.abc');
  ready.add(tunes(1));
  expect(await ready.finish(null, plain, quiet)).toEqual({ kind: 'failed', failure: { code: 'bad-tune' } });
  expect(log).toEqual(['begin', 'sendPiece', 'abort']);
});

test('given up before or while it is finished, nothing is left behind, and given up twice it is given up once', async () => {
  const { server, log } = fakeServer();
  const ready = new StagedTunes(server, 'a.abc');
  ready.add(tunes(MAX_IN_PIECE * 4));
  expect(await ready.finish(null, plain, { ...quiet, isCancelled: () => true })).toEqual({ kind: 'cancelled' });
  await ready.abort();
  expect(log.filter((name) => name === 'abort')).toHaveLength(1);
  expect(log).not.toContain('finish');
  const untouched = fakeServer();
  await new StagedTunes(untouched.server, 'b.abc').abort();
  expect(untouched.log).toEqual([]);
});
