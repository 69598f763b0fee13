import type { TuneReport } from '#core/report';
import type { NoteEvent } from '#core/tune';
import { writtenPitch } from '#words/pitch';

/** `A bar 3`; `A bars 3–4` where it runs over the bar line. */
export function placeName({ unrolled }: TuneReport, place: readonly NoteEvent[]): string {
  const find = (id: string) => unrolled.notes.find(({ ids }) => ids.includes(id));
  const first = find(place[0]!.id);
  const last = find(place[place.length - 1]!.id);
  if (!first || !last) return 'not played';
  const bar = (number: number) => (number === 0 ? 'pickup' : String(number));
  if (first.bar === last.bar) return first.bar === 0 ? `${first.part} pickup` : `${first.part} bar ${first.bar}`;
  return `${first.part} bars ${bar(first.bar)}–${bar(last.bar)}`;
}

/** `D E F♯ G …`, octaves left out. */
export function noteNames(notes: readonly NoteEvent[], most: number): string {
  const names = notes.slice(0, most).map(({ pitch }) => writtenPitch(pitch).replace(/-?\d$/, ''));
  return `${names.join(' ')}${notes.length > most ? ' …' : ''}`;
}
