import { type FinishImport, type ImportFinished, PIECE_BYTES } from '#contract/imports';
import type { Answer, Failure } from '../api/answer';

/** The server as an import sees it. */
export interface ImportServer {
  readonly begin: (fileName: string) => Promise<Answer<{ id: string }>>;
  readonly sendOriginal: (id: string, file: Blob) => Promise<Answer<unknown>>;
  readonly sendPiece: (id: string, piece: string) => Promise<Answer<unknown>>;
  readonly finish: (id: string, choices: FinishImport) => Promise<Answer<ImportFinished>>;
  readonly abort: (id: string) => Promise<Answer<unknown>>;
  readonly wait: (ms: number) => Promise<void>;
}

/** While nothing answers a step is tried again after these waits: a server that is started anew is back by then. */
const RETRY_MS = [500, 1000, 2000, 4000, 8000, 15_000, 15_000];

/** Tunes of a piece: few, so that the server has something to do as soon as some are read. */
const TUNES_IN_PIECE = 40;

/** Pieces on their way together. */
const AT_ONCE = 2;

/** What may pass by itself: nothing answers, or the database is away. */
const PASSING: readonly Failure['code'][] = ['no-connection', 'database-away', 'internal'];

export type Kept =
  | { readonly kind: 'kept'; readonly finished: ImportFinished }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'failed'; readonly failure: Failure };

interface Piece {
  readonly from: number;
  readonly count: number;
  readonly text: string;
}

/**
 * The tunes of a file on their way: staged on the server piece by piece while the file is still read and looked at, then
 * put into the book all at once. Every step is tried again while nothing answers, so that a server may be started anew in
 * the middle of it. Given up or failed, nothing is left behind.
 */
export class StagedTunes {
  private begun: Promise<Answer<{ id: string }>> | null = null;
  private items: string[] = [];
  private length = 0;
  private added = 0;
  private sent = 0;
  private readonly waiting: Piece[] = [];
  private readonly running = new Set<Promise<void>>();
  private failure: Failure | null = null;
  private isOver = false;
  private onSent: (tunes: number) => void = () => undefined;

  constructor(
    private readonly server: ImportServer,
    private readonly fileName: string,
  ) {}

  /** More tunes of the file, in its order and as they are sent; full pieces are sent at once. */
  add(items: readonly string[]): void {
    for (const item of items) {
      if (this.items.length > 0 && (this.items.length >= TUNES_IN_PIECE || this.length + item.length > PIECE_BYTES))
        this.closePiece();
      this.items.push(item);
      this.length += item.length;
    }
    this.pump();
  }

  /** Puts what was staged into the book, as it was chosen. */
  async finish(
    original: Blob | null,
    choices: Omit<FinishImport, 'expected'>,
    progress: { readonly onSent: (tunes: number) => void; readonly isCancelled: () => boolean },
  ): Promise<Kept> {
    this.onSent = progress.onSent;
    this.closePiece();
    this.pump();
    progress.onSent(this.sent);
    while (this.running.size > 0 && !progress.isCancelled()) await Promise.race(this.running);
    if (progress.isCancelled()) return this.leave({ kind: 'cancelled' });
    if (this.failure) return this.leave({ kind: 'failed', failure: this.failure });
    const begun = await this.id();
    if (!begun.ok) return this.leave({ kind: 'failed', failure: begun.failure });
    const { id } = begun.value;
    if (original) {
      const answer = await this.step(() => this.server.sendOriginal(id, original));
      if (!answer.ok) return this.leave({ kind: 'failed', failure: answer.failure });
    }
    if (progress.isCancelled()) return this.leave({ kind: 'cancelled' });
    const finished = await this.step(() => this.server.finish(id, { ...choices, expected: this.added }));
    if (!finished.ok) return this.leave({ kind: 'failed', failure: finished.failure });
    this.isOver = true;
    return { kind: 'kept', finished: finished.value };
  }

  /** Takes everything away again. */
  async abort(): Promise<void> {
    if (this.isOver) return;
    this.isOver = true;
    this.waiting.length = 0;
    const begun = await this.begun;
    if (begun?.ok) await this.server.abort(begun.value.id);
  }

  private async leave(kept: Kept): Promise<Kept> {
    await this.abort();
    return kept;
  }

  private closePiece(): void {
    if (this.items.length === 0) return;
    const count = this.items.length;
    this.waiting.push({ from: this.added, count, text: `{"from":${this.added},"tunes":[${this.items.join(',')}]}` });
    this.added += count;
    this.items = [];
    this.length = 0;
  }

  private pump(): void {
    while (this.running.size < AT_ONCE && !this.failure && !this.isOver) {
      const piece = this.waiting.shift();
      if (!piece) return;
      const run: Promise<void> = this.send(piece).finally(() => {
        this.running.delete(run);
        this.pump();
      });
      this.running.add(run);
    }
  }

  private async send({ count, text }: Piece): Promise<void> {
    const begun = await this.id();
    const answer = begun.ok ? await this.step(() => this.server.sendPiece(begun.value.id, text)) : begun;
    if (!answer.ok) {
      this.failure ??= answer.failure;
      return;
    }
    this.sent += count;
    this.onSent(this.sent);
  }

  private id(): Promise<Answer<{ id: string }>> {
    this.begun ??= this.step(() => this.server.begin(this.fileName));
    return this.begun;
  }

  private async step<T>(ask: () => Promise<Answer<T>>): Promise<Answer<T>> {
    for (let tries = 0; ; tries++) {
      const answer = await ask();
      const wait = RETRY_MS[tries];
      if (answer.ok || wait === undefined || this.isOver || !PASSING.includes(answer.failure.code)) return answer;
      await this.server.wait(wait);
    }
  }
}
