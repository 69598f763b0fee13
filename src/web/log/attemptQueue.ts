import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { type Attempt, attemptSchema, logRoutes, MAX_ATTEMPTS_AT_ONCE } from '#contract/log';
import { ask } from '../api/ask';

/** Attempts on their way to the log: each is in this browser until the server says that it has it. */
export interface QueueState {
  readonly waiting: number;
  /** On their way to the disk: leaving the page now would lose them. */
  readonly writing: number;
  /** The last time that it was tried the server did not answer. */
  readonly isStuck: boolean;
  /** This browser keeps nothing: what is not sent when the page is left is lost. */
  readonly isForgetful: boolean;
}

interface AttemptsDatabase extends DBSchema {
  attempts: { key: string; value: { readonly id: string; readonly attempt: unknown; readonly at: number } };
}

/** Between two tries while there is no answer, in milliseconds. */
const AGAIN_MS = 5_000;

export interface QueueDeps {
  /** Sends attempts; which of them the server has then, or null where it does not answer. */
  readonly send: (attempts: readonly Attempt[]) => Promise<readonly string[] | null>;
  readonly onSent?: () => void;
  readonly againMs?: number;
}

/** A queue that outlives its page: first to the disk, then to the server, then off the disk. */
export class AttemptQueue {
  private readonly unsent = new Map<string, Attempt>();
  private state: QueueState = { waiting: 0, writing: 0, isStuck: false, isForgetful: false };
  private readonly listeners = new Set<() => void>();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private opened: Promise<IDBPDatabase<AttemptsDatabase>> | null = null;

  constructor(private readonly deps: QueueDeps) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): QueueState => this.state;

  /** Takes up what an earlier page left, and sends it. */
  async resume(): Promise<void> {
    const left = await this.database()
      .then((db) => db.getAll('attempts'))
      .catch(() => []);
    for (const { attempt } of left.sort((a, b) => a.at - b.at)) {
      const parsed = attemptSchema.safeParse(attempt);
      if (parsed.success) this.unsent.set(parsed.data.id, parsed.data);
    }
    this.say({});
    this.flush();
  }

  /** Puts an attempt in. Acknowledged once it is on the disk, or at the server where the browser keeps nothing. */
  async add(attempt: Attempt): Promise<void> {
    this.unsent.set(attempt.id, attempt);
    this.say({ writing: this.state.writing + 1 });
    try {
      const transaction = (await this.database()).transaction('attempts', 'readwrite', { durability: 'strict' });
      void transaction.store.put({ id: attempt.id, attempt, at: Date.now() });
      await transaction.done;
    } catch {
      this.say({ isForgetful: true });
    }
    this.say({ writing: this.state.writing - 1 });
    this.flush();
  }

  /** Sends what waits, the oldest first. */
  flush(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.sending ??= this.sendAll().finally(() => {
      this.sending = null;
      if (this.unsent.size > 0) this.timer = setTimeout(() => this.flush(), this.deps.againMs ?? AGAIN_MS);
    });
  }

  /** When what is on its way now has been answered. */
  async settled(): Promise<void> {
    await this.sending;
  }

  private async sendAll(): Promise<void> {
    while (this.unsent.size > 0) {
      const batch = [...this.unsent.values()].slice(0, MAX_ATTEMPTS_AT_ONCE);
      const kept = await this.deps.send(batch);
      if (kept === null || kept.length === 0) {
        this.say({ isStuck: true });
        return;
      }
      const db = await this.database().catch(() => null);
      for (const id of kept) {
        this.unsent.delete(id);
        await db?.delete('attempts', id).catch(() => undefined);
      }
      this.say({ isStuck: false });
      this.deps.onSent?.();
    }
  }

  private database(): Promise<IDBPDatabase<AttemptsDatabase>> {
    const forget = () => {
      this.opened = null;
    };
    this.opened ??= openDB<AttemptsDatabase>('morrin-attempts', 1, {
      upgrade: (db) => void db.createObjectStore('attempts', { keyPath: 'id' }),
      terminated: forget,
    });
    this.opened.catch(forget);
    return this.opened;
  }

  private say(more: Partial<QueueState>): void {
    this.state = { ...this.state, ...more, waiting: this.unsent.size };
    for (const listener of this.listeners) listener();
  }
}

let own: AttemptQueue | null = null;

/** The queue of this page; what an earlier one left is sent when it is first asked for. */
export function attemptQueue(onSent: () => void): AttemptQueue {
  if (own) return own;
  own = new AttemptQueue({
    send: async (attempts) => {
      const answer = await ask(logRoutes.keepAttempts, { body: { attempts } });
      return answer.ok ? answer.value.kept : null;
    },
    onSent,
  });
  void own.resume();
  window.addEventListener('online', () => own?.flush());
  return own;
}
