import type { Queryable } from './db';

/**
 * Fills a book with rows as large as those of real tunes but documents of no content: for questions about lists, which
 * do not look into documents. The same rows every time.
 */
export async function fillBook(db: Queryable, tunes: number): Promise<void> {
  await db.query('SELECT setseed(0.42)');
  await db.query(
    `WITH words AS (
       SELECT ARRAY['Salt','Heron','Pewter','Reed','Lantern','Tern','Mudflat','Oyster','Willow','Causeway','Sluice','Samphire'] AS one,
              ARRAY['in the','over the','by the','of the','and the','beyond the'] AS two,
              ARRAY['Shallows','Boathouse','Slipway','Marsh','Sandbar','Tideway','Lamp','Weir','Jetty','Dunes','Creek','Withies'] AS three,
              ARRAY['reel','jig','polka','hornpipe','waltz','slide'] AS dances,
              ARRAY['D major','G major','A dorian','E minor','A mixolydian','Bb major'] AS keys,
              ARRAY['class','dance','set one','slow','favourite'] AS tags
     ), rows AS (
       SELECT n, random() AS a, random() AS b, random() AS c, random() AS d, random() AS e, random() AS f
         FROM generate_series(1, $1::integer) AS n
     )
     INSERT INTO tunes (id, revision, title, dance_type, meter, key_name, tuning, form, bars, comes_round, flipped_parts,
                        ceiling_bpm, wish_bpm, beat, schema_version, document, composer, said, tags, first_steps,
                        first_bar_steps, problems, cares, room, counted_by, practised_at)
     SELECT gen_random_uuid(), 1,
            one[1 + floor(a * 12)::int] || ' ' || two[1 + floor(b * 6)::int] || ' ' || three[1 + floor(c * 12)::int] || ' ' || n,
            CASE WHEN d < 0.05 THEN NULL ELSE dances[1 + floor(d * 6)::int] END, '4/4', keys[1 + floor(e * 6)::int],
            CASE WHEN f < 0.9 THEN 'G3 D4 A4 E5' ELSE 'A3 E4 A4 E5' END, 'AABB', 32, b < 0.6, '{}',
            60 + 80 * a, 109, '1/2', 1, jsonb_build_object('n', n), 'the boathouse class', 'written down at the ' || three[1 + floor(e * 12)::int],
            CASE WHEN c < 0.3 THEN ARRAY[tags[1 + floor(f * 5)::int]] ELSE '{}' END,
            translate(md5('s' || n), 'abcdef789', '012345601'), translate(md5('b' || n), 'abcdef789', '012345601'),
            floor(a * 4)::int, floor(b * 6)::int, (60 + 80 * a) / 109, 'test',
            CASE WHEN d < 0.5 THEN NULL ELSE now() - make_interval(hours => floor(d * 4000)::int) END
       FROM rows, words`,
    [tunes],
  );
  await db.query('ANALYZE tunes');
}
