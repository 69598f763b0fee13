import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Tune } from '#core/tune';
import { isTune } from '#formats/json';
import type { OpenTune, Step, TuneHistory } from './openTuneSlice';

/** Tunes whose history is at hand from room to room. */
const AT_HAND = 8;
/** Steps of a tune that outlast the page, and tunes that have some. */
const LASTING_STEPS = 100;
const LASTING_TUNES = 40;

const atHand = new Map<string, TuneHistory>();

/** A history as it lasts in this browser; notes and bars that steps share are written once. */
interface LastingHistory {
  readonly tuneId: string;
  readonly at: number;
  readonly tune: Tune;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

interface HistoriesDatabase extends DBSchema {
  histories: { key: string; value: LastingHistory; indexes: { at: number } };
}

let opened: Promise<IDBPDatabase<HistoriesDatabase>> | null = null;

function database(): Promise<IDBPDatabase<HistoriesDatabase>> {
  const forget = () => {
    opened = null;
  };
  opened ??= openDB<HistoriesDatabase>('morrin-histories', 1, {
    upgrade: (db) => db.createObjectStore('histories', { keyPath: 'tuneId' }).createIndex('at', 'at'),
    terminated: forget,
    blocking: (_current, _next, event) => {
      (event.target as IDBDatabase).close();
      forget();
    },
  });
  opened.catch(forget);
  return opened;
}

/** Has the history of a tune at hand for the next room that opens it. */
export function keepHistory({ id, tune, past, future, selection, passInView }: OpenTune): void {
  atHand.delete(id);
  atHand.set(id, { tune, past, future, selection, passInView });
  for (const oldest of atHand.keys()) {
    if (atHand.size <= AT_HAND) break;
    atHand.delete(oldest);
  }
}

/** Lets a history outlast the page; a browser that keeps nothing has undo until the page is left. */
export async function writeHistory({ id, tune, past, future }: OpenTune): Promise<void> {
  try {
    const transaction = (await database()).transaction('histories', 'readwrite');
    const { store } = transaction;
    if (past.length + future.length === 0) await store.delete(id);
    else {
      const steps = { past: past.slice(-LASTING_STEPS), future: future.slice(0, LASTING_STEPS) };
      await store.put({ tuneId: id, at: Date.now(), tune, ...steps });
    }
    const surplus = (await store.count()) - LASTING_TUNES;
    if (surplus > 0) for (const key of await store.index('at').getAllKeys(null, surplus)) await store.delete(key);
    await transaction.done;
  } catch {
    // Undo then reaches back to where the page was loaded.
  }
}

/** The history of a tune, from this page or an earlier one; null: none. */
export async function historyOf(id: string): Promise<TuneHistory | null> {
  const known = atHand.get(id);
  if (known) return known;
  try {
    const lasting = await (await database()).get('histories', id);
    if (!lasting || !isTune(lasting.tune) || ![...lasting.past, ...lasting.future].every(isStep)) return null;
    const { tune, past, future } = lasting;
    return { tune, past, future, selection: null, passInView: {} };
  } catch {
    return null;
  }
}

function isStep(value: unknown): value is Step {
  const { tune, label } = (value ?? {}) as Partial<Record<keyof Step, unknown>>;
  return typeof label === 'string' && isTune(tune);
}
