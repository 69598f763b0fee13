-- Up Migration
-- Where it hurt, of an attempt that ended so: `{"finger": 3, "place": "A"}`, either of them null; null: it did not.
ALTER TABLE attempts ADD COLUMN pain jsonb;

-- Down Migration
ALTER TABLE attempts DROP COLUMN pain;
