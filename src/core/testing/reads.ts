/**
 * A value whose fields tell whenever one is read: work is counted in steps, not by a clock, so that what it grows with can be
 * asserted on any machine.
 */
export function counted<T extends object>(value: T): { readonly value: T; readonly reads: () => number } {
  let reads = 0;
  const known = new WeakMap<object, object>();
  const wrap = (one: unknown): unknown => {
    if (one === null || typeof one !== 'object') return one;
    let proxy = known.get(one);
    if (!proxy) {
      proxy = new Proxy(one, {
        get: (target, name, receiver) => {
          reads += 1;
          return wrap(Reflect.get(target, name, receiver));
        },
      });
      known.set(one, proxy);
    }
    return proxy;
  };
  return { value: wrap(value) as T, reads: () => reads };
}
