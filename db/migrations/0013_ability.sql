-- Up Migration
-- What the log says of the player: learnt in the background, from how much room each stretch of the log leaves in its tune's plan;
-- and of each tune what it asks, up to which tempo it holds for this player, and what is missing for it.
CREATE TABLE player_ability (
  only_one boolean PRIMARY KEY DEFAULT true CHECK (only_one),
  -- Of which log, settings and day it was learnt.
  key text NOT NULL,
  document jsonb NOT NULL,
  learnt_at timestamptz NOT NULL DEFAULT now()
);

-- Stretches of the log as their tune's plan has them: without margins where it has no such stretch any more.
CREATE TABLE log_stretches (
  tune_id uuid NOT NULL REFERENCES tunes (id) ON DELETE CASCADE,
  from_note text NOT NULL,
  to_note text NOT NULL,
  -- By which rules, settings and revision of the tune.
  judged_by text NOT NULL,
  bpm double precision NOT NULL,
  margins jsonb,
  skills jsonb,
  judged_at timestamptz NOT NULL DEFAULT clock_timestamp(),
  PRIMARY KEY (tune_id, from_note, to_note)
);

ALTER TABLE tunes
  ADD COLUMN kind_ceilings jsonb NOT NULL DEFAULT '{}',
  ADD COLUMN skills jsonb NOT NULL DEFAULT '{}',
  -- Of which ability and revision the columns below are.
  ADD COLUMN own_by text,
  ADD COLUMN own_low double precision,
  ADD COLUMN own_ceiling double precision,
  ADD COLUMN own_high double precision,
  ADD COLUMN own_binds jsonb,
  -- Skills that are missing; null: nothing is logged yet.
  ADD COLUMN missing text[];
CREATE INDEX tunes_by_ready ON tunes (coalesce(cardinality(missing), 1000), title_order(title), id) WHERE removed_at IS NULL;

-- Down Migration
DROP INDEX tunes_by_ready;
ALTER TABLE tunes
  DROP COLUMN kind_ceilings, DROP COLUMN skills, DROP COLUMN own_by, DROP COLUMN own_low, DROP COLUMN own_ceiling,
  DROP COLUMN own_high, DROP COLUMN own_binds, DROP COLUMN missing;
DROP TABLE log_stretches;
DROP TABLE player_ability;
