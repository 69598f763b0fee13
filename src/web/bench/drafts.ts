import { z } from 'zod';
import { tuneDocument } from '#contract/tunes';
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
const draftSchema = z.object({ baseRevision: z.int().min(1), tune: tuneDocument, at: z.number() });

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

/** Removes this tab's draft and any that it took over, once the server has the edits. */
export function removeDrafts(tuneId: string, upTo: number): void {
  for (const { key, draft } of draftsOf(tuneId)) if (draft.at <= upTo) localStorage.removeItem(key);
}

/** The newest draft of a tune. */
export function findDraft(tuneId: string): Draft | null {
  const drafts = draftsOf(tuneId);
  drafts.sort((a, b) => b.draft.at - a.draft.at);
  return drafts[0]?.draft ?? null;
}

function draftsOf(tuneId: string): { key: string; draft: Draft }[] {
  const found: { key: string; draft: Draft }[] = [];
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i)!;
    if (!key.startsWith(`${PREFIX}${tuneId}.`)) continue;
    try {
      const parsed = draftSchema.safeParse(JSON.parse(localStorage.getItem(key)!));
      if (parsed.success) found.push({ key, draft: parsed.data });
    } catch {
      // Not JSON: not ours to read.
    }
  }
  return found;
}
