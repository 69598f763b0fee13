import { MOST_IN_PIECE, PIECE_BYTES, importPieceSchema } from '#contract/imports';
import type { Answer, Failure } from '../api/client';
import { inventedTune } from '../../core/testing/books';
import { type ImportServer, type TuneToKeep, keepImport, piecesOf } from './keepImport';

const tunes = (count: number): TuneToKeep[] =>
  Array.from({ length: count }, (_, i) => ({ tune: inventedTune(i + 1), source: `X:${i}`, joins: null }));
const fail = (code: Failure['code']): Answer<never> => ({ ok: false, failure: { code } });

/** A server that keeps what it is sent and fails when it is told to. */
function fakeServer(failures: Partial<Record<keyof ImportServer, Failure['code'][]>> = {}) {
  const log: string[] = [];
  const kept: number[] = [];
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
      list.forEach((_, i) => kept.push(from + i));
      return answer('sendPiece', null);
    },
    finish: () => answer('finish', { tunes: kept.length, settings: 0, first: null }),
    giveUp: () => answer('giveUp', null),
    wait: (ms) => {
      log.push(`wait ${ms}`);
      return Promise.resolve();
    },
  };
  return { server, log, kept };
}
const never = { onSent: () => undefined, isCancelled: () => false };

test('pieces hold every tune once, in order, and fit into a request', () => {
  const list = tunes(MOST_IN_PIECE * 2 + 3);
  const pieces = [...piecesOf(list)];
  expect(pieces.map(({ from, count }) => [from, count])).toEqual(
    pieces.map(({ count }, i) => [pieces.slice(0, i).reduce((sum, piece) => sum + piece.count, 0), count]),
  );
  expect(pieces.reduce((sum, { count }) => sum + count, 0)).toBe(list.length);
  for (const { text, count } of pieces) {
    expect(count).toBeLessThanOrEqual(MOST_IN_PIECE);
    expect(text.length).toBeLessThan(PIECE_BYTES + 100_000);
    expect(importPieceSchema.safeParse(JSON.parse(text)).success).toBe(true);
  }
});

test('an import is begun, sent and finished, and tells how far it is', async () => {
  const { server, log } = fakeServer();
  const sent: number[] = [];
  const kept = await keepImport(
    server,
    { name: 'a.abc', original: new Blob(['x']), tunes: tunes(3) },
    { ...never, onSent: (count) => sent.push(count) },
  );
  expect(kept).toMatchObject({ kind: 'kept', finished: { tunes: 3 } });
  expect(log).toEqual(['begin', 'sendOriginal', 'sendPiece', 'finish']);
  expect(sent).toEqual([3]);
});

test('a server that is started anew in the middle of it is waited for', async () => {
  const { server, log } = fakeServer({ sendPiece: ['no-connection', 'database-away'], finish: ['no-connection'] });
  const kept = await keepImport(server, { name: 'a.abc', original: null, tunes: tunes(1) }, never);
  expect(kept.kind).toBe('kept');
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
  const kept = await keepImport(server, { name: 'a.abc', original: null, tunes: tunes(1) }, never);
  expect(kept).toEqual({ kind: 'failed', failure: { code: 'bad-tune' } });
  expect(log).toEqual(['begin', 'sendPiece', 'giveUp']);
});

test('given up in the middle, nothing is left behind', async () => {
  const { server, log } = fakeServer();
  let isCancelled = false;
  const list = tunes(MOST_IN_PIECE * 4);
  const kept = await keepImport(
    server,
    { name: 'a.abc', original: null, tunes: list },
    {
      onSent: () => {
        isCancelled = true;
      },
      isCancelled: () => isCancelled,
    },
  );
  expect(kept).toEqual({ kind: 'cancelled' });
  // Two pieces were on their way, and no third one.
  expect(log).toEqual(['begin', 'sendPiece', 'sendPiece', 'giveUp']);
});
