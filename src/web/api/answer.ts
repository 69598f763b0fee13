import type { ErrorCode } from '#contract/errors';

/** Why a request did not do what was asked. `no-connection`: nothing answered. */
export type Failure = { readonly code: ErrorCode | 'no-connection' | 'bad-answer'; readonly details?: unknown };

export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly failure: Failure };
