-- Up Migration
-- Which parts ask for a technique; and the hand and bowing of every figure of four notes with its part and bar, by which a
-- player meets again in one tune what another has taught.
ALTER TABLE tunes ADD COLUMN technique_parts jsonb NOT NULL DEFAULT '{}',
                  ADD COLUMN hand_shapes integer[] NOT NULL DEFAULT '{}',
                  ADD COLUMN hand_places text[] NOT NULL DEFAULT '{}';

-- Down Migration
ALTER TABLE tunes DROP COLUMN technique_parts, DROP COLUMN hand_shapes, DROP COLUMN hand_places;
