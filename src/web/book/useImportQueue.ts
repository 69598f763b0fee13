import { useCallback, useEffect, useReducer, useRef } from 'react';
import type { LikeTune } from '#contract/imports';
import { MOST_IMPORT_BYTES } from '#contract/tunes';
import type { FileChoice } from '#formats/file';
import { beginImport, findLikenesses, finishImport, giveUpImport, sendOriginal, sendPiece } from '../api/client';
import { type FileStage, type QueuedFile, choicesOf, queueReducer } from './importQueue';
import type { ImportedTune } from './importProtocol';
import { type ImportServer, ReadyTunes } from './layReady';
import { type RunningImport, startImport } from './startImport';

/** Letters of a file's name that are kept. */
const MOST_NAME = 300;

/** Melodies compared with the book in one request. */
const COMPARED_AT_ONCE = 100;

const SERVER: ImportServer = {
  begin: beginImport,
  sendOriginal,
  sendPiece,
  finish: finishImport,
  giveUp: giveUpImport,
  wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
};

const newReady = (name: string) => new ReadyTunes(SERVER, name.slice(-MOST_NAME) || 'tunes');

/**
 * The files of an import: read one after another, laid ready while they are read, compared with the book, kept one after
 * another. What is laid ready and not kept is taken away again when it is left.
 */
export function useImportQueue() {
  const [files, dispatch] = useReducer(queueReducer, []);
  const running = useRef<{ key: number; reading: RunningImport } | null>(null);
  const ready = useRef(new Map<number, ReadyTunes>());
  const cancelled = useRef(new Set<number>());

  const giveUp = useCallback((key: number) => {
    if (running.current?.key === key) {
      running.current.reading.cancel();
      running.current = null;
    }
    void ready.current.get(key)?.giveUp();
    ready.current.delete(key);
  }, []);
  const giveUpAll = useCallback(() => {
    running.current?.reading.cancel();
    running.current = null;
    for (const key of [...ready.current.keys()]) giveUp(key);
  }, [giveUp]);

  const isReading = files.some(({ stage }) => stage.kind === 'reading');
  const next = isReading ? undefined : files.find(({ stage }) => stage.kind === 'waiting');
  useEffect(() => {
    if (!next) return;
    const { key, name, source, choice } = next;
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    stage({ kind: 'reading', count: 0 });
    const laid = newReady(name);
    const melodies: ImportedTune['melody'][] = [];
    ready.current.set(key, laid);
    const reading = startImport(source, choice, (tunes) => {
      if (running.current?.reading !== reading) return;
      melodies.push(...tunes.map(({ melody }) => melody));
      laid.add(tunes.map(({ toSend }) => toSend));
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
        giveUp(key);
        stage({ kind: 'refused', problem: message });
      },
    );
  }, [next, giveUp]);
  useEffect(() => giveUpAll, [giveUpAll]);

  const stopReading = useCallback(
    (key: number) => {
      giveUp(key);
      dispatch({ type: 'staged', key, stage: { kind: 'given-up' } });
    },
    [giveUp],
  );
  const empty = useCallback(() => {
    giveUpAll();
    dispatch({ type: 'emptied' });
  }, [giveUpAll]);
  const choose = useCallback(
    (key: number, choice: FileChoice) => {
      giveUp(key);
      dispatch({ type: 'chosen', key, choice });
    },
    [giveUp],
  );
  const keepFile = useCallback(async (file: QueuedFile) => {
    const { key, name, source, items } = file;
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    cancelled.current.delete(key);
    stage({ kind: 'keeping', sent: 0 });
    let laid = ready.current.get(key);
    if (!laid) {
      // What was laid ready was given up: all of it once more.
      laid = newReady(name);
      laid.add(items.map(({ read }) => read.toSend));
    }
    // A text that was cut into tunes is kept with each of them; any other file as a whole.
    const isWhole = items.some(({ read }) => !read.hasSource) && source.size <= MOST_IMPORT_BYTES;
    const kept = await laid.finish(isWhole ? source : null, choicesOf(file), {
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
    const answer = await findLikenesses(melodies.slice(at, at + COMPARED_AT_ONCE));
    if (!answer.ok) return null;
    found.push(...answer.value.found);
  }
  return found;
}
