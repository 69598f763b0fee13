import { useState } from 'react';
import { type Attempt, type Landmark, type Wrong, WRONGS } from '#contract/log';
import type { PracticePlan } from '#core/practice';
import type { TuneReport } from '#core/report';
import { momentWords } from '#words/days';
import { ordinal } from '#words/ordinal';
import { counted } from '#words/plural';
import { attemptSpanWords, LAYER_WORDS } from '#words/practice';
import { DRILL_NAMES, WAY_WORDS } from '#words/tuneDrill';
import { useAttemptsQuery } from '../api/logApi';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { SmallTable } from '../ui/SmallTable';
import { AttemptForm } from './AttemptForm';
import { useAttemptQueue } from './useAttemptQueue';
import { isSameSpan, landmarkOf } from './useTuneInBites';

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

const WRONG_OPTIONS: readonly { readonly value: Wrong | null; readonly name: string }[] = [
  { value: null, name: '–' },
  ...WRONGS.map((value) => ({ value, name: value })),
];

/** What the log has of a tune, attempt by attempt: to be corrected, removed, or added to by hand. */
export function AttemptLog({ tuneId, revision, report, plan, names, landmarks }: AttemptLogProps) {
  const { data: attempts } = useAttemptsQuery(tuneId);
  const { queue, state } = useAttemptQueue();
  /** Corrections by what they correct: they hold here at once, though the server may not have them yet. */
  const [corrected, setCorrected] = useState<ReadonlyMap<string, Attempt>>(new Map());
  const [shown, setShown] = useState(SHOWN);
  /** What was corrected last, as it was and as it is: it can be taken back. */
  const [last, setLast] = useState<{ readonly before: Attempt; readonly now: Attempt } | null>(null);
  const [isAdding, setAdding] = useState(false);
  const correct = (before: Attempt, more: Partial<Attempt>) => {
    const now = { ...before, ...more, id: crypto.randomUUID(), corrects: before.id };
    void queue.add(now);
    setCorrected((known) => new Map(known).set(before.id, now));
    return now;
  };
  const change = (before: Attempt, more: Partial<Attempt>) => setLast({ before, now: correct(before, more) });
  const undo = () => {
    if (!last) return;
    // A correction of the correction: nothing in the log is ever overwritten. What was removed comes back as it was.
    const { id: _id, ...was } = last.before;
    correct(last.now, { ...was, isWithdrawn: false });
    setLast(null);
  };
  const nameOf = ({ span, drill }: Attempt): string => {
    if (drill !== null) return `${DRILL_NAMES[drill].name}, drill`;
    const bite = plan.bites.find((one) => isSameSpan(one, span));
    return bite ? names.get(bite.id)! : (landmarkOf(landmarks, span)?.name ?? attemptSpanWords(report, span));
  };
  const rows = (attempts ?? []).map((one) => latest(one, corrected)).filter(({ isWithdrawn }) => !isWithdrawn);
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
        {state.waiting > 0 && (
          <span role="status" className="text-small text-muted">
            {counted(state.waiting, 'entry', 'entries')} on the way to the log
          </span>
        )}
        {last && (
          <Button look="small" onClick={undo}>
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
        <SmallTable
          label="What you played"
          minWidth="40rem"
          heads={['when', 'what', { figures: 'tempo' }, 'clean', 'what went wrong', { hidden: 'remove' }]}
        >
          {rows.slice(0, shown).map((attempt) => (
            <tr key={attempt.id} className="border-t border-line">
              <td className="py-1 pr-3 text-small whitespace-nowrap text-muted">{momentWords(attempt.at)}</td>
              <td className="pr-3">
                {nameOf(attempt)}
                <span className="text-small text-muted">{howWords(attempt)}</span>
              </td>
              <td className="pr-3 text-right tabular-nums">{Math.round(attempt.bpm)}</td>
              <td className="pr-3">
                <Button
                  look="small"
                  aria-label={`${nameOf(attempt)}, ${momentWords(attempt.at)}: ${attempt.clean ? 'clean, change to not yet' : 'not yet, change to clean'}`}
                  className={attempt.clean ? 'text-lichen-ink' : 'text-madder'}
                  onClick={() => change(attempt, attempt.clean ? { clean: false } : { clean: true, wrong: null })}
                >
                  {attempt.clean ? 'clean' : 'not yet'}
                </Button>
              </td>
              <td className="pr-3">
                {!attempt.clean && (
                  <Select
                    label={`What went wrong in ${nameOf(attempt)}, ${momentWords(attempt.at)}`}
                    value={attempt.wrong}
                    options={WRONG_OPTIONS}
                    onChange={(wrong) => change(attempt, { wrong })}
                  />
                )}
              </td>
              <td className="text-right">
                <Button
                  look="small"
                  aria-label={`Remove ${nameOf(attempt)}, ${momentWords(attempt.at)}`}
                  onClick={() => change(attempt, { isWithdrawn: true })}
                >
                  remove
                </Button>
              </td>
            </tr>
          ))}
        </SmallTable>
      )}
      {rows.length > shown && (
        <Button look="link" className="mt-2" onClick={() => setShown(shown + 4 * SHOWN)}>
          {counted(rows.length - shown, 'more attempt')}
        </Button>
      )}
    </details>
  );
}

/** An attempt with all that was put right in it. */
function latest(attempt: Attempt, corrected: ReadonlyMap<string, Attempt>): Attempt {
  const next = corrected.get(attempt.id);
  return next ? latest(next, corrected) : attempt;
}

/** Layer and way, where they are not the usual ones, and a note. */
function howWords({ layer, way, note, minutes, pain }: Attempt): string {
  const how = [
    layer === 'tempo' ? '' : LAYER_WORDS[layer],
    way === 'bowed' ? '' : WAY_WORDS[way],
    minutes >= 1 ? `${Math.round(minutes)} min` : '',
    pain && `it hurt${pain.finger === null ? '' : `: ${ordinal(pain.finger)} finger`}`,
    note,
  ].filter(Boolean);
  return how.length > 0 ? ` · ${how.join(' · ')}` : '';
}
