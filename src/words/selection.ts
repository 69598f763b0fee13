import type { TuneReport } from '#core/report';

/** Where chosen notes stand: `bar 6 of A`, `bars 6–8 of A`, `A bar 8 to B pickup`. */
export function selectionWords({ unrolled }: TuneReport, ids: readonly string[]): string {
  const find = (id: string | undefined) => unrolled.notes.find((played) => id !== undefined && played.ids.includes(id));
  const first = find(ids[0]);
  const last = find(ids[ids.length - 1]);
  if (!first || !last) return 'nothing';
  const bar = (number: number) => (number === 0 ? 'pickup' : `bar ${number}`);
  if (first.part !== last.part) return `${first.part} ${bar(first.bar)} to ${last.part} ${bar(last.bar)}`;
  return first.bar === last.bar
    ? `${bar(first.bar)} of ${first.part}`
    : `bars ${first.bar}–${last.bar} of ${first.part}`;
}
