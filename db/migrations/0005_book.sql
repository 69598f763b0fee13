-- Up Migration
-- A book of thousands: what it is searched, filtered and sorted by, tags, views, bulk changes that can be taken back.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE EXTENSION IF NOT EXISTS unaccent;
CREATE EXTENSION IF NOT EXISTS fuzzystrmatch;

-- Figures are counted later for tunes that come in by hundreds: until then they are unknown.
ALTER TABLE tunes
  ALTER COLUMN comes_round DROP NOT NULL,
  ALTER COLUMN document SET COMPRESSION lz4,
  ADD COLUMN other_titles text[] NOT NULL DEFAULT '{}',
  ADD COLUMN composer text NOT NULL DEFAULT '',
  ADD COLUMN said text NOT NULL DEFAULT '',
  ADD COLUMN tags text[] NOT NULL DEFAULT '{}',
  ADD COLUMN words tsvector NOT NULL DEFAULT '',
  ADD COLUMN first_steps text NOT NULL DEFAULT '',
  ADD COLUMN first_bar_steps text NOT NULL DEFAULT '',
  ADD COLUMN problems integer,
  ADD COLUMN cares integer,
  -- Ceiling over wish; large where nothing limits it or it is not counted yet.
  ADD COLUMN room double precision NOT NULL DEFAULT 1000,
  -- The rules and settings that its figures were counted with; null: never.
  ADD COLUMN counted_by text,
  ADD COLUMN practised_at timestamptz,
  ADD COLUMN removed_at timestamptz;

-- The words that a tune is found by follow from the columns they stand in, whoever writes those.
CREATE FUNCTION tune_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  NEW.words :=
    setweight(to_tsvector('simple', unaccent(NEW.title || ' ' || array_to_string(NEW.other_titles, ' '))), 'A')
    || setweight(to_tsvector('simple', unaccent(NEW.composer || ' ' || array_to_string(NEW.tags, ' '))), 'B')
    || setweight(to_tsvector('simple', unaccent(NEW.said)), 'C');
  RETURN NEW;
END
$$;
CREATE TRIGGER tune_words BEFORE INSERT OR UPDATE OF title, other_titles, composer, said, tags ON tunes
  FOR EACH ROW EXECUTE FUNCTION tune_words();

-- Every word that was ever in a title, by which a misspelt one is put right. In order, so that two that add the same
-- words do not wait for each other.
CREATE TABLE book_words (word text PRIMARY KEY);
CREATE INDEX book_words_by_spelling ON book_words USING gin (word gin_trgm_ops);
CREATE FUNCTION book_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO book_words
  SELECT DISTINCT lexeme FROM changed, unnest(changed.words)
   WHERE weights && ARRAY['A', 'B'] AND lexeme !~ '^[0-9]' AND NOT EXISTS (SELECT 1 FROM book_words WHERE word = lexeme)
   ORDER BY lexeme
  ON CONFLICT DO NOTHING;
  RETURN NULL;
END
$$;
CREATE TRIGGER book_words_inserted AFTER INSERT ON tunes REFERENCING NEW TABLE AS changed
  FOR EACH STATEMENT EXECUTE FUNCTION book_words();
CREATE TRIGGER book_words_updated AFTER UPDATE ON tunes REFERENCING NEW TABLE AS changed
  FOR EACH STATEMENT EXECUTE FUNCTION book_words();
UPDATE tunes SET title = title, room = least(coalesce(ceiling_bpm / wish_bpm, 1000), 1000);

