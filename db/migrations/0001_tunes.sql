-- Up Migration
-- Tunes as documents, with the columns that the book lists and sorts by. Every save is a revision.
CREATE TABLE tunes (
  id uuid PRIMARY KEY,
  revision integer NOT NULL CHECK (revision >= 1),
  title text NOT NULL,
  dance_type text,
  meter text NOT NULL,
  key_name text NOT NULL,
  tuning text NOT NULL,
  form text NOT NULL,
  bars integer NOT NULL,
  comes_round boolean NOT NULL,
  flipped_parts text[] NOT NULL,
  ceiling_bpm double precision,
  wish_bpm double precision NOT NULL,
  beat text NOT NULL,
  schema_version integer NOT NULL,
  document jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX tunes_by_title ON tunes (lower(title), id);

CREATE TABLE tune_revisions (
  tune_id uuid NOT NULL REFERENCES tunes (id) ON DELETE CASCADE,
  revision integer NOT NULL,
  document jsonb NOT NULL,
  saved_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (tune_id, revision)
);

-- The text a tune was imported from, kept as it came.
CREATE TABLE tune_sources (
  tune_id uuid PRIMARY KEY REFERENCES tunes (id) ON DELETE CASCADE,
  file_name text,
  source text NOT NULL
);

-- Down Migration
DROP TABLE tune_sources;
DROP TABLE tune_revisions;
DROP TABLE tunes;
