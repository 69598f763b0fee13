import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { failureWords } from '#words/failure';
import { originWords } from '#words/origin';
import type { Failure } from '../api/answer';
import { useVersionsQuery } from '../api/versionsApi';
import { useStoredTune } from '../openTune/useStoredTune';
import { PageOpening, PageProblem } from '../ui/PageState';
import { useTitle } from '../ui/useTitle';
import { AlignedBars } from './AlignedBars';

/** The settings of a tune beat by beat against the tune as it is now. */
export default function AlignmentPage() {
  const { id = '' } = useParams();
  const { tune, failure } = useStoredTune(id);
  const { data: versions, error, isLoading } = useVersionsQuery(id);
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  useTitle(tune?.title ?? null, 'settings');
  const problem = failure ?? (error as Failure | undefined);
  if (problem)
    return (
      <PageProblem title="The settings cannot be shown">
        <p className="mb-4">{failureWords(problem)}</p>
        <Link to="/" className="text-woad underline">
          Back to the book
        </Link>
      </PageProblem>
    );
  if (!tune || isLoading) return <PageOpening>Laying them side by side …</PageOpening>;
  const all = versions ?? [];
  const usual = all.filter(({ kind }) => kind === 'setting');
  const shown = picked ?? new Set((usual.length > 0 ? usual : all.slice(0, 1)).map((version) => version.id));
  return (
    <main className="h-full overflow-y-auto px-5 py-5 lg:px-8">
      <header className="mb-4">
        <p>
          <Link to={`/tunes/${id}`} className="text-woad underline">
            Back to the bench
          </Link>
        </p>
        <h1 className="text-page leading-tight break-words">{tune.title}: settings</h1>
        <p className="max-w-3xl text-muted">
          Each is lined up with the tune as it is now and compared beat by beat. Letters are as they sound; a tick marks
          an octave up, a comma an octave down.
        </p>
      </header>
      {all.length === 0 ? (
        <p className="max-w-xl">
          There is no other setting yet. Keep one under <i>Named versions</i> on the bench, or bring one in: a tune that
          the book has already can be kept as another setting of it.
        </p>
      ) : (
        <>
          <fieldset className="mb-5 flex flex-wrap gap-x-5 gap-y-1">
            <legend className="float-left mr-3 font-bold">Compared</legend>
            {all.map((version) => (
              <label key={version.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-woad"
                  checked={shown.has(version.id)}
                  onChange={() => {
                    const next = new Set(shown);
                    if (!next.delete(version.id)) next.add(version.id);
                    setPicked(next);
                  }}
                />
                {version.name}
              </label>
            ))}
          </fieldset>
          {all
            .filter((version) => shown.has(version.id))
            .map((version) => (
              <section key={version.id} className="mb-8" aria-label={version.name}>
                <h2 className="text-xl break-words">{version.name}</h2>
                <p className="mb-1 text-small text-muted">{originWords(version)}</p>
                <AlignedBars one={tune} other={version.tune} names={['now', version.name]} />
              </section>
            ))}
        </>
      )}
    </main>
  );
}