DROP INDEX tunes_by_title;
CREATE INDEX tunes_by_title ON tunes (lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_type ON tunes (coalesce(dance_type, ''), lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_key ON tunes (key_name, lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_tuning ON tunes (tuning, lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_bars ON tunes (bars, lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_round ON tunes (coalesce(comes_round::integer, -1), lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_room ON tunes (room, lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_problems ON tunes (coalesce(problems, -1), lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_practice ON tunes (coalesce(practised_at, '-infinity'), lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_change ON tunes (updated_at, lower(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_removed ON tunes (lower(title), id) WHERE removed_at IS NOT NULL;
CREATE INDEX tunes_by_words ON tunes USING gin (words);
CREATE INDEX tunes_by_tags ON tunes USING gin (tags);
CREATE INDEX tunes_by_first_steps ON tunes (first_steps text_pattern_ops) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_first_bar_steps ON tunes (first_bar_steps text_pattern_ops) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_counting ON tunes (counted_by);

-- Prints of melodies, the whole tune's under the empty name.
CREATE TABLE tune_prints (
  tune_id uuid NOT NULL REFERENCES tunes (id) ON DELETE CASCADE,
  part text NOT NULL,
  print integer[] NOT NULL,
  PRIMARY KEY (tune_id, part)
);
CREATE INDEX tune_prints_by_hash ON tune_prints USING gin (print);

CREATE TABLE book_views (
  id uuid PRIMARY KEY,
  name text NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 80),
  query jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

-- A change of many tunes at once, with what each had before it.
CREATE TABLE bulk_changes (
  id uuid PRIMARY KEY,
  kind text NOT NULL,
  before jsonb NOT NULL,
  made_at timestamptz NOT NULL DEFAULT now()
);

-- Tunes on their way in: nothing of it is in the book before all of it is.
CREATE TABLE imports (
  id uuid PRIMARY KEY,
  file_name text NOT NULL,
  original bytea,
  begun_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz,
  -- What finishing answered, in case it is asked again.
  outcome jsonb
);
CREATE INDEX imports_open ON imports (begun_at) WHERE finished_at IS NULL;

CREATE TABLE import_tunes (
  import_id uuid NOT NULL REFERENCES imports (id) ON DELETE CASCADE,
  position integer NOT NULL CHECK (position >= 0),
  tune_id uuid NOT NULL,
  head jsonb NOT NULL,
  source text,
  document jsonb NOT NULL,
  PRIMARY KEY (import_id, position)
);
ALTER TABLE import_tunes ALTER COLUMN document SET COMPRESSION lz4;

-- A tune's own text, or the file that it came in.
ALTER TABLE tune_sources
  ALTER COLUMN source DROP NOT NULL,
  ADD COLUMN import_id uuid REFERENCES imports (id) ON DELETE SET NULL;

-- A version is another plan of the same notes, or another setting of the tune, with where it is from.
ALTER TABLE tune_versions
  ADD COLUMN kind text NOT NULL DEFAULT 'plan' CHECK (kind IN ('plan', 'setting')),
  ADD COLUMN taught_by text NOT NULL DEFAULT '',
  ADD COLUMN learned_on date,
  ADD COLUMN note text NOT NULL DEFAULT '';

-- Down Migration
ALTER TABLE tune_versions DROP COLUMN kind, DROP COLUMN taught_by, DROP COLUMN learned_on, DROP COLUMN note;
DELETE FROM tune_sources WHERE source IS NULL;
ALTER TABLE tune_sources DROP COLUMN import_id, ALTER COLUMN source SET NOT NULL;
DROP TABLE import_tunes;
DROP TABLE imports;
DROP TABLE bulk_changes;
DROP TABLE book_views;
DROP TABLE tune_prints;
DROP TRIGGER book_words_inserted ON tunes;
DROP TRIGGER book_words_updated ON tunes;
DROP FUNCTION book_words();
DROP TABLE book_words;
DROP TRIGGER tune_words ON tunes;
DROP FUNCTION tune_words();
DELETE FROM tunes WHERE comes_round IS NULL;
DROP INDEX tunes_by_title;
ALTER TABLE tunes
  ALTER COLUMN comes_round SET NOT NULL,
  DROP COLUMN other_titles, DROP COLUMN composer, DROP COLUMN said, DROP COLUMN tags,
  DROP COLUMN words, DROP COLUMN first_steps, DROP COLUMN first_bar_steps, DROP COLUMN problems, DROP COLUMN cares,
  DROP COLUMN room, DROP COLUMN counted_by, DROP COLUMN practised_at, DROP COLUMN removed_at;
CREATE INDEX tunes_by_title ON tunes (lower(title), id);
