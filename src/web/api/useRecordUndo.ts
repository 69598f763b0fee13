import { useSyncExternalStore } from 'react';
import type { Change } from './revisedRecord';

interface Step<V> extends Change<V> {
  readonly label: string;
}
interface Steps<V> {
  readonly past: readonly Step<V>[];
  readonly future: readonly Step<V>[];
}

const NONE: Steps<never> = { past: [], future: [] };
/** Steps by record: they last from room to room, for as long as the page. */
const kept = new Map<string, Steps<unknown>>();
const listeners = new Set<() => void>();

function keep(name: string, steps: Steps<unknown>): void {
  kept.set(name, steps);
  for (const listener of listeners) listener();
}

interface RecordUndo<V, D> {
  /** What undo and redo would do; null: nothing. */
  readonly undoes: string | null;
  readonly redoes: string | null;
  /** Saves a change as a step; what the server answers, or nothing where it is refused. */
  readonly change: (made: Change<V>, label: string) => Promise<D | undefined>;
  readonly undo: () => Promise<{ readonly label: string; readonly data: D } | null>;
  readonly redo: () => Promise<{ readonly label: string; readonly data: D } | null>;
}

/** Undo and redo for a record that is saved as a whole; only what a step changed goes back. */
export function useRecordUndo<V, D>(
  name: string,
  save: (made: Change<V>) => Promise<{ readonly data?: D }>,
): RecordUndo<V, D> {
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  };
  const read = () => (kept.get(name) ?? NONE) as Steps<V>;
  const { past, future } = useSyncExternalStore(subscribe, read);

  const move = async (way: 'past' | 'future') => {
    const steps = read();
    const step = way === 'past' ? steps.past.at(-1) : steps.future[0];
    if (!step) return null;
    const moved: Steps<V> =
      way === 'past'
        ? { past: steps.past.slice(0, -1), future: [step, ...steps.future] }
        : { past: [...steps.past, step], future: steps.future.slice(1) };
    keep(name, moved);
    const { before, next, label } = step;
    const { data } = await save(way === 'past' ? { before: next, next: before } : { before, next });
    if (data !== undefined) return { label, data };
    if (read() === moved) keep(name, steps);
    return null;
  };

  return {
    undoes: past.at(-1)?.label ?? null,
    redoes: future[0]?.label ?? null,
    change: async (made, label) => {
      // Undone at once it is this that goes back, and not what was done before.
      const step = { ...made, label };
      const { past, future } = read();
      keep(name, { past: [...past, step], future: [] });
      const { data } = await save(made);
      if (data === undefined) {
        const now = read();
        const isLast = now.past.at(-1) === step;
        keep(name, { past: now.past.filter((own) => own !== step), future: isLast ? future : now.future });
      }
      return data;
    },
    undo: () => move('past'),
    redo: () => move('future'),
  };
}
