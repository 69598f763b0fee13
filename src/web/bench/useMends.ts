import { flushSync } from 'react-dom';
import { type Finding, type Mend, mendTune } from '#core/report';
import type { Tune } from '#core/tune';
import { mendLabel } from '#words/mend';
import type { Bench } from '../commands/command';
import { passShown, selected } from '../openTune/openTuneSlice';
import { useAppDispatch } from '../store/store';
import { focusScore } from './focus';

export interface Mends {
  readonly show: (finding: Finding) => void;
  readonly preview: (mend: Mend | null, finding: Finding) => void;
  readonly make: (mend: Mend, finding: Finding) => void;
}

/** Findings shown in the score; their mends looked at beforehand and made. */
export function useMends({ tune, edit }: Bench, preview: (next: Tune | null) => void): Mends {
  const dispatch = useAppDispatch();
  return {
    show: ({ spot, ids }) => {
      dispatch(passShown({ part: spot.part, pass: spot.pass }));
      dispatch(selected({ anchor: ids[0]!, focus: ids[ids.length - 1]! }));
      document.querySelector(`[data-note="${ids[0]!}"]`)?.scrollIntoView({ block: 'nearest' });
    },
    preview: (mend, finding) => {
      // Bar lines and lengths drawn otherwise are another page: only what stays on this one is shown beforehand.
      const isShown = mend && mend.deed !== 'rebar' && mend.deed !== 'fit-last-note';
      preview(isShown ? mendTune(tune, mend, finding) : null);
    },
    make: (mend, finding) => {
      preview(null);
      // The finding goes with its button: the keys go back to the score, so that undo and the like still answer.
      flushSync(() => edit(mendTune(tune, mend, finding), mendLabel(mend, finding)));
      focusScore();
    },
  };
}
