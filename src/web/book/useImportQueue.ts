import { useCallback, useEffect, useReducer, useRef } from 'react';
import type { LikeTune } from '#contract/imports';
import { MOST_IMPORT_BYTES } from '#contract/tunes';
import { beginImport, findLikenesses, finishImport, giveUpImport, sendOriginal, sendPiece } from '../api/client';
import { type FileStage, type QueuedFile, queueReducer, toKeep } from './importQueue';
import { type ImportServer, keepImport } from './keepImport';
import { type RunningImport, startImport } from './startImport';
import type { ImportedTune } from './importProtocol';

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

/** The files of an import: read one after another, compared with the book, kept one after another. */
export function useImportQueue() {
  const [files, dispatch] = useReducer(queueReducer, []);
  const running = useRef<{ key: number; reading: RunningImport } | null>(null);
  const cancelled = useRef(new Set<number>());

  const next = files.some(({ stage }) => stage.kind === 'reading')
    ? undefined
    : files.find(({ stage }) => stage.kind === 'waiting');
  useEffect(() => {
    if (!next) return;
    const { key, source, choice } = next;
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    stage({ kind: 'reading', count: 0 });
    const reading = startImport(source, choice, (count) => stage({ kind: 'reading', count }));
    running.current = { key, reading };
    reading.outcome.then(
      (outcome) => {
        if (running.current?.reading !== reading) return;
        dispatch({ type: 'read', key, outcome });
        void compare(outcome.tunes).then((found) => found && dispatch({ type: 'compared', key, found }));
      },
      ({ message }: Error) => {
        if (running.current?.reading === reading) stage({ kind: 'refused', problem: message });
      },
    );
  }, [next]);
  useEffect(
    () => () => {
      running.current?.reading.cancel();
      running.current = null;
    },
    [],
  );

  const stopReading = useCallback((key: number) => {
    if (running.current?.key !== key) return;
    running.current.reading.cancel();
    running.current = null;
    dispatch({ type: 'staged', key, stage: { kind: 'given-up' } });
  }, []);
  const empty = useCallback(() => {
    running.current?.reading.cancel();
    running.current = null;
    dispatch({ type: 'emptied' });
  }, []);
  const keepFile = useCallback(async (file: QueuedFile) => {
    const { key, name, source } = file;
    const items = toKeep(file);
    const stage = (now: FileStage) => dispatch({ type: 'staged', key, stage: now });
    cancelled.current.delete(key);
    stage({ kind: 'keeping', sent: 0 });
    // A text that was cut into tunes is kept with each of them; any other file as a whole.
    const isWhole = items.some(({ read }) => read.source === null) && source.size <= MOST_IMPORT_BYTES;
    const kept = await keepImport(
      SERVER,
      {
        name: name.slice(-MOST_NAME) || 'tunes',
        original: isWhole ? source : null,
        tunes: items.map(({ read, fate }) => ({
          tune: read.tune,
          source: read.source,
          joins: fate.kind === 'joins' ? fate.id : null,
        })),
      },
      { onSent: (sent) => stage({ kind: 'keeping', sent }), isCancelled: () => cancelled.current.has(key) },
    );
    if (kept.kind === 'kept')
      stage({ kind: 'kept', tunes: kept.finished.tunes, settings: kept.finished.settings, first: kept.finished.first });
    else if (kept.kind === 'failed') stage({ kind: 'not-kept', failure: kept.failure });
    else stage({ kind: 'read' });
    return kept;
  }, []);
  const stopKeeping = useCallback((key: number) => {
    cancelled.current.add(key);
  }, []);
  return { files, dispatch, stopReading, empty, keepFile, stopKeeping };
}

/** For each tune those of the book like it; null where the book could not be asked. */
async function compare(tunes: readonly ImportedTune[]): Promise<LikeTune[][] | null> {
  const found: LikeTune[][] = [];
  for (let at = 0; at < tunes.length; at += COMPARED_AT_ONCE) {
    const answer = await findLikenesses(tunes.slice(at, at + COMPARED_AT_ONCE).map(({ melody }) => melody));
    if (!answer.ok) return null;
    found.push(...answer.value.found);
  }
  return found;
}
