import { type BookCount, type BookFacets, type BookFilter, type BookQuery, DEFAULT_PAGE } from '#contract/book';
import type { TuneList, TuneSummary } from '#contract/tunes';
import type { PlayerSettings } from '#core/report';
import { type EventKind, tempoBand } from '#core/tempo';
import type { DanceType } from '#core/tune';
import { countingKey } from '../counting/figures';
import { MAX_TRIES } from '../counting/queries';
import type { Queryable } from '../db';
import { filterConditions } from './filterSql';
import { type NearWords, nearWords } from './nearSpelling';
import { pageStatement, writeCursor } from './pageSql';

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
  comes_round: boolean | null;
  flipped_parts: string[];
  ceiling_bpm: number | null;
  own_low: number | null;
  own_ceiling: number | null;
  own_high: number | null;
  own_binds: Readonly<Partial<Record<EventKind, number>>> | null;
  missing: string[] | null;
  wish_bpm: number;
  beat: string;
  problems: number | null;
  cares: number | null;
  tags: string[];
  practised_at: Date | null;
  updated_at: Date;
  counted_by: string | null;
  failed_by: string | null;
  failed_why: string | null;
  count_tries: number;
  used_in: string[] | null;
  sort_key: string;
  sort_title: string;
}

/** A page of the book. Where nothing is spelt as asked, of what is spelt nearly so. */
export async function listTunes(db: Queryable, query: BookQuery, settings: PlayerSettings): Promise<TuneList> {
  const asSpelt = pageStatement(query);
  const { rows } = await db.query<SummaryRow>(asSpelt.text, [...asSpelt.values]);
  if (rows.length > 0 || !query.words || query.after !== undefined) return toPage(rows, query, settings, null);
  const near = await nearWords(db, query.words);
  if (near === null) return toPage([], query, settings, null);
  const statement = pageStatement(query, near);
  const { rows: nearRows } = await db.query<SummaryRow>(statement.text, [...statement.values]);
  return { ...toPage(nearRows, query, settings, near), isNear: nearRows.length > 0 };
}

function toPage(
  rows: readonly SummaryRow[],
  query: BookQuery,
  settings: PlayerSettings,
  near: NearWords | null,
): TuneList {
  const limit = query.limit ?? DEFAULT_PAGE;
  const shown = rows.slice(0, limit);
  const last = shown[shown.length - 1];
  const key = countingKey(settings);
  return {
    tunes: shown.map((row) => toSummary(row, settings, key)),
    next:
      rows.length > limit && last
        ? writeCursor({ key: last.sort_key, title: last.sort_title, id: last.id, near })
        : null,
    isNear: false,
  };
}

function toSummary(row: SummaryRow, { bands }: PlayerSettings, key: string): TuneSummary {
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
    isCounted: row.counted_by === key,
    givenUp: row.failed_by === key && row.count_tries >= MAX_TRIES ? row.failed_why : null,
    comesRound: row.comes_round,
    flippedParts: row.flipped_parts,
    ceilingBpm: row.ceiling_bpm,
    own:
      row.own_ceiling === null
        ? null
        : { median: row.own_ceiling, low: row.own_low!, high: row.own_high!, binds: sortedBinds(row.own_binds) },
    missing: row.missing,
    wishBpm: row.wish_bpm,
    bandLow: band.low,
    bandHigh: band.high,
    beat: row.beat,
    problems: row.problems,
    cares: row.cares,
    tags: row.tags,
    practisedAt: row.practised_at?.toISOString() ?? null,
    updatedAt: row.updated_at.toISOString(),
    usedIn: row.used_in ?? null,
  };
}

/** The database keeps the order of names in its own way: what sets it most often comes first. */
const sortedBinds = (binds: SummaryRow['own_binds']): Partial<Record<EventKind, number>> =>
  Object.fromEntries(Object.entries(binds ?? {}).sort(([, a], [, b]) => b - a));

/** How many tunes a filter lets through, and how they stand. */
export async function countBook(db: Queryable, filter: BookFilter): Promise<BookCount> {
  const { where, values } = filterConditions(filter);
  const { rows } = await db.query<{ tunes: number; not_round: number; short: number }>(
    `SELECT count(*)::integer AS tunes,
            count(*) FILTER (WHERE NOT comes_round)::integer AS not_round,
            count(*) FILTER (WHERE room < 1)::integer AS short
       FROM tunes WHERE ${where.join(' AND ')}`,
    [...values],
  );
  return { tunes: rows[0]!.tunes, notRound: rows[0]!.not_round, short: rows[0]!.short };
}

/** Values that tunes of the book have, the commonest first. */
export async function listFacets(db: Queryable): Promise<BookFacets> {
  const facet = async (expression: string, from = 'tunes') => {
    const { rows } = await db.query<{ value: string; count: number }>(
      `SELECT ${expression} AS value, count(*)::integer AS count FROM ${from}
        WHERE removed_at IS NULL GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT ${MAX_FACETS}`,
    );
    return rows;
  };
  const { rows } = await db.query<{ tunes: number; removed: number; as_of: Date }>(
    `SELECT count(*) FILTER (WHERE removed_at IS NULL)::integer AS tunes,
            count(*) FILTER (WHERE removed_at IS NOT NULL)::integer AS removed, now() AS as_of FROM tunes`,
  );
  return {
    types: await facet("coalesce(dance_type, 'none')"),
    keys: await facet('key_name'),
    tunings: await facet('tuning'),
    tags: await facet('tag', 'tunes, unnest(tags) AS tag'),
    techniques: await facet('technique', 'tunes, unnest(techniques) AS technique'),
    tunes: rows[0]!.tunes,
    removed: rows[0]!.removed,
    asOf: rows[0]!.as_of.toISOString(),
  };
}

/** Values of a kind that are offered to filter by. */
const MAX_FACETS = 200;
