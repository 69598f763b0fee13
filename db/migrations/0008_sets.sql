-- Up Migration
-- Sets: tunes played one after another in an order of the player's own; one row, since a book has one player.
CREATE TABLE sets (
  only_one boolean PRIMARY KEY DEFAULT true CHECK (only_one),
  revision integer NOT NULL DEFAULT 1,
  document jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now()
);

-- Down Migration
DROP TABLE sets;
