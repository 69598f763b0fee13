-- Up Migration
-- Versions of a tune that a player gave a name to, kept whole.
CREATE TABLE tune_versions (
  id uuid PRIMARY KEY,
  tune_id uuid NOT NULL REFERENCES tunes (id) ON DELETE CASCADE,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 120),
  document jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX tune_versions_of_tune ON tune_versions (tune_id, created_at DESC);

-- Down Migration
DROP TABLE tune_versions;
