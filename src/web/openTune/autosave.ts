import type { Middleware } from '@reduxjs/toolkit';
import isEqual from 'fast-deep-equal';
import { z } from 'zod';
import { type TuneRecord, tuneRecordSchema, tuneRoutes } from '#contract/tunes';
import type { Tune } from '#core/tune';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { serverApi } from '../api/serverApi';
import { type Draft, holdPage, removeDraft, writeDraft } from './drafts';
import { keepHistory, writeHistory } from './histories';
import { keptHere } from './keptHere';
import {
  conflictFound,
  type OpenTune,
  type OpenTuneState,
  saved,
  saveFailed,
  savingStarted,
  takenUp,
} from './openTuneSlice';
import { onSavedElsewhere, tellTabs } from './otherTabs';
import { settleFirst } from './settling';

/** Edits within this time are kept together. */
const PAUSE_MS = 400;
/** So long after the last edit what undo knows is written down. */
const HISTORY_PAUSE_MS = 1500;
/** Waits between tries while nothing answers, growing. */
const RETRY_MS = [1000, 2000, 4000, 8000, 15000];

const saveTune = (id: string, baseRevision: number, tune: Tune) =>
  ask(tuneRoutes.saveTune, { params: { id }, body: { baseRevision, tune } });

const staleDetails = z.object({ current: tuneRecordSchema });

/** The newer version that a refused save tells of. */
function newerVersion({ code, details }: Failure): TuneRecord | null {
  const parsed = staleDetails.safeParse(details);
  return code === 'stale-save' && parsed.success ? parsed.data.current : null;
}

/** Unanswered saves that are remembered: as many as there are tries in a quarter of an hour. */
const MAX_UNANSWERED = 60;

/** What passes by itself. */
const RETRIED: ReadonlySet<string> = new Set(['no-connection', 'database-away', 'busy', 'internal', 'bad-answer']);

/**
 * Keeps every edit: as a draft in this browser as soon as the edit is shown, soon after on the server. One save runs at a time; while
 * nothing answers it is tried again, and at once when the network is back. Where the browser takes no draft, leaving
 * the page with edits that the server does not have is asked about.
 */
