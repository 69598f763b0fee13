import { forgetAnswers } from '../answerOnce';
import { forgetWords } from '../book/nearSpelling';
import { type Database, inTransaction } from '../db';
import { deleteStaleImports, forgetOriginals } from '../imports/queries';
import { thinRevisions } from '../revisions/queries';

/** What grows with use and is of no use any more goes, once a day: a book takes the room of its tunes and not of its past. */
export async function sweepBook(db: Database, now: Date): Promise<void> {
  await thinRevisions(db, now);
  await forgetAnswers(db);
  await deleteStaleImports(db);
  await forgetOriginals(db);
  await inTransaction(db, forgetWords);
}
