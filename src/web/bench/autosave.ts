import type { Middleware } from '@reduxjs/toolkit';
import type { Tune } from '#core/tune';
import { newerVersion, saveTune } from '../api/client';
import { tunesApi } from '../api/tunesApi';
import { type BenchState, type OpenTune, conflictFound, saveFailed, saved, savingStarted } from './benchSlice';
import { removeDrafts, writeDraft } from './drafts';

/** Edits within this time are kept together. */
const PAUSE_MS = 400;
/** Waits between tries while nothing answers, growing. */
const RETRY_MS = [1000, 2000, 4000, 8000, 15000];

/**
 * Keeps every edit: at once as a draft in this browser, soon after on the server. One save runs at a time; while
 * nothing answers it is tried again, and at once when the network is back.
 */
export function autosave(): Middleware<object, { bench: BenchState }> {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running = false;
  let failures = 0;

  return (api) => {
    const schedule = (wait: number) => {
      if (timer !== null) clearTimeout(timer);
      timer = setTimeout(() => void run(), wait);
    };

    const run = async () => {
      timer = null;
      const { open } = api.getState().bench;
      if (!open || running || (open.save.kind !== 'unsaved' && open.save.kind !== 'failed')) return;
      running = true;
      const { id, revision, tune } = open;
      const startedAt = Date.now();
      api.dispatch(savingStarted());
      const answer = await saveTune(id, revision, tune);
      running = false;
      // The tune may have been closed meanwhile: its draft is then settled here all the same.
      const isStillOpen = api.getState().bench.open?.id === id;
      if (answer.ok) {
        failures = 0;
        removeDrafts(id, startedAt);
        api.dispatch(tunesApi.util.invalidateTags(['Book']) as never);
        if (!isStillOpen) return;
        api.dispatch(saved({ revision: answer.value.revision, tune, at: Date.now() }));
        const { open: now } = api.getState().bench;
        if (now && now.save.kind === 'unsaved') {
          // The draft of what came meanwhile stands on the new revision now.
          keepDraft(now.id, now.revision, now.tune);
          schedule(PAUSE_MS);
        }
        return;
      }
      if (!isStillOpen) return;
      const newer = newerVersion(answer.failure);
      if (newer) {
        api.dispatch(conflictFound(newer));
        return;
      }
      api.dispatch(saveFailed(answer.failure));
      const { code } = answer.failure;
      if (code === 'no-connection' || code === 'database-away' || code === 'internal' || code === 'bad-answer')
        schedule(RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]!);
    };

    /** A tune left before its last edits were saved: tried once, and else picked up from the draft next time. */
    const settleClosed = async ({ id, revision, tune }: OpenTune) => {
      const startedAt = Date.now();
      const answer = await saveTune(id, revision, tune);
      if (!answer.ok) return;
      removeDrafts(id, startedAt);
      api.dispatch(tunesApi.util.invalidateTags(['Book']) as never);
    };

    if (typeof window !== 'undefined') window.addEventListener('online', () => schedule(0));

    return (next) => (action) => {
      const before = api.getState().bench.open;
      const result = next(action);
      const { open } = api.getState().bench;
      if (before && before.id !== open?.id && (before.save.kind === 'unsaved' || before.save.kind === 'failed'))
        void settleClosed(before);
      if (!open) return result;
      if (before?.save.kind === 'conflict' && open.save.kind === 'kept') removeDrafts(open.id, Date.now());
      const isEdited = before?.id !== open.id ? open.save.kind === 'unsaved' : before.tune !== open.tune;
      const isResumed = before?.save.kind === 'conflict' && open.save.kind === 'unsaved';
      if ((isEdited && open.save.kind !== 'kept') || isResumed) {
        keepDraft(open.id, open.revision, open.tune);
        if (open.save.kind === 'unsaved' && !running) schedule(PAUSE_MS);
      }
      return result;
    };
  };
}

function keepDraft(id: string, baseRevision: number, tune: Tune): void {
  writeDraft(id, { baseRevision, tune, at: Date.now() });
}
