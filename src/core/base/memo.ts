/**
 * A function of one value that never changes, computed once for each and kept as long as that value lives. Values are told
 * apart by identity, so equal ones are computed apart.
 */
export function memoByIdentity<K extends object, T>(compute: (key: K) => T): (key: K) => T {
  const known = new WeakMap<K, { readonly value: T }>();
  return (key) => {
    const found = known.get(key) ?? { value: compute(key) };
    known.set(key, found);
    return found.value;
  };
}
