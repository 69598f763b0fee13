import type { Words } from '#contract/settings';
import type { Crossing } from '#core/crossing';
import { ORNAMENTS } from '#core/ornaments';
import type { TuneReport } from '#core/report';
import type { Change } from '#core/standing';
import type { EventKind } from '#core/tempo';
import { occurrencesOf } from '#core/tune';
import { ornamentName } from './ornament';
import { positionWords } from './position';
import { noteSpotWords } from './spot';

const EVENT_NAMES: Partial<Record<EventKind, string>> = {
  stroke: 'a stroke',
  hop: 'a finger’s hop to another string',
  barre: 'a finger laid across two strings',
  shift: 'a shift',
  grace: 'a grace note',
  retake: 'a retake',
};

/** What needs time, in a word or two: `crossing inside a slur`. */
export function eventName(kind: EventKind, crossing: Pick<Crossing, 'inSlur' | 'skips'> | null): string {
  if (kind !== 'crossing' || !crossing) return EVENT_NAMES[kind] ?? kind.replace('-', ' ');
  if (crossing.inSlur) return crossing.skips > 0 ? 'slur over a skipped string' : 'crossing inside a slur';
  return crossing.skips > 0 ? 'crossing over a skipped string' : 'crossing';
}

/** Where a change is made: the first time its note is played. */
export function changePlace({ unrolled }: TuneReport, { id }: Change): string {
  const index = occurrencesOf(unrolled).get(id)?.[0];
  return index === undefined ? 'a note that is not played' : noteSpotWords(unrolled.notes[index]!);
}

/** What a change does: `split the slur`. */
export function changeWords({ deed, note }: Change, words: Pick<Words, 'cut' | 'flick'>): string {
  switch (deed) {
    case 'split':
      return 'split the slur';
    case 'join':
      return 'slur it to the note before';
    case 'turn':
      return 'turn the bow instead of retaking';
    case 'barre':
      return 'lay the finger across both strings';
    case 'no-drone':
      return 'leave the drone out';
    case 'leave-off': {
      const mark = note && 'unmark' in note ? note.unmark : null;
      const ornament = ORNAMENTS.find((known) => known === mark);
      return `leave the ${ornament ? ornamentName(ornament, words).toLowerCase() : 'ornament'} out`;
    }
    case 'refinger': {
      if (!note || !('refinger' in note)) return 'take another finger';
      const { place, finger, position } = note.refinger;
      return `take it as ${place}:${finger}${position === 1 ? '' : ` in ${positionWords(position)} position`}`;
    }
  }
}
