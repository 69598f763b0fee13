-- Up Migration
-- A tune whose figures could not be counted: by which settings, how often it was tried, and why not.
ALTER TABLE tunes
  ADD COLUMN failed_by text,
  ADD COLUMN count_tries integer NOT NULL DEFAULT 0,
  ADD COLUMN failed_why text;

-- A version is changed only by who saw how it stands.
ALTER TABLE tune_versions ADD COLUMN revision integer NOT NULL DEFAULT 1;

-- What a change of many tunes set: taken back is only that, and only where it still is so.
ALTER TABLE bulk_changes ADD COLUMN value text;

-- Answers to requests that make something, by the key they came with: one that comes again is answered the same.
CREATE TABLE answered_requests (
  key uuid PRIMARY KEY,
  path text NOT NULL,
  status integer NOT NULL,
  body jsonb NOT NULL,
  answered_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX answered_requests_by_age ON answered_requests (answered_at);

-- Revisions are gone through by age when they are thinned.
CREATE INDEX tune_revisions_by_age ON tune_revisions (saved_at);

-- Down Migration
DROP INDEX tune_revisions_by_age;
DROP TABLE answered_requests;
ALTER TABLE bulk_changes DROP COLUMN value;
ALTER TABLE tune_versions DROP COLUMN revision;
ALTER TABLE tunes DROP COLUMN failed_by, DROP COLUMN count_tries, DROP COLUMN failed_why;
