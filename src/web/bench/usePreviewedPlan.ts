import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { type NoteState, noteStates } from '#core/noteStates';
import { reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { changedNotes, type NoteChange } from '../score/changedNotes';

/** A plan that is only looked at. */
export interface PreviewedPlan {
  readonly report: TuneReport;
  readonly states: ReadonlyMap<string, NoteState>;
  /** What it changes against the plan as it is. */
  readonly changes: ReadonlyMap<string, NoteChange>;
}

interface Plan {
  readonly report: TuneReport;
  readonly states: ReadonlyMap<string, NoteState>;
  readonly passInView: Readonly<Record<string, number>>;
}

/** What a change would come to, shown before it is taken; forgotten with the next edit. */
export function usePreviewedPlan({ report, states, passInView }: Plan): {
  readonly previewed: PreviewedPlan | null;
  readonly preview: (next: Tune | null) => void;
} {
  const { tune, settings } = report;
  const [looked, setLooked] = useState<{ readonly of: Tune; readonly next: Tune } | null>(null);
  // Counting a plan costs as much as an edit: what is pressed meanwhile goes first.
  const late = useDeferredValue(looked);
  const next = late?.of === tune && late.next !== tune ? late.next : null;
  const after = useMemo(() => next && reportTune(next, settings), [next, settings]);
  const previewed = useMemo(() => {
    if (!after) return null;
    const then = noteStates(after, passInView);
    return { report: after, states: then, changes: changedNotes(states, then) };
  }, [after, states, passInView]);
  const preview = useCallback(
    (wanted: Tune | null) =>
      setLooked((before) => {
        if (wanted === null) return null;
        return before?.of === tune && before.next === wanted ? before : { of: tune, next: wanted };
      }),
    [tune],
  );
  return { previewed, preview };
}
