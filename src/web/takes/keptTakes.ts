import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { OwnFactors } from '#core/tempo';
import type { TakeResult } from './takeResult';

/** From where a take is. */
export type TakeSource = 'microphone' | 'file' | 'simulated';

/** What is known of a kept take without its sound. */
export interface KeptTake {
  readonly id: string;
  readonly tuneId: string;
  /** ISO time at which it was made. */
  readonly at: string;
  readonly source: TakeSource;
  /** Tempo of the plan it was heard against. */
  readonly bpm: number;
  /** Notes by index; null: the whole tune. */
  readonly span: { readonly from: number; readonly to: number } | null;
  readonly result: TakeResult;
  /** The player takes it as a reference for bite and tone. */
  readonly isAccepted: boolean;
  /** What holds and breaths came out like before it: they were played to the player by that. */
  readonly own?: OwnFactors;
  readonly bytes: number;
  readonly sampleRate: number;
}

interface TakesDatabase extends DBSchema {
  takes: { key: string; value: KeptTake; indexes: { tune: string } };
  sounds: { key: string; value: { readonly id: string; readonly samples: Int16Array } };
}

let opened: Promise<IDBPDatabase<TakesDatabase>> | null = null;

function database(): Promise<IDBPDatabase<TakesDatabase>> {
  const forget = () => {
    opened = null;
  };
  opened ??= openDB<TakesDatabase>('morrin-takes', 2, {
    upgrade: async (db, version, _next, change) => {
      if (version < 1) {
        db.createObjectStore('takes', { keyPath: 'id' }).createIndex('tune', 'tuneId');
        db.createObjectStore('sounds', { keyPath: 'id' });
        return;
      }
      // Takes of the first version know no tone of the lowest string, and not how sure what drifts is: that is not told.
      for await (const at of change.objectStore('takes')) {
        const { result } = at.value;
        const tempo = { ...result.figures.tempo, driftUncertainty: null };
        const figures = { ...result.figures, tempo, fingers: [], lowTones: [] };
        await at.update({ ...at.value, result: { ...result, figures } });
      }
    },
    terminated: forget,
    blocking: (_current, _next, event) => {
      (event.target as IDBDatabase).close();
      forget();
    },
  });
  opened.catch(forget);
  return opened;
}

/** Keeps a take in this browser; it never leaves the machine by itself. @throws where the browser has no room for it */
export async function keepTake(take: Omit<KeptTake, 'bytes'>, samples: Float32Array): Promise<KeptTake> {
  const sound = Int16Array.from(samples, (value) => Math.round(32767 * Math.max(-1, Math.min(1, value))));
  const kept = { ...take, bytes: sound.byteLength };
  const db = await database();
  const change = db.transaction(['takes', 'sounds'], 'readwrite');
  await Promise.all([
    change.objectStore('takes').put(kept),
    change.objectStore('sounds').put({ id: kept.id, samples: sound }),
    change.done,
  ]);
  return kept;
}

/** Takes of a tune, the newest first. */
export async function takesOf(tuneId: string): Promise<KeptTake[]> {
  const found = await (await database()).getAllFromIndex('takes', 'tune', tuneId);
  return found.sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** Accepted takes of any tune: what this player's bite is like. */
export async function acceptedTakes(): Promise<KeptTake[]> {
  return (await (await database()).getAll('takes')).filter(({ isAccepted }) => isAccepted);
}

export async function soundOf(id: string): Promise<Float32Array | null> {
  const found = await (await database()).get('sounds', id);
  return found ? Float32Array.from(found.samples, (value) => value / 32768) : null;
}

export async function changeTake(take: KeptTake): Promise<void> {
  await (await database()).put('takes', take);
}

/** Takes it out; what is given brings it back. */
export async function deleteTake(take: KeptTake): Promise<() => Promise<void>> {
  const db = await database();
  const sound = await db.get('sounds', take.id);
  const change = db.transaction(['takes', 'sounds'], 'readwrite');
  await Promise.all([
    change.objectStore('takes').delete(take.id),
    change.objectStore('sounds').delete(take.id),
    change.done,
  ]);
  return async () => {
    const back = db.transaction(['takes', 'sounds'], 'readwrite');
    await Promise.all([
      back.objectStore('takes').put(take),
      sound ? back.objectStore('sounds').put(sound) : undefined,
      back.done,
    ]);
  };
}
