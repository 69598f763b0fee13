import equal from 'fast-deep-equal';
import type { Answer, Failure } from './answer';

/** A value that is saved as a whole, each time on the revision that was kept last. */
export interface Revised<V> {
  readonly revision: number;
  readonly value: V;
}

/** What somebody chose: how it stood where they chose, and how it is to be. */
export interface Change<V> {
  readonly before: V;
  readonly next: V;
}

/**
 * Carries what is different between `before` and `next` over to `newest`, field by field as far as both are objects, lists of
 * items with ids item by item: a choice that was made while another was on its way leaves that one alone.
 */
export function carried<V>({ before, next }: Change<V>, newest: V): V {
  if (haveIds(before) && haveIds(next) && haveIds(newest)) return carriedItems({ before, next }, newest) as V;
  if (!isPlain(before) || !isPlain(next) || !isPlain(newest)) return equal(before, next) ? newest : next;
  const result: Record<string, unknown> = { ...newest };
  for (const name of new Set([...Object.keys(before), ...Object.keys(next)])) {
    if (equal(before[name], next[name])) continue;
    if (!(name in next)) delete result[name];
    else result[name] = carried({ before: before[name], next: next[name] }, newest[name]);
  }
  return result as V;
}

interface Item {
  readonly id: string;
}

/** Items that have ids, each by itself; new ones come at the end. */
function carriedItems({ before, next }: Change<readonly Item[]>, newest: readonly Item[]): Item[] {
  const item = (items: readonly Item[], id: string) => items.find((one) => one.id === id);
  const changed = newest.flatMap((own) => {
    const [was, is] = [item(before, own.id), item(next, own.id)];
    if (was && !is) return [];
    return [was && is ? carried({ before: was, next: is }, own) : own];
  });
  return [...changed, ...next.filter(({ id }) => !item(before, id) && !item(newest, id))];
}

function haveIds(value: unknown): value is readonly Item[] {
  return Array.isArray(value) && value.length > 0 && value.every((one) => isPlain(one) && typeof one.id === 'string');
}

function isPlain(value: unknown): value is Record<string, unknown> {
  return value !== null && typeof value === 'object' && !Array.isArray(value);
}

/** What another window kept meanwhile is asked for so often. */
const TRIES = 4;

interface RevisedDeps<V, S extends { readonly revision: number }> {
  /** The record as it is shown. */
  readonly shown: () => Revised<V>;
  readonly show: (record: Revised<V>) => void;
  readonly save: (baseRevision: number, value: V) => Promise<Answer<S>>;
  /** The newer record that a refused save tells of. */
  readonly newer: (failure: Failure) => Revised<V> | null;
}

/**
 * A queue for a record that is saved as a whole: each choice is shown at once and saved after the one before it, made anew
 * from what is kept by then. A record that was changed from elsewhere is taken up, and the choice made on it.
 */
export class RevisedQueue<V, S extends { readonly revision: number }> {
  private last: Promise<unknown> = Promise.resolve();
  private kept: Revised<V> | null = null;
  private readonly waiting: Change<V>[] = [];

  constructor(private readonly deps: RevisedDeps<V, S>) {}

  change(change: Change<V>): Promise<Answer<S>> {
    const { shown, show } = this.deps;
    const now = shown();
    if (this.waiting.length === 0) this.kept = now;
    this.waiting.push(change);
    show({ ...now, value: carried(change, now.value) });
    const answer = this.last.then(() => this.send(change));
    this.last = answer.catch(() => undefined);
    return answer;
  }

  private async send(change: Change<V>): Promise<Answer<S>> {
    const { save, newer } = this.deps;
    for (let tries = 1; ; tries++) {
      const kept = this.kept!;
      const value = carried(change, kept.value);
      const answer = await save(kept.revision, value);
      if (answer.ok) {
        this.kept = { revision: answer.value.revision, value };
        this.settle(change);
        return answer;
      }
      const fresh = newer(answer.failure);
      if (fresh) this.kept = fresh;
      if (fresh && tries < TRIES) continue;
      this.settle(change);
      return answer;
    }
  }

  /** Shows what is kept with the choices that still wait. */
  private settle(change: Change<V>): void {
    this.waiting.splice(this.waiting.indexOf(change), 1);
    const kept = this.kept!;
    const value = this.waiting.reduce((own, next) => carried(next, own), kept.value);
    this.deps.show({ revision: kept.revision, value });
  }
}
