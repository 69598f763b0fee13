import type { TuneReport } from '#core/report';
import { ordinal } from './ordinal';
import { barSpan, noteSpotWords, spotWords } from './spot';

/** Where chosen notes stand: `bar 6 of A`, `bars 6–8 of A`, `bar 8 of A to the pickup of B`; a single note with its beat. */
export function selectionWords({ unrolled }: TuneReport, ids: readonly string[]): string {
  const find = (id: string | undefined) => unrolled.notes.find((played) => id !== undefined && played.ids.includes(id));
  const first = find(ids[0]);
  const last = find(ids[ids.length - 1]);
  if (!first || !last) return 'nothing';
  if (first.part !== last.part) return `${spotWords(first)} to ${spotWords(last)}`;
  if (ids.length === 1) return noteSpotWords(first);
  if (first.bar === last.bar && first.ending === last.ending) return spotWords(first);
  const bars = `bars ${barSpan(first.bar, last.bar)} of ${first.part}`;
  return last.ending === null ? bars : `${bars}, ${ordinal(last.ending)} ending`;
}
