import { useEffect, useState } from 'react';

/** What was computed of which list, as far as it has come. */
interface Known<Item, Value> {
  readonly of: readonly Item[];
  readonly values: readonly Value[];
}

/**
 * A figure for each of some proposals, which takes too long to be had while the page is drawn: one after the other, so that
 * the page answers between them. Another list, or another way to compute, begins anew.
 * @param compute kept by the caller as long as it is the same; called once for each item
 * @returns `values[i]` for item `i`; left out for those that are still to come
 */
export function usePreviews<Item, Value>(
  items: readonly Item[],
  compute: (item: Item) => Value,
): readonly (Value | undefined)[] {
  const [known, setKnown] = useState<Known<Item, Value>>({ of: items, values: [] });
  useEffect(() => {
    const values: Value[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const next = () => {
      if (values.length === items.length) return;
      values.push(compute(items[values.length]!));
      setKnown({ of: items, values: [...values] });
      timer = setTimeout(next);
    };
    timer = setTimeout(next);
    return () => clearTimeout(timer);
  }, [items, compute]);
  return known.of === items ? known.values : [];
}
