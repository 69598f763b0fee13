import type { Failure } from '#words/failure';

export type { Failure };

/** What came of a request. */
export type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly failure: Failure };
