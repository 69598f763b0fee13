import { useState } from 'react';
import { logRoutes } from '#contract/log';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { ask } from '../api/ask';
import { serverApi } from '../api/serverApi';
import { useAppDispatch } from '../store/store';
import { Alert } from '../ui/Alert';

interface Taken {
  readonly attempts: number;
  readonly known: number;
  readonly leftOut: readonly { readonly at: string; readonly message: string }[];
}

/** The log out as a table or as JSON, and either of them in. */
export function LogFiles() {
  const dispatch = useAppDispatch();
  const [taken, setTaken] = useState<Taken | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isReading, setReading] = useState(false);
  const bringIn = async (file: File) => {
    setReading(true);
    setProblem(null);
    setTaken(null);
    const body = new Blob([file], { type: 'application/octet-stream' });
    const answer = await ask(logRoutes.importLog, { body });
    setReading(false);
    if (!answer.ok) {
      setProblem(`Nothing was brought in. ${failureWords(answer.failure)}`);
      return;
    }
    setTaken(answer.value);
    dispatch(serverApi.util.invalidateTags(['Log', 'Book']));
  };
  return (
    <section aria-labelledby="log-files">
      <h2 id="log-files" className="mb-1 text-xl">
        Your log
      </h2>
      <p className="text-small">
        Save it{' '}
        <a href="/api/log/export?format=csv" download className="text-woad underline underline-offset-3">
          as a table
        </a>{' '}
        or{' '}
        <a href="/api/log/export?format=json" download className="text-woad underline underline-offset-3">
          as JSON
        </a>
        .
      </p>
      <label className="mt-1 block text-small">
        Bring a log in{' '}
        <input
          type="file"
          accept=".csv,.json,text/csv,application/json"
          disabled={isReading}
          className="block w-full file:mr-2 file:rounded-md file:border file:border-line file:bg-surface file:px-2 file:py-1 hover:file:border-soft"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            target.value = '';
            if (file) void bringIn(file);
          }}
        />
      </label>
      {isReading && <p role="status">Reading …</p>}
      {taken && (
        <div role="status" className="text-small">
          <p>
            {counted(taken.attempts, 'new attempt')}
            {taken.known > 0 && `, ${taken.known} known already`}.
          </p>
          {taken.leftOut.length > 0 && (
            <ul className="text-weld-ink">
              {taken.leftOut.map(({ at, message }) => (
                <li key={at}>
                  {at}: {message}
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
      {problem && <Alert look="small">{problem}</Alert>}
    </section>
  );
}
