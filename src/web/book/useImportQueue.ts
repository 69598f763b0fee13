import { useCallback, useEffect, useReducer, useRef } from 'react';
import { importRoutes, likenessRoutes, type LikeTune } from '#contract/imports';
import { MAX_IMPORT_BYTES } from '#contract/tunes';
import type { FileChoice } from '#formats/file';
import { ask } from '../api/ask';
import type { ImportedTune } from './importProtocol';
import { choicesOf, type FileStage, type QueuedFile, queueReducer } from './importQueue';
import { type ImportServer, StagedTunes } from './stagedImport';
import { type RunningImport, startImport } from './startImport';

/** Letters of a file's name that are kept. */
const MAX_NAME = 300;

/** Melodies compared with the book in one request. */
const COMPARED_AT_ONCE = 100;

const SERVER: ImportServer = {
  begin: (fileName) => ask(importRoutes.beginImport, { body: { fileName } }),
  sendOriginal: (id, file) =>
    ask(importRoutes.sendOriginal, { params: { id }, body: new Blob([file], { type: 'application/octet-stream' }) }),
  // A piece is JSON text: it is weighed before it is sent.
  sendPiece: (id, piece) => ask(importRoutes.sendPiece, { params: { id }, body: piece }),
  finish: (id, body) => ask(importRoutes.finishImport, { params: { id }, body }),
  abort: (id) => ask(importRoutes.abortImport, { params: { id } }),
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
};

const newStagedImport = (name: string) => new StagedTunes(SERVER, name.slice(-MAX_NAME) || 'tunes');

/**
 * The files of an import: read one after another, staged while they are read, compared with the book, kept one after
 * another. What is staged and not kept is taken away again when it is left.
 */
export function useImportQueue() {
  const [files, dispatch] = useReducer(queueReducer, []);
  const running = useRef<{ key: number; reading: RunningImport } | null>(null);
  const ready = useRef(new Map<number, StagedTunes>());
  const cancelled = useRef(new Set<number>());

  const abort = useCallback((key: number) => {
    if (running.current?.key === key) {
      running.current.reading.cancel();
      running.current = null;
    }
    void ready.current.get(key)?.abort();
    ready.current.delete(key);
  }, []);
  const abortAll = useCallback(() => {
    running.current?.reading.cancel();
    running.current = null;
    for (const key of [...ready.current.keys()]) abort(key);
  }, [abort]);

  const isReading = files.some(({ stage }) => stage.kind === 'reading');
  const next = isReading ? undefined : files.find(({ stage }) => stage.kind === 'waiting');
  useEffect(() => {
    if (!next) return;
    const { key, name, source, choice } = next;
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    stage({ kind: 'reading', count: 0 });
    const staged = newStagedImport(name);
    const melodies: ImportedTune['melody'][] = [];
    ready.current.set(key, staged);
    const reading = startImport(source, choice, (tunes) => {
      if (running.current?.reading !== reading) return;
      melodies.push(...tunes.map(({ melody }) => melody));
      staged.add(tunes.map(({ toSend }) => toSend));
      dispatch({ type: 'tunesRead', key, tunes });
    });
    running.current = { key, reading };
    reading.messages.then(
      (messages) => {
        if (running.current?.reading !== reading) return;
        dispatch({ type: 'read', key, messages });
        void compare(melodies).then((found) => found && dispatch({ type: 'compared', key, found }));
      },
      ({ message }: Error) => {
        if (running.current?.reading !== reading) return;
        abort(key);
        stage({ kind: 'refused', problem: message });
      },
    );
  }, [next, abort]);
  useEffect(() => abortAll, [abortAll]);

  const stopReading = useCallback(
    (key: number) => {
      abort(key);
      dispatch({ type: 'staged', key, stage: { kind: 'aborted' } });
    },
    [abort],
  );
  const empty = useCallback(() => {
    abortAll();
    dispatch({ type: 'emptied' });
  }, [abortAll]);
  const choose = useCallback(
    (key: number, choice: FileChoice) => {
      abort(key);
      dispatch({ type: 'chosen', key, choice });
    },
    [abort],
  );
  const keepFile = useCallback(async (file: QueuedFile) => {
    const { key, name, source, items } = file;
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    cancelled.current.delete(key);
    stage({ kind: 'keeping', sent: 0 });
    let staged = ready.current.get(key);
    if (!staged) {
      // What was staged was given up: all of it once more.
      staged = newStagedImport(name);
      staged.add(items.map(({ read }) => read.toSend));
    }
    // A text that was cut into tunes is kept with each of them; any other file as a whole.
    const isWhole = items.some(({ read }) => !read.hasSource) && source.size <= MAX_IMPORT_BYTES;
    const kept = await staged.finish(isWhole ? source : null, choicesOf(file), {
      onSent: (sent) => stage({ kind: 'keeping', sent }),
      isCancelled: () => cancelled.current.has(key),
    });
    ready.current.delete(key);
    if (kept.kind === 'kept') stage({ ...kept.finished, kind: 'kept' });
    else if (kept.kind === 'failed') stage({ kind: 'not-kept', failure: kept.failure });
    else stage({ kind: 'read' });
    return kept;
  }, []);
  const stopKeeping = useCallback((key: number) => {
    cancelled.current.add(key);
  }, []);
  return { files, dispatch, stopReading, empty, choose, keepFile, stopKeeping };
}

/** For each melody the tunes of the book like it; null where the book could not be asked. */
async function compare(melodies: readonly ImportedTune['melody'][]): Promise<LikeTune[][] | null> {
  const found: LikeTune[][] = [];
  for (let at = 0; at < melodies.length; at += COMPARED_AT_ONCE) {
    const answer = await ask(likenessRoutes.findLikenesses, {
      body: { melodies: melodies.slice(at, at + COMPARED_AT_ONCE) },
    });
    if (!answer.ok) return null;
    found.push(...answer.value.found);
  }
  return found;
}
