import { setLinks, setLocks } from '#core/bowing';
import { rebar } from '#core/editing';
import type { Tune } from '#core/tune';
import { withNoteEdits } from './edits';
import type { Finding } from './finding';
import type { Mend } from './mend';

/** Slowest tempo that a mend sets. */
const MIN_MENDED_BPM = 10;

/** The tune with a mend of one of its findings made: what the mend promises, the report of this tune has. */
export function mendTune(tune: Tune, mend: Mend, { ids }: Pick<Finding, 'ids'>): Tune {
  switch (mend.deed) {
    case 'unlock':
      return setLocks(tune, ids, null);
    case 'rebar':
      return rebar(tune, mend.barId);
    case 'start':
      return { ...tune, start: mend.start };
    case 'slower':
      return { ...tune, tempoBpm: Math.max(MIN_MENDED_BPM, Math.floor(mend.ceilingBpm ?? MIN_MENDED_BPM)) };
    case 'split':
    case 'join':
    case 'turn':
    case 'retake':
    case 'make-alike':
      return mend.edits.reduce((edited, { id, link, pass }) => setLinks(edited, new Map([[id, link]]), pass), tune);
    default:
      return withNoteEdits(tune, mend.notes);
  }
}
