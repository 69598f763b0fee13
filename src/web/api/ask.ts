import {
  type BaseQueryApi,
  type BaseQueryFn,
  fetchBaseQuery,
  type FetchBaseQueryError,
  retry,
} from '@reduxjs/toolkit/query';
import { z } from 'zod';
import { errorSchema } from '#contract/errors';
import type { AnswerOf, BodyGiven, ParamsGiven, QueryGiven, Route } from '#contract/route';
import type { Answer, Failure } from './answer';

const TIMEOUT_MS = 20_000;
const SLOW_TIMEOUT_MS = 600_000;

/** Waits before a request whose answer was lost is sent again, in milliseconds. */
const AGAIN_MS = [300, 1500];

/** A file as the server sends it, under the name that it gives. */
export interface SentFile {
  readonly name: string;
  readonly file: Blob;
}

type Given<K extends string, T> = [T] extends [undefined]
  ? Readonly<Partial<Record<K, undefined>>>
  : Readonly<Record<K, T>>;

/** Of a value that is only read. */
type Frozen<T> = T extends readonly (infer Item)[]
  ? readonly Frozen<Item>[]
  : T extends object
    ? { readonly [K in keyof T]: Frozen<T[K]> }
    : T;

/** What a route is given: of each what its schemas take. A body that is text is JSON already, a Blob a file. */
export type GivenTo<R extends Route> = Given<'params', ParamsGiven<R>> &
  Given<'query', QueryGiven<R>> & { readonly body?: Frozen<BodyGiven<R>> | string | Blob };

/** A route asked about something. */
export interface AskedRoute {
  readonly route: Route;
  readonly params?: unknown;
  readonly query?: unknown;
  readonly body?: unknown;
  /** By which the server knows a request that comes again. */
  readonly key?: string;
}

/** A route with what it is given, for an endpoint. */
export const asked = <R extends Route>(route: R, given: GivenTo<R>): AskedRoute => ({ route, ...given });

const plainQuery = fetchBaseQuery({ baseUrl: window.location.origin });

const oneQuery: BaseQueryFn<AskedRoute, unknown, Failure> = async (request, api, extra) => {
  const { route, params, query, body, key } = request;
  const isFile = route.answer === 'file';
  const { data, error, meta } = await plainQuery(
    {
      url: pathOf(route.path, params),
      method: route.method,
      params: givenOnly(query),
      body: body instanceof Blob || typeof body === 'string' || body === undefined ? body : JSON.stringify(body),
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': typeOf(body) }),
        ...(key === undefined ? {} : { 'Idempotency-Key': key }),
      },
      timeout: route.isSlow ? SLOW_TIMEOUT_MS : TIMEOUT_MS,
      responseHandler: (response): Promise<unknown> => (isFile && response.ok ? response.blob() : readJson(response)),
    },
    api,
    extra,
  );
  if (error) return { error: failureOf(error) };
  if (isFile) return { data: { name: nameOf(meta?.response), file: data as Blob } satisfies SentFile };
  const schema = route.answer instanceof z.ZodType ? route.answer : z.undefined();
  const parsed = schema.safeParse(data);
  return parsed.success ? { data: parsed.data } : { error: { code: 'bad-answer' } };
};

const again = retry(oneQuery, {
  retryCondition: (error, { route }, { attempt }) =>
    route.makes === true && (error as Failure).code === 'no-connection' && attempt <= AGAIN_MS.length,
  backoff: (attempt) => new Promise((resolve) => setTimeout(resolve, AGAIN_MS[attempt - 1])),
});

/**
 * Asks the server by a route of the contract. What makes something is asked again where no answer comes, under the same
 * key: what was made already is not made twice.
 */
export const askServer: BaseQueryFn<AskedRoute, unknown, Failure> = (request, api, extra) =>
  again(request.route.makes ? { ...request, key: crypto.randomUUID() } : request, api, extra);

/** The same for what is no query of the store: saves, imports, files. */
export async function ask<R extends Route>(
  route: R,
  given: GivenTo<R>,
): Promise<Answer<R extends { readonly answer: 'file' } ? SentFile : AnswerOf<R>>> {
  const { data, error } = await askServer(asked(route, given), outsideStore(), {});
  return error ? { ok: false, failure: error } : { ok: true, value: data as never };
}

function outsideStore(): BaseQueryApi {
  const abort = new AbortController();
  return {
    signal: abort.signal,
    abort: (reason) => abort.abort(reason),
    dispatch: (action: unknown) => action,
    getState: () => ({}),
    extra: undefined,
    endpoint: 'ask',
    type: 'query',
  } as BaseQueryApi;
}

/** `/api/tunes/7c5e…`: names after a colon by what they stand for. */
function pathOf(path: string, params: unknown): string {
  const values = (params ?? {}) as Readonly<Record<string, string | number>>;
  return path.replace(/:(\w+)/g, (_all, name: string) => encodeURIComponent(String(values[name])));
}

/** What is asked for by its words; what is left empty is not asked for. */
function givenOnly(query: unknown): Record<string, unknown> | undefined {
  if (query === undefined) return undefined;
  return Object.fromEntries(Object.entries(query as object).filter(([, value]) => value !== undefined && value !== ''));
}

function typeOf(body: unknown): string {
  return body instanceof Blob ? body.type || 'application/octet-stream' : 'application/json';
}

const readJson = async (response: Response): Promise<unknown> => {
  const text = await response.text();
  if (text === '') return undefined;
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // No answer of ours: something stands between.
    return null;
  }
};

function failureOf(error: FetchBaseQueryError): Failure {
  if (error.status === 'FETCH_ERROR' || error.status === 'TIMEOUT_ERROR') return { code: 'no-connection' };
  const parsed = errorSchema.safeParse(error.data);
  return parsed.success ? { code: parsed.data.code, details: parsed.data.details } : { code: 'bad-answer' };
}

function nameOf(response: Response | undefined): string {
  const header = response?.headers.get('Content-Disposition') ?? '';
  const encoded = /filename\*=UTF-8''([^;]+)/.exec(header)?.[1];
  const plain = /filename="([^"]+)"/.exec(header)?.[1] ?? /filename=([^;]+)/.exec(header)?.[1];
  return encoded ? decodeURIComponent(encoded) : (plain ?? 'tunes');
}
