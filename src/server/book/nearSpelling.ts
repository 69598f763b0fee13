import type { Queryable } from '../db';
import { quoted, wordsOf } from './filterSql';

/** Words of the book that are tried for each misspelt one. */
const MAX_TRIED = 4;
/** Words of a search that are put right; what stands for them goes along in the address of the next page. */
const MAX_WORDS = 12;
/** Letters of the longest word that is compared letter by letter; PostgreSQL compares none over 255 bytes. */
const LONGEST_WORD = 60;

/** For each word of a search the words of the book that may stand for it. */
export type NearWords = readonly (readonly string[])[];

/**
 * The words of the book that are spelt most like each word of a text: of the three-letter groups that either has at least
 * three in ten are in both (`pg_trgm`, its usual threshold), or two letters at most are others (Levenshtein), the first
 * one not among them: letters that changed places leave few groups. A word that is like none keeps its spelling. Null:
 * nothing is near.
 */
export async function nearWords(db: Queryable, text: string): Promise<NearWords | null> {
  const words = wordsOf(text);
  if (words.length === 0) return null;
  const { rows } = await db.query<{ near: string[] }>(
    `SELECT ARRAY(
              SELECT word FROM book_words
               WHERE length(word) <= ${LONGEST_WORD} AND word % asked
                  OR (length(asked) BETWEEN 4 AND ${LONGEST_WORD} AND length(word) <= ${LONGEST_WORD} AND left(word, 1) = left(asked, 1) AND levenshtein_less_equal(word, asked, 2) <= 2)
               ORDER BY similarity(word, asked) DESC, word LIMIT $2
            ) AS near
       FROM unnest($1::text[]) WITH ORDINALITY AS a(given, place), lower(unaccent(given)) AS asked
      ORDER BY place`,
    [words.slice(0, MAX_WORDS), MAX_TRIED],
  );
  if (rows.every(({ near }) => near.length === 0)) return null;
  return words.map((word, i) => {
    const near = rows[i]?.near ?? [];
    return near.length > 0 ? near : [word];
  });
}

/** Takes away words that no tune of the book has any more, in the caller's transaction: a search would be led to nothing. */
export async function forgetWords(db: Queryable): Promise<void> {
  // A tune that brings a word back meanwhile waits until this is done, and then adds it.
  await db.query('LOCK TABLE book_words IN SHARE ROW EXCLUSIVE MODE');
  await db.query(
    'DELETE FROM book_words WHERE word NOT IN (SELECT lexeme FROM tunes, unnest(tunes.words) WHERE lexeme IS NOT NULL)',
  );
}

/** As a text search: of each word one of those that may stand for it. */
export function nearQuery(near: NearWords): string {
  return near.map((words) => `(${words.map(quoted).join(' | ')})`).join(' & ');
}
