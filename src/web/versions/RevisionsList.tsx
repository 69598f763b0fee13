import { useState } from 'react';
import { KEPT_REVISIONS } from '#contract/revisions';
import { tuneDifference } from '#core/difference';
import type { Tune } from '#core/tune';
import { momentWords, timeWords, today, weekdayWords } from '#words/days';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useRevisionQuery, useRevisionsQuery } from '../api/versionsApi';
import { Button } from '../ui/Button';
import { NotRead } from '../ui/PageState';
import { Differences } from './Differences';

interface RevisionsListProps {
  readonly id: string;
  readonly tune: Tune;
  readonly onRestore: (tune: Tune, name: string) => void;
}

/** Revisions told at once; more are unfolded. */
const MAX_SHOWN = 20;

/** How a tune stood after each save that is still kept, and the way back. */
export function RevisionsList({ id, tune, onRestore }: RevisionsListProps) {
  const { data: revisions, error, isLoading, refetch } = useRevisionsQuery(id);
  const [shown, setShown] = useState(MAX_SHOWN);
  const [looked, setLooked] = useState<number | null>(null);
  if (isLoading) return <p className="text-muted">Looking for earlier edits …</p>;
  if (error !== undefined || !revisions)
    return (
      <NotRead
        words={`Earlier edits cannot be shown. ${error ? failureWords(error as Failure) : ''}`}
        onRetry={() => void refetch()}
      />
    );
  if (revisions.length === 0) return <p className="text-muted">The tune has not changed since it was brought in.</p>;
  return (
    <section aria-label="Earlier edits" className="flex flex-col gap-2">
      <p className="text-small text-muted">
        The last {KEPT_REVISIONS.all} are all kept; of older ones, the last of each hour, then each day, then each week.
      </p>
      <ul className="flex flex-col">
        {revisions.slice(0, shown).map(({ revision, savedAt }, i) => {
          const before = revisions[i - 1];
          const isNewDay = !before || today(new Date(before.savedAt)) !== today(new Date(savedAt));
          return (
            <li key={revision}>
              {isNewDay && <p className="mt-2 font-bold">{weekdayWords(savedAt)}</p>}
              <Button
                look="link"
                aria-expanded={looked === revision}
                onClick={() => setLooked(looked === revision ? null : revision)}
              >
                {timeWords(savedAt)}
              </Button>
              {i === 0 && <span className="text-small text-muted"> the last save</span>}
              {looked === revision && <RevisionShown {...{ id, revision, tune, onRestore }} />}
            </li>
          );
        })}
      </ul>
      {revisions.length > shown && (
        <Button look="link" className="self-start" onClick={() => setShown(shown + 5 * MAX_SHOWN)}>
          {revisions.length - shown} earlier
        </Button>
      )}
    </section>
  );
}

function RevisionShown({ id, revision, tune, onRestore }: RevisionsListProps & { readonly revision: number }) {
  const { data, error } = useRevisionQuery({ id, revision });
  if (error !== undefined)
    return <p className="text-madder">This version cannot be shown. {failureWords(error as Failure)}</p>;
  if (!data) return <p className="text-muted">Looking …</p>;
  const differences = tuneDifference(data.tune, tune);
  return (
    <div className="mb-2 flex flex-col items-start gap-1 rounded-md border border-line bg-paper px-3 py-2">
      <Differences differences={differences} />
      {differences.length > 0 && (
        <Button onClick={() => onRestore(data.tune, `as it was on ${momentWords(data.savedAt)}`)}>Go back to it</Button>
      )}
    </div>
  );
}
