import { useState } from 'react';
import type { Difference } from '#core/difference';
import { differenceWords } from '#words/difference';
import { Button } from '../ui/Button';

/** Differences shown at once; more are unfolded. */
const MAX_SHOWN = 5;

/** What is different in the tune now. */
export function Differences({ differences }: { readonly differences: readonly Difference[] }) {
  const [isWhole, setWhole] = useState(false);
  if (differences.length === 0) return <p className="text-small text-muted">The tune is the same now.</p>;
  const shown = isWhole ? differences : differences.slice(0, MAX_SHOWN);
  return (
    <>
      <p className="text-small text-muted">Since then:</p>
      <ul className="text-small">
        {shown.map((difference) => (
          <li key={JSON.stringify(difference)}>{differenceWords(difference)}</li>
        ))}
      </ul>
      {differences.length > shown.length && (
        <Button look="link" className="text-small" onClick={() => setWhole(true)}>
          {differences.length - shown.length} more
        </Button>
      )}
    </>
  );
}
