-- Up Migration
-- The player's figures and how things are done; one row, since a book has one player.
CREATE TABLE player_settings (
  only_one boolean PRIMARY KEY DEFAULT true CHECK (only_one),
  revision integer NOT NULL DEFAULT 1,
  document jsonb NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now()
);

-- Down Migration
DROP TABLE player_settings;
