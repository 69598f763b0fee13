-- Up Migration
-- The log of practice: attempts are put in and never changed; a correction is a further row that names the one it stands for.
CREATE TABLE attempts (
  id uuid PRIMARY KEY,
  at timestamptz NOT NULL,
  -- The log outlives its tunes: no reference, and the title as it was.
  tune_id uuid NOT NULL,
  tune_title text NOT NULL,
  tune_revision integer NOT NULL,
  part text NOT NULL,
  from_note text NOT NULL,
  to_note text NOT NULL,
  what text NOT NULL,
  drill text,
  layer text NOT NULL,
  way text NOT NULL,
  bpm double precision NOT NULL CHECK (bpm > 0),
  wish_bpm double precision NOT NULL CHECK (wish_bpm > 0),
  clean boolean NOT NULL,
  wrong text,
  minutes double precision NOT NULL CHECK (minutes >= 0),
  note text NOT NULL DEFAULT '',
  -- The attempt that this one corrects; taken back altogether where `is_withdrawn`.
  corrects uuid,
  is_withdrawn boolean NOT NULL DEFAULT false,
  kept_at timestamptz NOT NULL DEFAULT now()
);
-- An attempt is corrected once; what is corrected again is the correction.
CREATE UNIQUE INDEX attempts_by_correction ON attempts (corrects) WHERE corrects IS NOT NULL;
CREATE INDEX attempts_by_day ON attempts (at DESC, id);
CREATE INDEX attempts_by_tune ON attempts (tune_id, at DESC, id);
CREATE INDEX attempts_by_span ON attempts (tune_id, part, from_note, to_note, at DESC);

-- What the player chose for practising a tune: own cuts, landmarks, order.
CREATE TABLE tune_practice (
  tune_id uuid PRIMARY KEY REFERENCES tunes (id) ON DELETE CASCADE,
  revision integer NOT NULL DEFAULT 1,
  document jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now()
);

-- Down Migration
DROP TABLE tune_practice;
DROP TABLE attempts;
