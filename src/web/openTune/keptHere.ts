/** Whether the edits that are seen are kept in this browser: on their way to the disk, on it, or not to be kept at all. */
export type KeptHere = 'writing' | 'kept' | 'refused';

let state: KeptHere = 'kept';
const listeners = new Set<() => void>();

export const keptHere = {
  get: (): KeptHere => state,
  set: (next: KeptHere): void => {
    if (next === state) return;
    state = next;
    for (const listener of listeners) listener();
  },
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
};
