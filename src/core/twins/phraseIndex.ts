import { formatFraction } from '#core/base';
import { pitchName } from '#core/pitch';
import { type Bar, barNumbers, type NoteEvent, PHRASE_BARS, type Tune, writtenBars } from '#core/tune';

/** A phrase by its beginning. */
export interface PhraseEntry {
  readonly part: string;
  /** Bars as numbered in the part. */
  readonly from: number;
  readonly to: number;
  /** The shortest beginning that no other phrase has; the whole phrase where another is the same. */
  readonly beginning: readonly NoteEvent[];
  /** Number of an earlier phrase that is the same throughout. */
  readonly sameAs: number | null;
}

/**
 * The phrases of a tune, four bars each, with the shortest beginning that tells each from the others: what a player must
 * remember to know where they are. A pickup goes with the phrase it leads into; endings end the phrase they stand in.
 * Time O(p²·n) for p phrases of n notes.
 */
export function phraseIndex(tune: Tune): PhraseEntry[] {
  const phrases = [...writtenBars(tune)].flatMap(([part, bars]) => {
    const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
    return cutPhrases(bars, numbers).map((own) => {
      const notes = own.flatMap(({ events }) => events.filter((event) => event.kind === 'note'));
      const numbered = own.map(({ event }) => numbers.get(event.id) ?? 0);
      return { part, from: Math.min(...numbered), to: Math.max(...numbered), notes, words: notes.map(noteWords) };
    });
  });
  const sounding = phrases.filter(({ notes }) => notes.length > 0);
  return sounding.map(({ part, from, to, notes, words }, i) => {
    const others = sounding.filter((_, j) => j !== i);
    const same = sounding.findIndex((other, j) => j < i && isEqual(other.words, words));
    const sharedWith = Math.max(0, ...others.map((other) => commonStart(words, other.words)));
    return {
      part,
      from,
      to,
      beginning: notes.slice(0, Math.min(notes.length, sharedWith + 1)),
      sameAs: same >= 0 ? same : null,
    };
  });
}

function cutPhrases(bars: readonly Bar[], numbers: ReadonlyMap<string, number>): Bar[][] {
  const phrases: Bar[][] = [];
  for (const bar of bars) {
    const number = numbers.get(bar.event.id) ?? 1;
    const at = Math.floor((Math.max(1, number) - 1) / PHRASE_BARS);
    (phrases[at] ??= []).push(bar);
  }
  return phrases.filter((phrase) => phrase !== undefined);
}

function noteWords({ pitch, duration }: NoteEvent): string {
  return `${pitchName(pitch)} ${formatFraction(duration)}`;
}

function commonStart(one: readonly string[], other: readonly string[]): number {
  let length = 0;
  while (length < one.length && one[length] === other[length]) length += 1;
  return length;
}

function isEqual(one: readonly string[], other: readonly string[]): boolean {
  return one.length === other.length && commonStart(one, other) === one.length;
}
