import { type BookFilter, NO_TYPE, PRACTISED } from '#contract/book';
import { readFirstNotes } from '#core/likeness';
import { parseTuning, STANDARD_TUNING } from '#core/tuning';
import { AppError } from '../errors';

/** Conditions of a statement on `tunes` with the values they name. */
export interface Conditions {
  readonly where: readonly string[];
  readonly values: readonly unknown[];
}

/** A text search as the database reads it, accents left out. */
export const SEARCH = "to_tsquery('simple', unaccent($1))";

/** The words of a search, small letters, without signs. */
export function wordsOf(text: string): string[] {
  return text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
}

/** A word as it may stand in a text search, whatever becomes of it without its accents: `½` is then three signs. */
export function quoted(word: string): string {
  return `'${word.replace(/['\\]/g, (sign) => sign + sign)}'`;
}

/** As a text search: each word must come, the last as a beginning. Null: there is no word in it. */
export function textQuery(text: string): string | null {
  const words = wordsOf(text);
  if (words.length === 0) return null;
  return words.map((word, i) => (i === words.length - 1 ? `${quoted(word)}:*` : quoted(word))).join(' & ');
}

/**
 * What a filter asks of a row. Values are always parameters; `$1` is the text search where there is one.
 * `search` stands in for the words where they are not to be taken as they are spelt.
 * @throws AppError `bad-request` with the place where first notes cannot be read
 */
export function filterConditions(filter: BookFilter, search = textQuery(filter.words ?? '')): Conditions {
  const where = [`removed_at IS ${filter.removed ? 'NOT ' : ''}NULL`];
  const values: unknown[] = [];
  const value = (given: unknown) => `$${values.push(given)}`;
  if (search !== null) where.push(`words @@ ${SEARCH.replace('$1', value(search))}`);
  else if (filter.words) where.push('false');
  if (filter.notes !== undefined && filter.notes !== '') {
    const steps = value(`${stepsAskedFor(filter)}%`);
    where.push(`(first_steps LIKE ${steps} OR first_bar_steps LIKE ${steps})`);
  }
  if (filter.type !== undefined)
    where.push(`coalesce(dance_type, '') = ${value(filter.type === NO_TYPE ? '' : filter.type)}`);
  if (filter.key !== undefined) where.push(`key_name = ${value(filter.key)}`);
  if (filter.tuning !== undefined) where.push(`tuning = ${value(filter.tuning)}`);
  if (filter.tag !== undefined) where.push(`tags @> ARRAY[${value(filter.tag)}]::text[]`);
  if (filter.technique !== undefined) where.push(`techniques @> ARRAY[${value(filter.technique)}]::text[]`);
  if (filter.round !== undefined) where.push(`coalesce(comes_round::integer, -1) = ${filter.round === 'yes' ? 1 : 0}`);
  if (filter.tempo !== undefined)
    where.push(filter.tempo === 'short' ? 'room < 1' : 'room >= 1 AND comes_round IS NOT NULL');
  if (filter.findings === 'problems') where.push('coalesce(problems, -1) > 0');
  if (filter.findings === 'cares') where.push('cares > 0');
  if (filter.findings === 'none') where.push('coalesce(problems, -1) = 0 AND cares = 0');
  if (filter.ready !== undefined) where.push(READY[filter.ready]);
  if (filter.practised !== undefined) {
    const days = PRACTISED[filter.practised];
    where.push(
      days === null
        ? "coalesce(practised_at, '-infinity') = '-infinity'"
        : `coalesce(practised_at, '-infinity') < now() - make_interval(days => ${value(days)})`,
    );
  }
  return { where, values };
}

/** By how many skills are missing. */
const READY: Readonly<Record<NonNullable<BookFilter['ready']>, string>> = {
  yes: 'coalesce(cardinality(missing), 1000) = 0',
  one: 'coalesce(cardinality(missing), 1000) = 1',
  more: 'coalesce(cardinality(missing), 1000) BETWEEN 2 AND 999',
  unknown: 'coalesce(cardinality(missing), 1000) = 1000',
};

/** Calls are those of the tuning that is asked for, else of the standard one. */
function stepsAskedFor({ notes = '', tuning }: BookFilter): string {
  const read = readFirstNotes(notes, (tuning !== undefined && parseTuning(tuning)) || STANDARD_TUNING);
  if (read.ok) return read.steps;
  const message = `column ${read.column}: expected letters (d f# a) or calls (D:0 D:2 A:0), found “${read.found}”`;
  throw new AppError('bad-request', [{ path: 'notes', message }]);
}
