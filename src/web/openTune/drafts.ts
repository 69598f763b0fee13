import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { z } from 'zod';
import type { Tune } from '#core/tune';
import { tuneSchema } from '#formats/json';

/**
 * Edits that the server has not acknowledged, kept in this browser so that a crash loses nothing. Each page writes its
 * own draft; whoever opens the tune next picks up what a closed one left.
 */
export interface Draft {
  readonly baseRevision: number;
  readonly tune: Tune;
  readonly at: number;
}

const draftSchema = z.object({ baseRevision: z.int().min(1), tune: tuneSchema, at: z.number() });

/** A draft as it is kept, by its tune and the page that writes it. */
interface KeptDraft {
  readonly tuneId: string;
  readonly page: string;
  readonly draft: unknown;
}

interface DraftsDatabase extends DBSchema {
  drafts: { key: [tuneId: string, page: string]; value: KeptDraft };
}

/**
 * The page that writes: another at each load, so that a tab that was duplicated writes a draft of its own. It holds a lock for
 * as long as it lives, by which others know that its drafts are still its own.
 */
const PAGE = crypto.randomUUID().slice(0, 8);
const LOCK_PREFIX = 'morrin.page.';
/** Where an earlier Morrin kept drafts, one text each. */
const OLD_PREFIX = 'morrin.draft.';

let isHeld = false;
let opened: Promise<IDBPDatabase<DraftsDatabase>> | null = null;

function database(): Promise<IDBPDatabase<DraftsDatabase>> {
  const forget = () => {
    opened = null;
  };
  opened ??= openDB<DraftsDatabase>('morrin-drafts', 1, {
    upgrade: (db) => void db.createObjectStore('drafts', { keyPath: ['tuneId', 'page'] }),
    // The browser closed it by itself: it is opened anew with the next draft.
    terminated: forget,
    blocking: (_current, _next, event) => {
      (event.target as IDBDatabase).close();
      forget();
    },
  });
  opened.catch(forget);
  return opened;
}

/** Makes ready to keep drafts, so that the first edit does not wait: others are told that this page lives. */
export function holdPage(): void {
  if (isHeld) return;
  isHeld = true;
  void locksOf()?.request(`${LOCK_PREFIX}${PAGE}`, () => new Promise(() => undefined));
  // So that a browser short of room throws other things away first; it may say no.
  void (navigator as Partial<Pick<Navigator, 'storage'>>).storage?.persist?.().catch(() => undefined);
  void database().catch(() => undefined);
}

/** Web locks; null where there are none, as in browsers of old. */
function locksOf(): LockManager | null {
  return (navigator as Partial<Pick<Navigator, 'locks'>>).locks ?? null;
}

/** Pages that are open in other tabs. */
async function livePages(): Promise<ReadonlySet<string>> {
  const { held = [] } = (await locksOf()?.query()) ?? {};
  return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK_PREFIX) ? name.slice(LOCK_PREFIX.length) : [])));
}

/**
 * Keeps this page's draft. The answer is true once it is on the disk, not before: a machine that loses its power then still
 * has it. False: this browser keeps nothing, its room is used up or switched off.
 */
export async function writeDraft(tuneId: string, draft: Draft): Promise<boolean> {
  holdPage();
  try {
    const transaction = (await database()).transaction('drafts', 'readwrite', { durability: 'strict' });
    const put = transaction.store.put({ tuneId, page: PAGE, draft });
    // It goes through even if the page ends in this moment.
    transaction.commit();
    await Promise.all([put, transaction.done]);
    return true;
  } catch {
    return false;
  }
}

/** Removes this page's draft, unless it was written after `upTo`. Drafts of other pages are theirs. */
export async function removeDraft(tuneId: string, upTo: number): Promise<void> {
  try {
    const transaction = (await database()).transaction('drafts', 'readwrite');
    const own = await transaction.store.get([tuneId, PAGE]);
    if (own && (parsed(own.draft)?.at ?? 0) <= upTo) await transaction.store.delete([tuneId, PAGE]);
    await transaction.done;
  } catch {
    // What cannot be removed is found again, and seen to be what the server has.
  }
}

/** The newest draft of a tune that no open page writes; it is this page's from now on. */
export async function takeOverDraft(tuneId: string): Promise<Draft | null> {
  const live = await livePages();
  const left = (await draftsOf(tuneId)).filter(({ page }) => page === PAGE || !live.has(page));
  const [newest] = left.sort((a, b) => b.draft.at - a.draft.at);
  if (!newest) return null;
  if (newest.page !== PAGE && (await writeDraft(tuneId, newest.draft))) await newest.remove();
  return newest.draft;
}

/** The newest draft of a tune, whoever writes it: to look at, and left where it is. */
export async function newestDraft(tuneId: string): Promise<Draft | null> {
  return (await draftsOf(tuneId)).sort((a, b) => b.draft.at - a.draft.at)[0]?.draft ?? null;
}

interface FoundDraft {
  readonly page: string;
  readonly draft: Draft;
  readonly remove: () => Promise<void>;
}

async function draftsOf(tuneId: string): Promise<FoundDraft[]> {
  const old = oldDraftsOf(tuneId);
  try {
    const db = await database();
    const kept = await db.getAll('drafts', IDBKeyRange.bound([tuneId], [tuneId, []]));
    return kept
      .flatMap(({ page, draft: read }) => {
        const draft = parsed(read);
        return draft ? [{ page, draft, remove: () => db.delete('drafts', [tuneId, page]) }] : [];
      })
      .concat(old);
  } catch {
    return old;
  }
}

function oldDraftsOf(tuneId: string): FoundDraft[] {
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!);
  return keys
    .filter((key) => key.startsWith(`${OLD_PREFIX}${tuneId}.`))
    .flatMap((key) => {
      const draft = parsedText(localStorage.getItem(key) ?? '');
      const remove = () => Promise.resolve(localStorage.removeItem(key));
      return draft ? [{ page: key.slice(key.lastIndexOf('.') + 1), draft, remove }] : [];
    });
}

const parsed = (value: unknown): Draft | null => draftSchema.safeParse(value).data ?? null;

function parsedText(text: string): Draft | null {
  try {
    return parsed(JSON.parse(text));
  } catch {
    // Not JSON: not ours to read.
    return null;
  }
}
