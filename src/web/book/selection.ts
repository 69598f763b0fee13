/** Which tunes are chosen: some by name, or everything that the filter lets through. */
export type Chosen = { readonly kind: 'some'; readonly ids: ReadonlySet<string> } | { readonly kind: 'all' };

export const NOTHING: Chosen = { kind: 'some', ids: new Set() };

export function isChosen(chosen: Chosen, id: string): boolean {
  return chosen.kind === 'all' || chosen.ids.has(id);
}

/** One tune more or less; taken from everything, what is shown stays chosen one by one. */
export function toggled(chosen: Chosen, id: string, shown: readonly string[]): Chosen {
  const ids = new Set(chosen.kind === 'all' ? shown : chosen.ids);
  if (!ids.delete(id)) ids.add(id);
  return { kind: 'some', ids };
}

/** Everything from one tune to another in the order shown, added to the selection. */
export function extended(chosen: Chosen, from: string, to: string, shown: readonly string[]): Chosen {
  if (chosen.kind === 'all') return chosen;
  const [a, b] = [shown.indexOf(from), shown.indexOf(to)];
  if (a < 0 || b < 0) return chosen;
  return { kind: 'some', ids: new Set([...chosen.ids, ...shown.slice(Math.min(a, b), Math.max(a, b) + 1)]) };
}

/** How many are chosen, of so many that there are. */
export function countChosen(chosen: Chosen, total: number): number {
  return chosen.kind === 'all' ? total : chosen.ids.size;
}
