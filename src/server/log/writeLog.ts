import type { Attempt } from '#contract/log';
import type { Place } from '#core/tune';
import { writeCsv } from '#formats/csv';

/** What each column is called, in their order. */
export const LOG_COLUMNS = {
  at: 'At',
  title: 'Tune',
  part: 'Part',
  from: 'From',
  to: 'To',
  what: 'What',
  drill: 'Drill',
  layer: 'Layer',
  way: 'Way',
  bpm: 'Tempo (beats a minute)',
  wishBpm: 'Goal (beats a minute)',
  clean: 'Clean',
  wrong: 'What went wrong',
  minutes: 'Minutes',
  note: 'Note',
  pain: 'Hurt',
  id: 'Id',
  tuneId: 'Tune id',
  revision: 'Revision',
} as const;

/** Rows that are written in one piece. */
const BATCH = 1000;

/** The log as a table. */
export async function* logCsv(attempts: AsyncIterable<Attempt>): AsyncGenerator<string> {
  yield writeCsv([Object.values(LOG_COLUMNS)]);
  let rows: (string | number | null)[][] = [];
  for await (const attempt of attempts) {
    const {
      id,
      tuneId,
      revision,
      at,
      title,
      span,
      what,
      drill,
      layer,
      way,
      bpm,
      wishBpm,
      clean,
      wrong,
      minutes,
      note,
      pain,
    } = attempt;
    const tempo = Math.round(10 * bpm) / 10;
    rows.push([
      at,
      title,
      span.part,
      span.from,
      span.to,
      what,
      drill,
      layer,
      way,
      tempo,
      wishBpm,
      clean ? 'yes' : 'no',
      wrong,
      Math.round(100 * minutes) / 100,
      note,
      painCell(pain),
      id,
      tuneId,
      revision,
    ]);
    if (rows.length < BATCH) continue;
    yield writeCsv(rows);
    rows = [];
  }
  if (rows.length > 0) yield writeCsv(rows);
}

/** `3 A`, `3` on any string, `yes` where it was not one finger; empty where nothing hurt. */
const painCell = (pain: Attempt['pain']): string =>
  pain ? [pain.finger, pain.place].filter((part) => part !== null).join(' ') || 'yes' : '';

/** What such a cell says; undefined for what is none. */
export function readPain(cell: string): Attempt['pain'] | undefined {
  if (cell === '') return null;
  const found = /^(?:yes|([1-4])?(?:(?:^| )([GDAE]))?)$/.exec(cell);
  return found
    ? { finger: found[1] ? Number(found[1]) : null, place: (found[2] as Place | undefined) ?? null }
    : undefined;
}

/** The log as JSON that the command line reads too: attempts with the title of their tune. */
export async function* logJson(attempts: AsyncIterable<Attempt>): AsyncGenerator<string> {
  yield '{"version":1,"attempts":[';
  let isFirst = true;
  for await (const { title, ...attempt } of attempts) {
    yield `${isFirst ? '' : ','}\n${JSON.stringify({ ...attempt, tune: title })}`;
    isFirst = false;
  }
  yield '\n]}\n';
}
