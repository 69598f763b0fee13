import { z } from 'zod';
import { type ErrorBody, errorSchema } from '#contract/errors';
import { bookSizeSchema } from '#contract/bookSize';
import type { Handout } from '#contract/handout';
import { type Pegs, pegsRecordSchema, savedPegsSchema } from '#contract/pegs';
import { type StoredSettings, savedSettingsSchema, settingsRecordSchema } from '#contract/settings';
import { revisionListSchema, tuneRevisionSchema } from '#contract/revisions';
import {
  type CreateTunes,
  type TuneRecord,
  createdTunesSchema,
  savedTuneSchema,
  tuneListSchema,
  tuneRecordSchema,
} from '#contract/tunes';
import { type ChangeVersion, type NameVersion, tuneVersionSchema, tuneVersionsSchema } from '#contract/versions';
import { type ExportAsked, type Restored, keptCopiesSchema, restoredSchema } from '#contract/exports';
import {
  type FinishImport,
  importBegunSchema,
  importFinishedSchema,
  likenessesSchema,
  partLikenessesSchema,
} from '#contract/imports';
import {
  type BookFilter,
  type BookQuery,
  type BookView,
  type BulkChange,
  bookCountSchema,
  bookFacetsSchema,
  bookViewSchema,
  bookViewsSchema,
  bulkDoneSchema,
  countingSchema,
} from '#contract/book';
import type { Tune } from '#core/tune';
import type { Answer, Failure } from './answer';
import type { Revised } from './revisedRecord';

const TIMEOUT_MS = 20_000;

async function ask<T>(path: string, schema: z.ZodType<T>, init: RequestInit = {}): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(path, {
      headers: init.body === undefined ? {} : { 'Content-Type': 'application/json' },
      signal: AbortSignal.timeout(TIMEOUT_MS),
      ...init,
    });
  } catch {
    return { ok: false, failure: { code: 'no-connection' } };
  }
  const body: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    const error = errorSchema.safeParse(body);
    const failure: ErrorBody | Failure = error.success ? error.data : { code: 'bad-answer' };
    return { ok: false, failure: { code: failure.code, details: failure.details } };
  }
  const parsed = schema.safeParse(body);
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, failure: { code: 'bad-answer' } };
}

/** Waits before a request whose answer was lost is sent again, in milliseconds. */
const AGAIN_MS = [300, 1500];

/**
 * Asks for something to be made. Where no answer comes it asks again under the same key, by which the server knows that it is
 * the same request: what was made already is not made twice.
 */
async function askToMake<T>(path: string, schema: z.ZodType<T>, body?: unknown): Promise<Answer<T>> {
  const init: RequestInit = {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': crypto.randomUUID() },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  };
  for (const wait of AGAIN_MS) {
    const answer = await ask(path, schema, init);
    if (answer.ok || answer.failure.code !== 'no-connection') return answer;
    await new Promise((resolve) => setTimeout(resolve, wait));
  }
  return ask(path, schema, init);
}

function queryWords(query: Record<string, string | number | undefined>): string {
  const given = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
  return new URLSearchParams(given.map(([name, value]) => [name, String(value)])).toString();
}

export function listTunes(query: BookQuery) {
  return ask(`/api/book/tunes?${queryWords(query)}`, tuneListSchema);
}

export function countBook(filter: BookFilter) {
  return ask(`/api/book/count?${queryWords(filter)}`, bookCountSchema);
}

export function listFacets() {
  return ask('/api/book/facets', bookFacetsSchema);
}

export function findCounting() {
  return ask('/api/book/counting', countingSchema);
}

export function changeTunes(change: BulkChange) {
  return askToMake('/api/book/changes', bulkDoneSchema, change);
}

const changedSchema = z.object({ changed: z.int() });

export function takeBackChange(id: string) {
  return askToMake(`/api/book/changes/${encodeURIComponent(id)}/undo`, changedSchema);
}

/** Takes what was out of the book by then out for good. */
export function deleteRemoved(by: string) {
  return ask(`/api/book/removed?${queryWords({ by })}`, changedSchema, { method: 'DELETE' });
}

export function loadDemo() {
  return ask('/api/book/demo', z.object({ tunes: z.int() }), { method: 'POST' });
}

export function listViews() {
  return ask('/api/book/views', bookViewsSchema);
}

export function keepView(view: Omit<BookView, 'id'>) {
  return askToMake('/api/book/views', bookViewSchema, view);
}

export function removeView(id: string) {
  return ask(`/api/book/views/${encodeURIComponent(id)}`, z.undefined(), { method: 'DELETE' });
}

export function findLikenesses(melodies: readonly { print: readonly number[]; pitches: readonly number[] }[]) {
  return ask('/api/likenesses', likenessesSchema, { method: 'POST', body: JSON.stringify({ melodies }) });
}

export function findPartLikenesses(id: string) {
  return ask(`/api/likenesses/${encodeURIComponent(id)}`, partLikenessesSchema);
}

export function beginImport(fileName: string) {
  return askToMake('/api/imports', importBegunSchema, { fileName });
}

export function sendOriginal(id: string, file: Blob) {
  return ask(`/api/imports/${encodeURIComponent(id)}/original`, z.undefined(), {
    method: 'PUT',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream' },
  });
}

/** A piece as JSON text: it is weighed before it is sent. */
export function sendPiece(id: string, piece: string) {
  return ask(`/api/imports/${encodeURIComponent(id)}/tunes`, z.undefined(), { method: 'PUT', body: piece });
}

export function finishImport(id: string, choices: FinishImport) {
  return ask(`/api/imports/${encodeURIComponent(id)}/finish`, importFinishedSchema, {
    method: 'POST',
    body: JSON.stringify(choices),
  });
}

export function giveUpImport(id: string) {
  return ask(`/api/imports/${encodeURIComponent(id)}`, z.undefined(), { method: 'DELETE' });
}

export function changeVersion(id: string, versionId: string, change: ChangeVersion) {
  const path = `/api/tunes/${encodeURIComponent(id)}/versions/${encodeURIComponent(versionId)}`;
  return ask(path, tuneVersionSchema, { method: 'PATCH', body: JSON.stringify(change) });
}

/** Tunes as a file; its name is the one that the server gives. */
export async function exportTunes(asked: ExportAsked): Promise<Answer<{ name: string; file: Blob }>> {
  return fetchFile('/api/export', JSON.stringify(asked), (response) => {
    const header = response.headers.get('Content-Disposition') ?? '';
    const encoded = /filename\*=UTF-8''([^;]+)/.exec(header)?.[1];
    const plain = /filename="([^"]+)"/.exec(header)?.[1] ?? /filename=([^;]+)/.exec(header)?.[1];
    return encoded ? decodeURIComponent(encoded) : (plain ?? 'tunes');
  });
}

