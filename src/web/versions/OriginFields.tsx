import type { VersionOrigin } from '#contract/versions';

/** What a version is, and where it comes from. */
export function OriginFields({
  origin,
  onChange,
}: {
  readonly origin: VersionOrigin;
  readonly onChange: (origin: VersionOrigin) => void;
}) {
  const field = 'rounded-md border border-soft bg-surface px-2 py-1.5';
  return (
    <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2">
      <fieldset className="flex flex-wrap gap-x-4 sm:col-span-2">
        <legend className="sr-only">What it is</legend>
        {(['plan', 'setting'] as const).map((kind) => (
          <label key={kind} className="flex items-center gap-1.5">
            <input
              type="radio"
              className="accent-woad"
              checked={origin.kind === kind}
              onChange={() => onChange({ ...origin, kind })}
            />
            {kind === 'plan' ? 'another plan of the same notes' : 'a setting as somebody plays it'}
          </label>
        ))}
      </fieldset>
      <label className="flex flex-col text-small">
        <span>Taught by</span>
        <input
          className={field}
          value={origin.taughtBy}
          maxLength={200}
          onChange={({ target }) => onChange({ ...origin, taughtBy: target.value })}
        />
      </label>
      <label className="flex flex-col text-small">
        <span>Learned on</span>
        <input
          className={field}
          type="date"
          value={origin.learnedOn ?? ''}
          onChange={({ target }) => onChange({ ...origin, learnedOn: target.value || null })}
        />
      </label>
      <label className="flex flex-col text-small sm:col-span-2">
        <span>Note</span>
        <textarea
          className={field}
          rows={2}
          value={origin.note}
          maxLength={2000}
          onChange={({ target }) => onChange({ ...origin, note: target.value })}
        />
      </label>
    </div>
  );
}
