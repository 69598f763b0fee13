import { useState } from 'react';
import type { Attempt, Landmark } from '#contract/log';
import type { PracticePlan } from '#core/practice';
import type { TuneReport } from '#core/report';
import { counted } from '#words/plural';
import { attemptSpanWords } from '#words/practice';
import { DRILL_NAMES } from '#words/tuneDrill';
import { useAttemptsQuery } from '../api/logApi';
import { AttemptTable } from '../log/AttemptTable';
import { isSameSpan, landmarkOf } from '../log/spans';
import { useCorrections } from '../log/useCorrections';
import { Button } from '../ui/Button';
import { AttemptForm } from './AttemptForm';

interface AttemptLogProps {
  readonly tuneId: string;
  readonly revision: number;
  readonly report: TuneReport;
  readonly plan: PracticePlan;
  readonly names: ReadonlyMap<string, string>;
  readonly landmarks: readonly Landmark[];
}

/** Attempts that are listed at first, and how many more at each press. */
const SHOWN = 12;

/** What the log has of a tune, attempt by attempt: to be corrected, removed, or added to by hand. */
export function AttemptLog({ tuneId, revision, report, plan, names, landmarks }: AttemptLogProps) {
  const { data: attempts } = useAttemptsQuery(tuneId);
  const corrections = useCorrections();
  const { queue, waiting, last } = corrections;
  const [shown, setShown] = useState(SHOWN);
  const [isAdding, setAdding] = useState(false);
  const nameOf = ({ span, drill }: Attempt): string => {
    if (drill !== null) return `${DRILL_NAMES[drill].name}, drill`;
    const bite = plan.bites.find((one) => isSameSpan(one, span));
    return bite ? names.get(bite.id)! : (landmarkOf(landmarks, span)?.name ?? attemptSpanWords(report, span));
  };
  const rows = corrections.current(attempts ?? []);
  return (
    <details className="mt-6" data-attempts={attempts?.length}>
      <summary className="cursor-pointer font-serif text-xl font-bold">What you played</summary>
      <p className="my-2 flex flex-wrap items-center gap-3">
        <span className="text-muted">
          {rows.length === 0
            ? 'Nothing is logged of this tune yet.'
            : 'Each time through, the newest first. Put right what was logged wrong.'}
        </span>
        <Button look="small" aria-expanded={isAdding} onClick={() => setAdding(!isAdding)}>
          Add one by hand
        </Button>
        {waiting > 0 && (
          <span role="status" className="text-small text-muted">
            {counted(waiting, 'entry', 'entries')} on the way to the log
          </span>
        )}
        {last && (
          <Button look="small" onClick={corrections.undo}>
            Undo: {last.now.isWithdrawn ? 'remove an attempt' : 'correct an attempt'}
          </Button>
        )}
      </p>
      {isAdding && (
        <AttemptForm
          tune={{ id: tuneId, title: report.tune.title, revision }}
          report={report}
          bites={plan.bites}
          names={names}
          onAdd={(attempt) => {
            void queue.add(attempt);
            setAdding(false);
          }}
        />
      )}
      {rows.length > 0 && (
        <AttemptTable attempts={rows.slice(0, shown)} nameOf={nameOf} onChange={corrections.change} />
      )}
      {rows.length > shown && (
        <Button look="link" className="mt-2" onClick={() => setShown(shown + 4 * SHOWN)}>
          {counted(rows.length - shown, 'more attempt')}
        </Button>
      )}
    </details>
  );
}
