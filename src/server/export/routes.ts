import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Response, Router } from 'express';
import { exportRoutes as routes } from '#contract/exports';
import { playerSettings } from '#contract/settings';
import { FILE_KINDS } from '#formats/kinds';
import type { Database } from '../db';
import { AppError } from '../errors';
import type { Jobs } from '../jobs/jobs';
import { SENT, serve } from '../serve';
import { findSettings } from '../settings/queries';
import { chosenDocuments, type ChosenTune } from './chosenDocuments';
import { csvList } from './csvList';
import { abcBook, archive, fileStem, jsonBook } from './writers';

/** Tunes as files: one by itself, several as one text or an archive, never all of a large book in memory. */
export function exportRoutes(db: Database, jobs: Jobs): Router {
  const router = Router();

  serve(router, routes.exportTunes, async ({ body: { format, choice, name }, response }) => {
    const stem = fileStem(name ?? 'book');
    if (format === 'csv') {
      attach(response, `${stem}.csv`, 'text/csv; charset=utf-8');
      response.send(await csvList(db, choice));
      return SENT;
    }
    const settings = playerSettings((await findSettings(db)).settings);
    const { extension, mime, holds } = FILE_KINDS[format];
    const tunes = chosenDocuments(db, choice);
    const first = await tunes.next();
    if (first.done) throw new AppError('not-found');
    const second = await tunes.next();
    if (second.done) {
      const { title, document } = first.value;
      const [file] = await jobs.tuneFiles(format, [document], settings);
      attach(response, `${fileStem(title)}${extension}`, mime);
      response.send(Buffer.from(file!.bytes));
      return SENT;
    }
    const all = rejoined([first.value, second.value], tunes);
    if (holds === 'many') attach(response, `${stem}${extension}`, mime);
    else attach(response, `${stem}.zip`, 'application/zip');
    const chunks =
      format === 'abc'
        ? abcBook(all, settings, jobs)
        : format === 'json'
          ? jsonBook(all)
          : archive(format, all, settings, jobs);
    await pipeline(Readable.from(chunks), response);
    return SENT;
  });

  return router;
}

async function* rejoined(first: readonly ChosenTune[], rest: AsyncIterable<ChosenTune>): AsyncGenerator<ChosenTune> {
  yield* first;
  yield* rest;
}

function attach(response: Response, name: string, type: string): void {
  response.attachment(name);
  response.type(type);
}
