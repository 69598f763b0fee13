import { parseCall, parseLetter } from '#core/entry';
import type { Schools } from '#core/schools';
import type { Tune } from '#core/tune';
import { counted } from '#words/plural';
import { type EntryOutcome, pressEntryKey } from './entryKeys';
import type { EntryState } from './entryState';

/** Most words taken from one paste: eighty bars of eighths. */
const MAX_WORDS = 640;
const SHOWN = 24;

/**
 * Enters a text of calls and letters as if it had been typed: `D:2 A:0 f# e`, `z` for a rest. Bar lines in it are passed
 * over, for bars begin where the rhythm fills them. Where a word is none of these nothing is entered, and the entry says
 * which word it was.
 */
export function pasteWords(
  tune: Tune,
  entry: EntryState,
  text: string,
  bareFinger?: Schools['bareFinger'],
): EntryOutcome {
  const words = text.split(/[\s|]+/).filter(Boolean);
  const refuse = (fault: string): EntryOutcome => ({ entry: { ...entry, fault } });
  if (words.length === 0) return refuse('Nothing to paste: the text is empty.');
  if (words.length > MAX_WORDS)
    return refuse(`${words.length} words are too many at once: at most ${MAX_WORDS}. Nothing was entered.`);
  let now: EntryOutcome = { entry: { ...entry, place: null, next: 'note', fault: null } };
  for (const [i, word] of words.entries()) {
    const key = /^[zr]$/i.test(word) ? 'r' : word;
    const way = parseCall(word) ? 'calls' : 'letters';
    const isNote = way === 'calls' || parseLetter(word) !== null;
    const next =
      key === 'r' || isNote
        ? pressEntryKey(now.tune ?? tune, { ...now.entry, way, octaves: 0 }, key, bareFinger)
        : null;
    if (!next) {
      const shown = word.length > SHOWN ? `${word.slice(0, SHOWN)}…` : word;
      return refuse(
        `“${shown}”, word ${i + 1}: expected a call such as D:2 or a letter such as f#. Nothing was entered.`,
      );
    }
    now = { ...next, tune: next.tune ?? now.tune };
  }
  return {
    entry: { ...now.entry, way: entry.way },
    tune: now.tune,
    label: `paste ${counted(words.length, 'note')}`,
  };
}
