import { loopVerdict } from '#core/bowing';
import type { NoteState } from '#core/noteStates';
import type { TuneReport } from '#core/report';
import { counted } from './plural';

/** What becomes of a selection that is played over and over; null where it is no stretch of one pass. */
export function loopWords(
  { unrolled, figures, settings }: TuneReport,
  states: ReadonlyMap<string, NoteState>,
  ids: readonly string[],
): string | null {
  const [first, last] = [states.get(ids[0] ?? ''), states.get(ids[ids.length - 1] ?? '')];
  if (ids.length < 2 || !first || !last || first.passIndex !== last.passIndex || first.index > last.index) return null;
  const { turns, strokes, comesRound, retakeHelps, again } = loopVerdict(
    unrolled,
    figures.bowed,
    first.index,
    last.index,
  );
  const looped = `looped: ${counted(strokes, 'stroke')}, ${counted(turns, 'turn')}`;
  if (comesRound) return `${looped}, comes round`;
  if (settings.schools.learning === 'both-directions') return `${looped}, goes both ways in turn`;
  return `${looped}, flips to the ${again}-bow each time${retakeHelps ? ': retake on the way back' : ''}`;
}
