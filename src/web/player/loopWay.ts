import { loopVerdict } from '#core/bowing';
import type { TuneReport } from '#core/report';
import type { Span } from './span';

/** How a loop comes back to its beginning: on the same bow, by a retake, the other way round each time, or by neither. */
export type LoopWay = 'round' | 'retake' | 'both-ways' | 'flips';

/** What is done about a loop: one that flips gets a retake, or goes both ways in turn where passages are learned so. */
export function loopWay({ unrolled, figures, settings }: TuneReport, span: Span | null): LoopWay {
  const from = span?.from ?? 0;
  const to = (span?.to ?? unrolled.notes.length) - 1;
  if (to < from) return 'round';
  const { comesRound, retakeHelps } = loopVerdict(unrolled, figures.bowed, from, to);
  if (comesRound) return 'round';
  if (settings.schools.learning === 'both-directions') return 'both-ways';
  return retakeHelps ? 'retake' : 'flips';
}
