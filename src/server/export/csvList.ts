import type { TuneChoice } from '#contract/book';
import { writeCsv } from '#formats/csv';
import { chosenTunes } from '../book/bulk';
import type { Queryable } from '../db';

const HEADINGS = [
  'Title',
  'Other titles',
  'Type',
  'Meter',
  'Key',
  'Tuning',
  'Form',
  'Bars',
  'Comes round',
  'Ceiling (beats a minute)',
  'Wish (beats a minute)',
  'Beat',
  'Problems',
  'To take care of',
  'Tags',
  'Composer',
  'Last practised',
  'Changed',
];

/** The list of the book as a table, figures that are not counted yet left empty. */
export async function csvList(db: Queryable, choice: TuneChoice): Promise<string> {
  const { where, values } = chosenTunes(choice, 1);
  const isInOrder = 'ids' in choice && choice.inOrder === true;
  const { rows } = await db.query<{ cells: (string | number | null)[] }>(
    `SELECT jsonb_build_array(title, array_to_string(other_titles, '; '), dance_type, meter, key_name, tuning, form, bars,
              CASE WHEN comes_round THEN 'yes' WHEN NOT comes_round THEN 'no' END,
              round(ceiling_bpm::numeric, 1), round(wish_bpm::numeric, 1), beat, problems, cares,
              array_to_string(tags, '; '), composer, to_char(practised_at, 'YYYY-MM-DD'), to_char(updated_at, 'YYYY-MM-DD')) AS cells
       FROM tunes WHERE ${where}
      ORDER BY ${isInOrder ? 'array_position($1::uuid[], id)' : 'title_order(title), id'}`,
    [...values],
  );
  return writeCsv([HEADINGS, ...rows.map(({ cells }) => cells)]);
}