export function autosave(): Middleware<object, { openTune: OpenTuneState }> {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let running: Promise<void> | null = null;
  let failures = 0;
  /** The draft that was written last: what an earlier one came to says nothing any more. */
  let newest: object | null = null;
  /** The draft that is about to be written. */
  let pending: { readonly id: string; readonly draft: Draft } | null = null;
  /** What was sent and not answered: the server may have it all the same. */
  let unanswered: readonly { readonly id: string; readonly tune: Tune }[] = [];
  /** Newest revision that the server told of, for tunes closed before their last edits were saved. */
  const revisions = new Map<string, number>();

  return (api) => {
    // On the very action with which the bench joins the store it is not there yet.
    const current = () => (api.getState() as Partial<{ openTune: OpenTuneState }>).openTune?.open ?? null;

    const schedule = (wait: number) => {
      if (timer !== null) clearTimeout(timer);
      timer = setTimeout(() => {
        timer = null;
        const open = current();
        if (!open || running || !isWaiting(open)) return;
        running = save(open).finally(() => {
          running = null;
          // Edits that came meanwhile, to this tune or to one opened since.
          if (current()?.save.kind === 'unsaved') schedule(PAUSE_MS);
        });
      }, wait);
    };

    const save = async ({ id, revision, tune }: OpenTune) => {
      const startedAt = Date.now();
      api.dispatch(savingStarted());
      const answer = await saveTune(id, revision, tune);
      const isStillOpen = current()?.id === id;
      if (answer.ok) {
        failures = 0;
        unanswered = [];
        revisions.set(id, answer.value.revision);
        void removeDraft(id, startedAt);
        tellTabs({ id, revision: answer.value.revision });
        api.dispatch(serverApi.util.invalidateTags(['Book']) as never);
        if (!isStillOpen) return;
        api.dispatch(saved({ revision: answer.value.revision, tune, at: Date.now() }));
        const now = current();
        // The draft of what came meanwhile stands on the new revision now.
        if (now?.save.kind === 'unsaved') keepDraft(now);
        return;
      }
      if (!isStillOpen) return;
      const newer = newerVersion(answer.failure);
      const own = newer && unanswered.find((sent) => sent.id === id && isEqual(sent.tune, newer.tune));
      if (newer && own) {
        // What stands there is an earlier save of one's own whose answer was lost: the edits since go on top of it.
        unanswered = [];
        api.dispatch(saved({ revision: newer.revision, tune: own.tune, at: Date.now() }));
        return;
      }
      if (newer) {
        api.dispatch(conflictFound(newer));
        return;
      }
      api.dispatch(saveFailed(answer.failure));
      const { code } = answer.failure;
      if (!RETRIED.has(code)) return;
      unanswered = [...unanswered.filter((sent) => sent.tune !== tune), { id, tune }].slice(-MAX_UNANSWERED);
      schedule(RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)]!);
    };

    /** A tune left before its last edits were saved: tried once, and else picked up from the draft next time. */
    const settleClosed = async ({ id, revision, tune }: OpenTune) => {
      await running;
      const startedAt = Date.now();
      const answer = await saveTune(id, Math.max(revision, revisions.get(id) ?? 0), tune);
      if (!answer.ok) return;
      revisions.set(id, answer.value.revision);
      if (current()?.id !== id) void removeDraft(id, startedAt);
      tellTabs({ id, revision: answer.value.revision });
      api.dispatch(serverApi.util.invalidateTags(['Book']) as never);
    };

    const keepDraft = ({ id, revision, tune }: OpenTune) => {
      // After the page has answered the key; edits that come at once are written together.
      if (!pending) setTimeout(writePending);
      keptHere.set('writing');
      pending = { id, draft: { baseRevision: revision, tune, at: Date.now() } };
    };
    const writePending = () => {
      if (!pending) return;
      const own = pending;
      pending = null;
      newest = own;
      void writeDraft(own.id, own.draft).then((isKept) => {
        // Of a later edit it says nothing.
        if (newest === own && !pending) keptHere.set(isKept ? 'kept' : 'refused');
      });
    };

    let history: ReturnType<typeof setTimeout> | null = null;
    const writeHistoryNow = () => {
      if (history === null) return;
      clearTimeout(history);
      history = null;
      const open = current();
      if (open) void writeHistory(open);
    };
    const scheduleHistory = () => {
      if (history !== null) clearTimeout(history);
      history = setTimeout(writeHistoryNow, HISTORY_PAUSE_MS);
    };

    window.addEventListener('pagehide', () => {
      writePending();
      writeHistoryNow();
    });

    // A tune that was changed in another tab is taken up where nothing of one's own is in the way.
    onSavedElsewhere(({ id, revision }) => {
      const isBehind = () => {
        const open = current();
        return open?.id === id && open.save.kind === 'kept' && open.revision < revision;
      };
      if (!isBehind()) return;
      void ask(tuneRoutes.findTune, { params: { id } }).then((answer) => {
        if (answer.ok && isBehind()) api.dispatch(takenUp({ record: answer.value, at: Date.now() }));
      });
    });

    // Other browsers tell nothing: who comes back to the page sees what they did meanwhile.
    document.addEventListener('visibilitychange', () => {
      const open = current();
      if (document.hidden || open?.save.kind !== 'kept') return;
      void ask(tuneRoutes.findTune, { params: { id: open.id } }).then((answer) => {
        const now = current();
        if (!answer.ok || now?.id !== open.id || now.save.kind !== 'kept') return;
        if (answer.value.revision > now.revision) api.dispatch(takenUp({ record: answer.value, at: Date.now() }));
      });
    });

    window.addEventListener('online', () => schedule(0));
    window.addEventListener('beforeunload', (event) => {
      writePending();
      const open = current();
      if (keptHere.get() !== 'kept' && open && open.save.kind !== 'kept') event.preventDefault();
    });

    /** Another tune is open than before, or none. */
    const changePage = (before: OpenTune | null, open: OpenTune | null) => {
      writePending();
      if (before) {
        keepHistory(before);
        if (history !== null) {
          clearTimeout(history);
          history = null;
          void writeHistory(before);
        }
      }
      if (before && isWaiting(before)) settleFirst(before.id, settleClosed(before));
      else if (before && running) settleFirst(before.id, running);
      if (open) holdPage();
    };

    const follow = (before: OpenTune | null, open: OpenTune) => {
      if (before?.id === open.id && before.past !== open.past) scheduleHistory();
      const wasConflict = before?.save.kind === 'conflict';
      if (wasConflict && open.save.kind === 'kept') {
        writePending();
        void removeDraft(open.id, Date.now());
      }
      const isUnsaved = open.save.kind === 'unsaved';
      const isEdited = before?.id !== open.id ? isUnsaved : before.tune !== open.tune;
      if ((!isEdited || open.save.kind === 'kept') && !(wasConflict && isUnsaved)) return;
      keepDraft(open);
      if (isUnsaved && !running) schedule(PAUSE_MS);
    };

    return (next) => (action) => {
      const before = current();
      const result = next(action);
      const open = current();
      if (before?.id !== open?.id) changePage(before, open);
      if (open) follow(before, open);
      return result;
    };
  };
}

/** Has edits that no save under way carries. */
function isWaiting({ save }: OpenTune): boolean {
  return save.kind === 'unsaved' || save.kind === 'failed';
}
