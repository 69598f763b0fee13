-- Up Migration
-- Fiddles with their strings and checks, and the player's own tunings; one row, since a book has one player.
CREATE TABLE pegs (
  only_one boolean PRIMARY KEY DEFAULT true CHECK (only_one),
  revision integer NOT NULL DEFAULT 1,
  document jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now()
);

-- Down Migration
DROP TABLE pegs;
