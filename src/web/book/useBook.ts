import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { BookQuery } from '#contract/book';
import { useBookCountQuery, useBookInfiniteQuery, useCountingQuery, useFacetsQuery } from '../api/bookApi';
import { useAbility } from '../api/useAbility';
import { filterOf } from './bookQuery';

/** While figures are counted in the background the list looks again so often. */
const COUNTING_POLL_MS = 1500;

/** Pages that are looked at again while figures are counted. */
const MAX_REFETCHED = 5;

/** What of the book was asked for: its tunes page by page, how many there are, and how far the counting of figures is. */
export function useBook(query: BookQuery) {
  const book = useBookInfiniteQuery(query);
  const { data: count } = useBookCountQuery(filterOf(query));
  const { data: facets, refetch: refetchFacets } = useFacetsQuery();
  // Own ceilings follow from the log: rows are read anew when they are counted.
  const { ability, isLearning, left: ownLeft } = useAbility();
  const [isCounting, setCounting] = useState(false);
  const { data: counting } = useCountingQuery(undefined, { pollingInterval: isCounting ? COUNTING_POLL_MS : 0 });
  const tunes = useMemo(() => book.data?.pages.flatMap((page) => page.tunes) ?? [], [book.data]);
  const { hasNextPage, isFetchingNextPage, fetchNextPage, refetch } = book;
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);

  // Rows that were read just before their own ceilings were kept.
  const isBehind = !isLearning && ability.attempts > 0 && tunes.some((tune) => tune.isCounted && tune.missing === null);
  useEffect(() => {
    if (isBehind) void refetch();
  }, [isBehind, refetch]);

  // What is counted in the background changes rows: the list looks again until nothing is left.
  const { left = 0, givenUp = 0 } = counting ?? {};
  if (left > 0 !== isCounting) setCounting(left > 0);
  const loadedPages = useRef(0);
  useEffect(() => {
    loadedPages.current = book.data?.pages.length ?? 0;
  });
  useEffect(() => {
    // Whenever it told of another number; far down a long list the rows are looked at again when they are next opened.
    if (counting !== undefined && loadedPages.current <= MAX_REFETCHED) void refetch();
  }, [counting, refetch]);
  return { book, tunes, count, facets, refetchFacets, more, left, ownLeft: isLearning ? ownLeft : 0, givenUp };
}
