import { type Key, LETTERS } from '#core/pitch';
import { DANCE_TYPES, type DanceType, mapEvents, type Tune } from '#core/tune';
import type { XmlElement } from './xml';

/** What of a head stands in miscellaneous fields. */
export interface HeadFields {
  /** Fields that are read here and are no directives. */
  readonly names: ReadonlySet<string>;
  readonly danceType: DanceType | null;
  readonly notes: string[] | null;
  /** Signs beyond the signature, by key: 0 is the head's, then each bar's that has one. */
  readonly extras: Readonly<Record<string, NonNullable<Key['extra']>>>;
  /** Words over notes and rests, counted from 1. */
  readonly words: Readonly<Record<string, string>>;
}

export function readHeadFields(fields: readonly { name: string; element: XmlElement }[]): HeadFields {
  const value = (name: string) => fields.find((field) => field.name === name)?.element.text;
  const notes = jsonOf(value('notes'));
  const extras = jsonOf(value('extras'));
  const words = jsonOf(value('words'));
  return {
    names: new Set(['dance', 'notes', 'extras', 'words']),
    danceType: DANCE_TYPES.find((type) => type === value('dance')) ?? null,
    notes:
      Array.isArray(notes) && notes.every((note) => typeof note === 'string')
        ? notes.slice(0, 200).map((note) => note.slice(0, 4000))
        : null,
    extras: Object.fromEntries(
      Object.entries(isRecord(extras) ? extras : {}).filter(([, list]) => isExtra(list)),
    ) as HeadFields['extras'],
    words: Object.fromEntries(
      Object.entries(isRecord(words) ? words : {}).flatMap(([at, text]) =>
        typeof text === 'string' ? [[at, text.slice(0, 40)]] : [],
      ),
    ),
  };
}

/** The tune with its keys' further signs and the words over its notes. */
export function withFields(tune: Tune, { extras, words }: HeadFields): Tune {
  let keys = 0;
  let events = 0;
  const keyWith = (key: Key): Key => {
    const extra = extras[keys++];
    return extra ? { ...key, extra } : key;
  };
  const key = keyWith(tune.key);
  if (Object.keys(extras).length === 0 && Object.keys(words).length === 0) return tune;
  const worded = mapEvents(tune, (event) => {
    if (event.kind === 'bar') {
      if (!event.key) {
        keys += 1;
        return event;
      }
      return { ...event, key: keyWith(event.key) };
    }
    const word = words[++events];
    return word === undefined ? event : { ...event, chord: word };
  });
  return { ...worded, key };
}

function jsonOf(text: string | undefined): unknown {
  try {
    return text === undefined ? null : (JSON.parse(text) as unknown);
  } catch {
    return null;
  }
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function isExtra(value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.length <= 7 &&
    value.every(
      (sign) =>
        isRecord(sign) &&
        LETTERS.some((letter) => letter === sign.letter) &&
        [-2, -1, 0, 1, 2].includes(sign.alter as number),
    )
  );
}