/** Copies of the book that the server made by itself. */
export function listCopies() {
  return ask('/api/backup/copies', keptCopiesSchema);
}

/** Puts a backup in the place of the book. */
export async function restoreBackup(file: Blob): Promise<Answer<Restored>> {
  return ask('/api/backup', restoredSchema, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/gzip' },
    signal: AbortSignal.timeout(FILE_TIMEOUT_MS),
  });
}

const FILE_TIMEOUT_MS = 600_000;

async function fetchFile(
  path: string,
  body: string,
  nameOf: (response: Response) => string,
): Promise<Answer<{ name: string; file: Blob }>> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body,
      signal: AbortSignal.timeout(FILE_TIMEOUT_MS),
    });
    if (response.ok) return { ok: true, value: { name: nameOf(response), file: await response.blob() } };
    const error = errorSchema.safeParse(await response.json().catch(() => undefined));
    return { ok: false, failure: error.success ? error.data : { code: 'bad-answer' } };
  } catch {
    return { ok: false, failure: { code: 'no-connection' } };
  }
}

export function findTune(id: string) {
  return ask(`/api/tunes/${encodeURIComponent(id)}`, tuneRecordSchema);
}

export function createTunes(body: CreateTunes) {
  return askToMake('/api/tunes', createdTunesSchema, body);
}

export function saveTune(id: string, baseRevision: number, tune: Tune) {
  const body = JSON.stringify({ baseRevision, tune });
  return ask(`/api/tunes/${encodeURIComponent(id)}`, savedTuneSchema, { method: 'PUT', body });
}

export function listVersions(id: string) {
  return ask(`/api/tunes/${encodeURIComponent(id)}/versions`, tuneVersionsSchema);
}

export function listRevisions(id: string) {
  return ask(`/api/tunes/${encodeURIComponent(id)}/revisions`, revisionListSchema);
}

export function findRevision(id: string, revision: number) {
  return ask(`/api/tunes/${encodeURIComponent(id)}/revisions/${revision}`, tuneRevisionSchema);
}

export function findBookSize() {
  return ask('/api/book/size', bookSizeSchema);
}

export function nameVersion(id: string, version: NameVersion) {
  return askToMake(`/api/tunes/${encodeURIComponent(id)}/versions`, tuneVersionSchema, version);
}

export function removeVersion(id: string, versionId: string) {
  const path = `/api/tunes/${encodeURIComponent(id)}/versions/${encodeURIComponent(versionId)}`;
  return ask(path, z.undefined(), { method: 'DELETE' });
}

export function findSettings() {
  return ask('/api/settings', settingsRecordSchema);
}

export function saveSettings(baseRevision: number, settings: StoredSettings) {
  return ask('/api/settings', savedSettingsSchema, {
    method: 'PUT',
    body: JSON.stringify({ baseRevision, settings }),
  });
}

/** The hand-out as a PDF file. */
export async function handoutPdf(handout: Handout): Promise<Answer<Blob>> {
  const answer = await fetchFile('/api/handout/pdf', JSON.stringify(handout), () => 'hand-out.pdf');
  return answer.ok ? { ok: true, value: answer.value.file } : answer;
}

const staleDetails = z.object({ current: tuneRecordSchema });

/** The newer version that a refused save tells of. */
export function newerVersion(failure: Failure): TuneRecord | null {
  const parsed = staleDetails.safeParse(failure.details);
  return failure.code === 'stale-save' && parsed.success ? parsed.data.current : null;
}

/** The newer settings that a refused save tells of. */
export function newerSettings({ code, details }: Failure): Revised<StoredSettings> | null {
  const parsed = settingsRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success
    ? { revision: parsed.data.revision, value: parsed.data.settings }
    : null;
}

/** The newer fiddles that a refused save tells of. */
export function newerPegs({ code, details }: Failure): Revised<Pegs> | null {
  const parsed = pegsRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success ? { revision: parsed.data.revision, value: parsed.data.pegs } : null;
}

export function findPegs() {
  return ask('/api/pegs', pegsRecordSchema);
}

export function savePegs(baseRevision: number, pegs: Pegs) {
  return ask('/api/pegs', savedPegsSchema, { method: 'PUT', body: JSON.stringify({ baseRevision, pegs }) });
}
