import { MAX_VIEWS } from '#contract/book';
import type { ErrorCode } from '#contract/errors';

/** Why a request did not do what was asked. `no-connection`: nothing answered; `bad-answer`: something that is not ours. */
export interface Failure {
  readonly code: ErrorCode | 'no-connection' | 'bad-answer';
  readonly details?: unknown;
}

/** Words for what went wrong. A new code without words does not compile. */
export function failureWords({ code, details }: Failure): string {
  switch (code) {
    case 'no-connection':
      return 'The server does not answer.';
    case 'bad-answer':
      return 'The server answered with something this page does not understand. Reload the page.';
    case 'not-found':
      return 'This tune is not in the book.';
    case 'bad-request':
      return `The request was not understood${issueWords(details)}.`;
    case 'bad-tune':
      return `The tune is not as expected${issueWords(details)}.`;
    case 'stale-save':
      return 'A newer version of this tune was saved from elsewhere.';
    case 'too-many-versions':
      return 'This tune has as many named versions as it can hold: delete one first.';
    case 'too-many-views':
      return `There are ${MAX_VIEWS} views: delete one first.`;
    case 'import-incomplete':
      return 'Some tunes did not arrive.';
    case 'bad-backup':
      return `This is not a backup that can be restored${issueWords(details)}.`;
    case 'too-large':
      return 'This is too large to save in one piece.';
    case 'too-much-work':
      return 'This would take too much time or memory: try it with less at once.';
    case 'busy':
      return 'The server is busy with other work just now. Try again in a moment.';
    case 'no-key':
      return 'This Morrin is open only to those who have its key: open it by the link with the key.';
    case 'wrong-origin':
      return 'The server refuses requests from this address.';
    case 'database-away':
      return 'The database does not answer just now.';
    case 'internal':
      return 'Something went wrong on the server.';
    default:
      return code satisfies never;
  }
}

function issueWords(details: unknown): string {
  const first = Array.isArray(details) ? (details[0] as { path?: string; message?: string } | undefined) : undefined;
  return first?.message ? `: ${first.path ?? ''}: ${first.message}` : '';
}
