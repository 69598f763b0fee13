import { z } from 'zod';
import { tuneSchema } from '#formats/json';
import type { Tune } from '#core/tune';

/**
 * Edits that the server has not acknowledged, kept in this browser so that a crash loses nothing. Each tab writes its
 * own draft; whoever opens the tune next picks up what a closed tab left.
 */
export interface Draft {
  readonly baseRevision: number;
  readonly tune: Tune;
  readonly at: number;
}

const PREFIX = 'morrin.draft.';
const draftSchema = z.object({ baseRevision: z.int().min(1), tune: tuneSchema, at: z.number() });

function tabId(): string {
  const kept = sessionStorage.getItem('morrin.tab');
  if (kept) return kept;
  const fresh = crypto.randomUUID().slice(0, 8);
  sessionStorage.setItem('morrin.tab', fresh);
  return fresh;
}

const keyOf = (tuneId: string) => `${PREFIX}${tuneId}.${tabId()}`;

/** Returns whether the draft could be written: storage may be full or switched off. */
export function writeDraft(tuneId: string, draft: Draft): boolean {
  try {
    localStorage.setItem(keyOf(tuneId), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

/** Removes this tab's draft, unless it was written after `upTo`. Drafts of other tabs are theirs. */
export function removeDraft(tuneId: string, upTo: number): void {
  const own = draftsOf(tuneId).find(({ key }) => key === keyOf(tuneId));
  if (own && own.draft.at <= upTo) localStorage.removeItem(own.key);
}

/** The newest draft of a tune, whichever tab left it; it is this tab's from now on. */
export function takeOverDraft(tuneId: string): Draft | null {
  const newest = draftsOf(tuneId).sort((a, b) => b.draft.at - a.draft.at)[0];
  if (!newest) return null;
  if (newest.key !== keyOf(tuneId) && writeDraft(tuneId, newest.draft)) localStorage.removeItem(newest.key);
  return newest.draft;
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
