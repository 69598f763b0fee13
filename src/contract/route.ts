import type { z } from 'zod';
import type { ErrorCode } from './errors';

/** A route: what is asked, what comes back, and what may be refused. Server and pages take it from here alone. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** `/api/tunes/:id`; names after a colon are its `params`. */
  readonly path: `/api/${string}`;
  readonly params?: z.ZodType;
  readonly query?: z.ZodType;
  /** A body of JSON; `bytes`: a file as it is. */
  readonly body?: z.ZodType | 'bytes';
  /** An answer of JSON; `file`: one to be kept, under the name that comes with it; left out: nothing (204). */
  readonly answer?: z.ZodType | 'file';
  /** Refusals of its own, beside those that every route may give. */
  readonly errors?: readonly ErrorCode[];
  /** It makes something: asked again under the same key it makes nothing more. */
  readonly makes?: true;
  /** It may take minutes. */
  readonly isSlow?: true;
}

/** What any route may answer instead. */
export const COMMON_ERRORS: readonly ErrorCode[] = [
  'bad-request',
  'too-large',
  'too-much-work',
  'busy',
  'no-key',
  'wrong-origin',
  'database-away',
  'internal',
];

export const route = <const R extends Route>(made: R): R => made;

type Given<S> = S extends z.ZodType ? z.input<S> : undefined;
type Taken<S> = S extends z.ZodType ? z.output<S> : undefined;
type Field<R, K extends string> = R extends Readonly<Record<K, infer S>> ? S : undefined;

/** What a page gives. */
export type ParamsGiven<R extends Route> = Given<Field<R, 'params'>>;
export type QueryGiven<R extends Route> = Given<Field<R, 'query'>>;
export type BodyGiven<R extends Route> = Given<Field<R, 'body'>>;
/** What the server takes, once it was read. */
export type ParamsTaken<R extends Route> = Taken<Field<R, 'params'>>;
export type QueryTaken<R extends Route> = Taken<Field<R, 'query'>>;
export type BodyTaken<R extends Route> = Taken<Field<R, 'body'>>;
/** What comes back. */
export type AnswerOf<R extends Route> = Taken<Field<R, 'answer'>>;
