import { useMemo } from 'react';
import type { NoteState } from '#core/noteStates';
import type { Bench } from '../commands/command';
import { loopWay } from '../player/loopWay';
import { spanOf } from '../player/spans';
import type { Listening } from '../player/usePlayer';

/** The states as they are bowed while a loop is heard: one that flips begins with a retake, which is then seen. */
export function useLoopedStates(
  { report, states, ids, open: { passInView } }: Bench,
  { settings, state }: Listening,
): ReadonlyMap<string, NoteState> {
  const isLooping = state.status === 'playing' && settings.loop;
  return useMemo(() => {
    if (!isLooping) return states;
    const span = spanOf(report, ids, passInView, true);
    if (loopWay(report, span) !== 'retake') return states;
    const first = report.unrolled.notes[span?.from ?? 0]!.note.id;
    const shown = states.get(first);
    return shown ? new Map([...states, [first, { ...shown, link: 'retake' }]]) : states;
  }, [isLooping, states, report, ids, passInView]);
}
