import type { Fraction } from '#core/base';
import type { Pitch } from '#core/pitch';
import type { Tune } from '#core/tune';
import { MOST_EVENTS, MOST_PLAYED_EVENTS, playedEvents } from '../json';

const MOST_COUNT = 1_000_000_000;
/** No zero characters, no halves of characters. */
const WORDS = /^[^\0\p{Cs}]*$/u;

const isLength = ({ n, d }: Fraction, least: number) => n >= least && n <= MOST_COUNT && d >= 1 && d <= MOST_COUNT;
const isPitch = ({ alter, octave }: Pitch) => alter >= -2 && alter <= 2 && octave >= -1 && octave <= 9;
const isText = (text: string | undefined, most: number) =>
  text === undefined || (text.length <= most && WORDS.test(text));

/**
 * Whether what a reader of ours made can be kept: the bounds of the document's schema that a file can break. The types hold
 * already, so this is a tenth of the schema's work; where it fails the schema says why.
 */
export function canBeKept(tune: Tune): boolean {
  const { title, composer, source, notes = [], parts, form } = tune;
  if (title.trim() === '' || !isText(title, 300) || !isText(composer, 300) || !isText(source, 1000)) return false;
  if (notes.length > 200 || !notes.every((note) => isText(note, 4000))) return false;
  if (parts.length === 0 || parts.length > 500 || form.length === 0 || form.length > 1000) return false;
  const names = new Set(parts.map(({ name }) => name));
  if (names.size !== parts.length || !form.every((name) => names.has(name))) return false;
  let count = 0;
  for (const { name, events } of parts) {
    if (name === '' || !isText(name, 24) || events[0]?.kind !== 'bar') return false;
    count += events.length;
    for (const event of events) {
      if (event.id.length > 24) return false;
      if (event.kind === 'bar') {
        if ((event.onPlays?.length ?? 0) > 64 || (event.onPlays ?? [1]).some((play) => play > 999)) return false;
        continue;
      }
      if (!isLength(event.duration, event.kind === 'note' ? 1 : 0) || !isText(event.chord, 40)) return false;
      if (event.tuplet && (event.tuplet.notes < 2 || event.tuplet.notes > 64 || event.tuplet.inTimeOf > 64))
        return false;
      if (event.kind === 'rest') continue;
      if (!isPitch(event.pitch) || (event.stops?.length ?? 0) > 5 || (event.graceNotes?.length ?? 0) > 16) return false;
      if (![...(event.stops ?? []), ...(event.graceNotes ?? [])].every(isPitch)) return false;
    }
  }
  return count <= MOST_EVENTS && playedEvents(tune) <= MOST_PLAYED_EVENTS;
}
