import { z } from 'zod';
import { type ErrorBody, type ErrorCode, errorSchema } from '#contract/errors';
import type { Handout } from '#contract/handout';
import { type Pegs, pegsRecordSchema, savedPegsSchema } from '#contract/pegs';
import { type StoredSettings, savedSettingsSchema, settingsRecordSchema } from '#contract/settings';
import {
  type CreateTunes,
  type TuneRecord,
  createdTunesSchema,
  savedTuneSchema,
  tuneListSchema,
  tuneRecordSchema,
} from '#contract/tunes';
import { tuneVersionSchema, tuneVersionsSchema } from '#contract/versions';
import type { Tune } from '#core/tune';

/** Why a request did not do what was asked. `no-connection`: nothing answered. */
export type Failure = { readonly code: ErrorCode | 'no-connection' | 'bad-answer'; readonly details?: unknown };

export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly failure: Failure };

const TIMEOUT_MS = 20_000;

async function ask<T>(path: string, schema: z.ZodType<T>, init: RequestInit = {}): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(path, {
      ...init,
      headers: init.body === undefined ? {} : { 'Content-Type': 'application/json' },
      signal: AbortSignal.timeout(TIMEOUT_MS),
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

export function listTunes() {
  return ask('/api/book/tunes', tuneListSchema);
}

export function findTune(id: string) {
  return ask(`/api/tunes/${encodeURIComponent(id)}`, tuneRecordSchema);
}

export function createTunes(body: CreateTunes) {
  return ask('/api/tunes', createdTunesSchema, { method: 'POST', body: JSON.stringify(body) });
}

export function saveTune(id: string, baseRevision: number, tune: Tune) {
  const body = JSON.stringify({ baseRevision, tune });
  return ask(`/api/tunes/${encodeURIComponent(id)}`, savedTuneSchema, { method: 'PUT', body });
}

export function listVersions(id: string) {
  return ask(`/api/tunes/${encodeURIComponent(id)}/versions`, tuneVersionsSchema);
}

export function nameVersion(id: string, name: string, tune: Tune) {
  const body = JSON.stringify({ name, tune });
  return ask(`/api/tunes/${encodeURIComponent(id)}/versions`, tuneVersionSchema, { method: 'POST', body });
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
  try {
    const response = await fetch('/api/handout/pdf', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(handout),
      signal: AbortSignal.timeout(60_000),
    });
    if (response.ok) return { ok: true, value: await response.blob() };
    const error = errorSchema.safeParse(await response.json().catch(() => undefined));
    return { ok: false, failure: error.success ? error.data : { code: 'bad-answer' } };
  } catch {
    return { ok: false, failure: { code: 'no-connection' } };
  }
}

const staleDetails = z.object({ current: tuneRecordSchema });

/** The newer version that a refused save tells of. */
export function newerVersion(failure: Failure): TuneRecord | null {
  const parsed = staleDetails.safeParse(failure.details);
  return failure.code === 'stale-save' && parsed.success ? parsed.data.current : null;
}

export function findPegs() {
  return ask('/api/pegs', pegsRecordSchema);
}

export function savePegs(baseRevision: number, pegs: Pegs) {
  return ask('/api/pegs', savedPegsSchema, { method: 'PUT', body: JSON.stringify({ baseRevision, pegs }) });
}
