import type { ReportOptions } from '#core/report';
import type { Candidate, StyleWishes } from '#core/search';
import type { Tune } from '#core/tune';

/** What a search is asked. */
export interface SearchRequest {
  readonly tune: Tune;
  readonly options: ReportOptions;
  readonly wishes: StyleWishes;
  readonly count: number;
}

/** What the page asks of its search worker. */
export interface SearchWorker {
  propose(request: SearchRequest, onFound: (found: number) => void): Candidate[] | Promise<Candidate[]>;
}
