-- Up Migration
-- By what titles are sorted: a leading “The” is passed over, as in any index of tunes.
CREATE FUNCTION title_order(title text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE STRICT
  RETURN regexp_replace(lower(title), '^the\s+', '');

DROP INDEX tunes_by_title;
DROP INDEX tunes_by_type;
DROP INDEX tunes_by_key;
DROP INDEX tunes_by_tuning;
DROP INDEX tunes_by_bars;
DROP INDEX tunes_by_round;
DROP INDEX tunes_by_room;
DROP INDEX tunes_by_problems;
DROP INDEX tunes_by_practice;
DROP INDEX tunes_by_change;
DROP INDEX tunes_removed;
CREATE INDEX tunes_by_title ON tunes (title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_type ON tunes (coalesce(dance_type, ''), title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_key ON tunes (key_name, title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_tuning ON tunes (tuning, title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_bars ON tunes (bars, title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_round ON tunes (coalesce(comes_round::integer, -1), title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_room ON tunes (room, title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_problems ON tunes (coalesce(problems, -1), title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_practice ON tunes (coalesce(practised_at, '-infinity'), title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_by_change ON tunes (updated_at, title_order(title), id) WHERE removed_at IS NULL;
CREATE INDEX tunes_removed ON tunes (title_order(title), id) WHERE removed_at IS NOT NULL;

-- Down Migration
DROP INDEX tunes_by_title;
DROP INDEX tunes_by_type;
DROP INDEX tunes_by_key;
DROP INDEX tunes_by_tuning;
DROP INDEX tunes_by_bars;
DROP INDEX tunes_by_round;
DROP INDEX tunes_by_room;
DROP INDEX tunes_by_problems;
DROP INDEX tunes_by_practice;
DROP INDEX tunes_by_change;
DROP INDEX tunes_removed;
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
DROP FUNCTION title_order(text);
