import { tempoBand } from '#core/tempo';
import { formatFraction } from '#core/base';
import { keyName } from '#core/pitch';
import { type PlayerSettings, type TuneReport, danceBeat, reportTune, wishedTempo } from '#core/report';
import { type DanceType, type Tune, meterName } from '#core/tune';
import { tuningName } from '#core/tuning';
import type { TuneRecord, TuneSummary } from '#contract/tunes';
import type { Queryable } from '../db';

interface SummaryRow {
  id: string;
  revision: number;
  title: string;
  dance_type: DanceType | null;
  meter: string;
  key_name: string;
  tuning: string;
  form: string;
  bars: number;
  comes_round: boolean;
  flipped_parts: string[];
  ceiling_bpm: number | null;
  wish_bpm: number;
  beat: string;
  updated_at: Date;
}

/** The columns that lists need, counted anew from a document. */
function summaryColumns(tune: Tune, settings: PlayerSettings) {
  const report = reportTune(tune, settings);
  const { ledger, check } = report.figures;
  return [
    tune.title,
    tune.danceType,
    meterName(tune.meter),
    keyName(tune.key),
    tuningName(tune.tuning),
    formWords(tune.form),
    report.bars,
    ledger.comesRound,
    [...ledger.flippedParts],
    check.ceiling?.ceilingBpm ?? null,
    wishedTempo(tune, settings.bands),
    formatFraction(danceBeat(tune)),
    tune.schemaVersion,
    JSON.stringify(tune),
  ] as const;
}

function formWords(form: readonly string[]): string {
  return form.every((name) => name.length === 1) ? form.join('') : form.join(' ');
}

/** All tunes of the book by title. */
export async function listTunes(db: Queryable, { bands }: Pick<PlayerSettings, 'bands'>): Promise<TuneSummary[]> {
  const { rows } = await db.query<SummaryRow>(
    `SELECT id, revision, title, dance_type, meter, key_name, tuning, form, bars, comes_round, flipped_parts,
            ceiling_bpm, wish_bpm, beat, updated_at
       FROM tunes
      ORDER BY lower(title), id
      LIMIT 5000`,
  );
  return rows.map((row) => {
    const band = tempoBand(row.dance_type, bands);
    return {
      id: row.id,
      revision: row.revision,
      title: row.title,
      danceType: row.dance_type,
      meter: row.meter,
      key: row.key_name,
      tuning: row.tuning,
      form: row.form,
      bars: row.bars,
      comesRound: row.comes_round,
      flippedParts: row.flipped_parts,
      ceilingBpm: row.ceiling_bpm,
      wishBpm: row.wish_bpm,
      bandLow: band.low,
      bandHigh: band.high,
      beat: row.beat,
      updatedAt: row.updated_at.toISOString(),
    };
  });
}

export async function countTunes(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ count: number }>('SELECT count(*)::integer AS count FROM tunes');
  return rows[0]!.count;
}

interface RecordRow {
  id: string;
  revision: number;
  document: Tune;
  updated_at: Date;
  has_source: boolean;
}

const toRecord = (row: RecordRow): TuneRecord => ({
  id: row.id,
  revision: row.revision,
  updatedAt: row.updated_at.toISOString(),
  hasSource: row.has_source,
  tune: row.document,
});

export async function findTuneById(db: Queryable, id: string): Promise<TuneRecord | null> {
  const { rows } = await db.query<RecordRow>(
    `SELECT id, revision, document, updated_at,
            EXISTS (SELECT 1 FROM tune_sources WHERE tune_id = tunes.id) AS has_source
       FROM tunes
      WHERE id = $1`,
    [id],
  );
  return rows[0] ? toRecord(rows[0]) : null;
}

/** A new tune with its first revision. */
export async function insertTune(db: Queryable, id: string, tune: Tune, settings: PlayerSettings): Promise<void> {
  await db.query(
    `INSERT INTO tunes (id, revision, title, dance_type, meter, key_name, tuning, form, bars, comes_round,
                        flipped_parts, ceiling_bpm, wish_bpm, beat, schema_version, document)
     VALUES ($1, 1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)`,
    [id, ...summaryColumns(tune, settings)],
  );
  await insertRevision(db, id, 1, tune);
}

/** Replaces a tune if it still is at `baseRevision`; null when it is not, or does not exist. */
export async function updateTune(
  db: Queryable,
  id: string,
  baseRevision: number,
  tune: Tune,
  settings: PlayerSettings,
): Promise<{ revision: number; updatedAt: string } | null> {
  const { rows } = await db.query<{ revision: number; updated_at: Date }>(
    `UPDATE tunes
        SET revision = revision + 1, title = $3, dance_type = $4, meter = $5, key_name = $6, tuning = $7, form = $8,
            bars = $9, comes_round = $10, flipped_parts = $11, ceiling_bpm = $12, wish_bpm = $13, beat = $14,
            schema_version = $15, document = $16, updated_at = now()
      WHERE id = $1 AND revision = $2
      RETURNING revision, updated_at`,
    [id, baseRevision, ...summaryColumns(tune, settings)],
  );
  const row = rows[0];
  if (!row) return null;
  await insertRevision(db, id, row.revision, tune);
  return { revision: row.revision, updatedAt: row.updated_at.toISOString() };
}

/** Documents of the book by title, a batch at a time. */
export async function listDocuments(
  db: Queryable,
  limit: number,
  offset: number,
): Promise<{ id: string; tune: Tune }[]> {
  const { rows } = await db.query<{ id: string; document: Tune }>(
    'SELECT id, document FROM tunes ORDER BY lower(title), id LIMIT $1 OFFSET $2',
    [limit, offset],
  );
  return rows.map(({ id, document }) => ({ id, tune: document }));
}

/** The figures that lists show, counted anew with other settings; the tune itself stays at its revision. */
export async function updateFigures(db: Queryable, id: string, { figures, settings }: TuneReport): Promise<void> {
  await db.query(
    'UPDATE tunes SET comes_round = $2, flipped_parts = $3, ceiling_bpm = $4, wish_bpm = $5 WHERE id = $1',
    [
      id,
      figures.ledger.comesRound,
      [...figures.ledger.flippedParts],
      figures.check.ceiling?.ceilingBpm ?? null,
      settings.bpm,
    ],
  );
}

async function insertRevision(db: Queryable, id: string, revision: number, tune: Tune): Promise<void> {
  await db.query('INSERT INTO tune_revisions (tune_id, revision, document) VALUES ($1, $2, $3)', [
    id,
    revision,
    JSON.stringify(tune),
  ]);
}

/** Whether the stored document is this one: a save whose answer was lost comes again. */
export async function isStoredTune(db: Queryable, id: string, tune: Tune): Promise<boolean> {
  const { rows } = await db.query<{ same: boolean }>('SELECT document = $2::jsonb AS same FROM tunes WHERE id = $1', [
    id,
    JSON.stringify(tune),
  ]);
  return rows[0]?.same ?? false;
}

export async function insertSource(db: Queryable, id: string, fileName: string | null, source: string): Promise<void> {
  await db.query('INSERT INTO tune_sources (tune_id, file_name, source) VALUES ($1, $2, $3)', [id, fileName, source]);
}

export async function findSource(
  db: Queryable,
  id: string,
): Promise<{ fileName: string | null; source: string } | null> {
  const { rows } = await db.query<{ file_name: string | null; source: string }>(
    'SELECT file_name, source FROM tune_sources WHERE tune_id = $1',
    [id],
  );
  return rows[0] ? { fileName: rows[0].file_name, source: rows[0].source } : null;
}
