import type { ImportFinished } from '#contract/imports';
import { MOST_IN_PIECE, PIECE_BYTES } from '#contract/imports';
import type { Tune } from '#core/tune';
import type { Answer, Failure } from '../api/client';

/** A tune that is to be kept. */
export interface TuneToKeep {
  readonly tune: Tune;
  readonly source: string | null;
  /** The tune of the book that it is another setting of. */
  readonly joins: string | null;
}

/** The server as an import sees it. */
export interface ImportServer {
  readonly begin: (fileName: string, expected: number) => Promise<Answer<{ id: string }>>;
  readonly sendOriginal: (id: string, file: Blob) => Promise<Answer<unknown>>;
  readonly sendPiece: (id: string, piece: string) => Promise<Answer<unknown>>;
  readonly finish: (id: string) => Promise<Answer<ImportFinished>>;
  readonly giveUp: (id: string) => Promise<Answer<unknown>>;
  readonly wait: (ms: number) => Promise<void>;
}

/** While nothing answers a step is tried again after these waits: a server that is started anew is back by then. */
const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000, 15_000];

/** Pieces on their way together. */
const AT_ONCE = 2;

/** What may pass by itself: nothing answers, or the database is away. */
const PASSING: readonly Failure['code'][] = ['no-connection', 'database-away', 'internal'];

export type Kept =
  | { readonly kind: 'kept'; readonly finished: ImportFinished }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'failed'; readonly failure: Failure };

/**
 * Keeps the tunes of a file: laid ready in pieces, then all at once in the book. Every step is tried again while nothing
 * answers, so that a server may be started anew in the middle of it. Given up or failed, nothing is left behind.
 */
export async function keepImport(
  server: ImportServer,
  file: { readonly name: string; readonly original: Blob | null; readonly tunes: readonly TuneToKeep[] },
  progress: { readonly onSent: (tunes: number) => void; readonly isCancelled: () => boolean },
): Promise<Kept> {
  const step = async <T>(ask: () => Promise<Answer<T>>): Promise<Answer<T>> => {
    for (let tries = 0; ; tries++) {
      const answer = await ask();
      const wait = RETRY_MS[tries];
      if (answer.ok || wait === undefined || !PASSING.includes(answer.failure.code) || progress.isCancelled())
        return answer;
      await server.wait(wait);
    }
  };
  const begun = await step(() => server.begin(file.name, file.tunes.length));
  if (!begun.ok) return { kind: 'failed', failure: begun.failure };
  const { id } = begun.value;
  const leave = async (kept: Kept): Promise<Kept> => {
    await server.giveUp(id);
    return kept;
  };
  if (file.original) {
    const original = file.original;
    const sent = await step(() => server.sendOriginal(id, original));
    if (!sent.ok) return leave({ kind: 'failed', failure: sent.failure });
  }
  // Several pieces are on their way at once: while one is written down the next is looked at.
  const pieces = piecesOf(file.tunes);
  let sentTunes = 0;
  let failed: Failure | null = null;
  const send = async () => {
    for (const { count, text } of pieces) {
      if (progress.isCancelled() || failed) return;
      const sent = await step(() => server.sendPiece(id, text));
      if (!sent.ok) failed ??= sent.failure;
      sentTunes += count;
      progress.onSent(sentTunes);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, send));
  if (progress.isCancelled()) return leave({ kind: 'cancelled' });
  if (failed) return leave({ kind: 'failed', failure: failed });
  const finished = await step(() => server.finish(id));
  return finished.ok
    ? { kind: 'kept', finished: finished.value }
    : leave({ kind: 'failed', failure: finished.failure });
}

/** Tunes as JSON texts, each small enough for a request. */
export function* piecesOf(tunes: readonly TuneToKeep[]): Generator<{ from: number; count: number; text: string }> {
  let items: string[] = [];
  let length = 0;
  let from = 0;
  const piece = () => ({ from, count: items.length, text: `{"from":${from},"tunes":[${items.join(',')}]}` });
  for (const { tune, source, joins } of tunes) {
    const item = JSON.stringify({ tune, source: source ?? undefined, joins: joins ?? undefined });
    if (items.length > 0 && (items.length >= MOST_IN_PIECE || length + item.length > PIECE_BYTES)) {
      yield piece();
      from += items.length;
      items = [];
      length = 0;
    }
    items.push(item);
    length += item.length;
  }
  if (items.length > 0) yield piece();
}
