import { z } from 'zod';
import { tuneSchema } from '#formats/json';
import type { Tune } from '#core/tune';

/**
 * Edits that the server has not acknowledged, kept in this browser so that a crash loses nothing. Each page writes its
 * own draft; whoever opens the tune next picks up what a closed one left.
 */
export interface Draft {
  readonly baseRevision: number;
  readonly tune: Tune;
  readonly at: number;
}

const PREFIX = 'morrin.draft.';
const draftSchema = z.object({ baseRevision: z.int().min(1), tune: tuneSchema, at: z.number() });

/**
 * The page that writes: another at each load, so that a tab that was duplicated writes a draft of its own. It holds a lock for
 * as long as it lives, by which others know that its drafts are still its own.
 */
const PAGE = crypto.randomUUID().slice(0, 8);
const LOCK_PREFIX = 'morrin.page.';
let isHeld = false;

function holdPage(): void {
  if (isHeld) return;
  isHeld = true;
  void locksOf()?.request(`${LOCK_PREFIX}${PAGE}`, () => new Promise(() => undefined));
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

const keyOf = (tuneId: string) => `${PREFIX}${tuneId}.${PAGE}`;
const pageOf = (key: string) => key.slice(key.lastIndexOf('.') + 1);

/** Returns whether the draft could be written: storage may be full or switched off. */
export function writeDraft(tuneId: string, draft: Draft): boolean {
  holdPage();
  try {
    localStorage.setItem(keyOf(tuneId), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

/** Removes this page's draft, unless it was written after `upTo`. Drafts of other pages are theirs. */
export function removeDraft(tuneId: string, upTo: number): void {
  const own = draftsOf(tuneId).find(({ key }) => key === keyOf(tuneId));
  if (own && own.draft.at <= upTo) localStorage.removeItem(own.key);
}

/** The newest draft of a tune that no open page writes; it is this page's from now on. */
export async function takeOverDraft(tuneId: string): Promise<Draft | null> {
  const live = await livePages();
  const left = draftsOf(tuneId).filter(({ key }) => key === keyOf(tuneId) || !live.has(pageOf(key)));
  const [newest] = left.sort((a, b) => b.draft.at - a.draft.at);
  if (!newest) return null;
  if (newest.key !== keyOf(tuneId) && writeDraft(tuneId, newest.draft)) localStorage.removeItem(newest.key);
  return newest.draft;
}

/** The newest draft of a tune, whoever writes it: to look at, and left where it is. */
export function newestDraft(tuneId: string): Draft | null {
  return draftsOf(tuneId).sort((a, b) => b.draft.at - a.draft.at)[0]?.draft ?? null;
}

function draftsOf(tuneId: string): { key: string; draft: Draft }[] {
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i)!);
  return keys
    .filter((key) => key.startsWith(`${PREFIX}${tuneId}.`))
    .flatMap((key) => {
      const draft = parseDraft(localStorage.getItem(key) ?? '');
      return draft ? [{ key, draft }] : [];
    });
}

function parseDraft(text: string): Draft | null {
  try {
    return draftSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    // Not JSON: not ours to read.
    return null;
  }
}
