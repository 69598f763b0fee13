import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Response, Router } from 'express';
import type { Tune } from '#core/tune';
import { exportSchema } from '#contract/exports';
import { playerSettings } from '#contract/settings';
import type { Database } from '../db';
import { AppError } from '../errors';
import { findSettings } from '../settings/queries';
import { chosenDocuments } from './chosenDocuments';
import { csvList } from './csvList';
import { EXTENSIONS, abcBook, archive, fileStem, jsonBook, tuneFile } from './writers';

const TYPES = {
  abc: 'text/vnd.abc; charset=utf-8',
  musicxml: 'application/vnd.recordare.musicxml+xml',
  midi: 'audio/midi',
  json: 'application/json',
  csv: 'text/csv; charset=utf-8',
} as const;

/** Tunes as files: one by itself, several as one text or an archive, never all of a large book in memory. */
export function exportRoutes(db: Database): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { format, choice } = exportSchema.parse(request.body);
    if (format === 'csv') {
      attach(response, 'book.csv', TYPES.csv);
      response.send(await csvList(db, choice));
      return;
    }
    const settings = playerSettings((await findSettings(db)).settings);
    const tunes = chosenDocuments(db, choice);
    const first = await tunes.next();
    if (first.done) throw new AppError('not-found');
    const second = await tunes.next();
    if (second.done) {
      const { tune } = first.value;
      attach(response, `${fileStem(tune.title)}${EXTENSIONS[format]}`, TYPES[format]);
      response.send(Buffer.from(tuneFile(format, tune, settings)));
      return;
    }
    const all = rejoined([first.value, second.value], tunes);
    const isText = format === 'abc' || format === 'json';
    attach(response, `book${isText ? EXTENSIONS[format] : '.zip'}`, isText ? TYPES[format] : 'application/zip');
    const chunks = format === 'abc' ? abcBook(all) : format === 'json' ? jsonBook(all) : archive(format, all, settings);
    await pipeline(Readable.from(chunks), response);
  });

  return router;
}

async function* rejoined<T extends { tune: Tune }>(first: readonly T[], rest: AsyncIterable<T>): AsyncGenerator<T> {
  yield* first;
  yield* rest;
}

function attach(response: Response, name: string, type: string): void {
  response.attachment(name);
  response.type(type);
}
