import { useMemo, useState } from 'react';
import { flushSync } from 'react-dom';
import { type NoteState, noteStates } from '#core/noteStates';
import { type Finding, type Mend, mendTune, reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { mendLabel } from '#words/mend';
import type { Bench } from '../commands/command';
import { passShown, selected } from '../openTune/openTuneSlice';
import { useAppDispatch } from '../store/store';
import { focusScore } from './focus';

export interface Mends {
  /** What the score would show with the mend that is pointed at. */
  readonly previewed: ReadonlyMap<string, NoteState> | null;
  /** And what would be said of it. */
  readonly previewedReport: TuneReport | null;
  readonly show: (finding: Finding) => void;
  readonly preview: (mend: Mend | null, finding: Finding) => void;
  readonly make: (mend: Mend, finding: Finding) => void;
}

/** Findings shown in the score; their mends looked at beforehand and made. */
export function useMends({ tune, report, open: { passInView }, edit }: Bench): Mends {
  const dispatch = useAppDispatch();
  const [looked, setLooked] = useState<{
    readonly of: Tune;
    readonly mend: Mend;
    readonly tune: Tune;
  } | null>(null);
  const previewedReport = useMemo(
    () => (looked?.of === tune ? reportTune(looked.tune, report.settings) : null),
    [looked, tune, report],
  );
  const previewed = useMemo(
    () => previewedReport && noteStates(previewedReport, passInView),
    [previewedReport, passInView],
  );
  return {
    previewed,
    previewedReport,
    show: ({ spot, ids }) => {
      dispatch(passShown({ part: spot.part, pass: spot.pass }));
      dispatch(selected({ anchor: ids[0]!, focus: ids[ids.length - 1]! }));
      document.querySelector(`[data-note="${ids[0]!}"]`)?.scrollIntoView({ block: 'nearest' });
    },
    preview: (mend, finding) => {
      // Bar lines and lengths drawn anew are another page: only what stays on this one is shown beforehand.
      const isShown = mend && mend.deed !== 'rebar' && mend.deed !== 'fit-last-note';
      setLooked((now) => {
        if (!isShown) return null;
        if (now?.of === tune && now.mend === mend) return now;
        return { of: tune, mend, tune: mendTune(tune, mend, finding) };
      });
    },
    make: (mend, finding) => {
      setLooked(null);
      // The finding goes with its button: the keys go back to the score, so that undo and the like still answer.
      flushSync(() => edit(mendTune(tune, mend, finding), mendLabel(mend, finding)));
      focusScore();
    },
  };
}
