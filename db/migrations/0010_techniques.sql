-- Up Migration
-- What a tune asks of its player, counted with its other figures: by it tunes are found for a technique.
ALTER TABLE tunes ADD COLUMN techniques text[] NOT NULL DEFAULT '{}';
CREATE INDEX tunes_by_technique ON tunes USING gin (techniques);

-- Down Migration
DROP INDEX tunes_by_technique;
ALTER TABLE tunes DROP COLUMN techniques;
