import { momentWords } from '#words/days';
import { failureWords } from '#words/failure';
import { sizeWords } from '#words/size';
import type { Failure } from '../api/answer';
import { useCopiesQuery } from '../api/backupApi';

const KINDS = { daily: 'daily copy', 'before-restore': 'the book before a backup was restored' } as const;

/** Copies that Morrin makes by itself, each gone through to its end when it was made. */
export function KeptCopiesList() {
  const { data: copies, error, isLoading } = useCopiesQuery(undefined, { refetchOnMountOrArgChange: true });
  if (isLoading) return <p className="mt-3 text-muted">Looking for copies …</p>;
  if (error) return <p className="mt-3 text-madder">The copies cannot be listed. {failureWords(error as Failure)}</p>;
  const newest = copies?.find(({ kind }) => kind === 'daily');
  return (
    <div className="mt-3">
      <h4 className="font-bold">Automatic copies</h4>
      <p className="mb-1 text-small text-muted">
        {newest
          ? `The latest was made and checked on ${momentWords(newest.madeAt)}. One is made each day while Morrin runs; the last seven stay, outside the database.`
          : 'The first one is made a minute after Morrin starts, and then one each day while it runs.'}
      </p>
      {copies !== undefined && copies.length > 0 && (
        <ul aria-label="Automatic copies" className="text-small">
          {copies.map(({ name, kind, madeAt, bytes }) => (
            <li key={name} className="flex flex-wrap gap-x-3 border-t border-line py-1">
              <a href={`/api/backup/copies/${encodeURIComponent(name)}`} download className="text-woad underline">
                {momentWords(madeAt)}
              </a>
              <span className="flex-1 text-muted">{KINDS[kind]}</span>
              <span className="text-muted tabular-nums">{sizeWords(bytes)}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
