import { Minus, Plus } from 'lucide-react';
import { SignButton } from '../ui/Button';
import { PRACTICE, practiceStep } from './practiceTempo';
import type { Listening } from './usePlayer';

interface PracticeTempoProps {
  readonly listening: Pick<Listening, 'practice' | 'setPractice' | 'state'>;
  /** The tempo wanted, of which it is so many percent. */
  readonly goalBpm: number;
  readonly beatWords: string;
}

/** How fast the tune is heard, in percent of the goal: it changes nothing in the plan. */
export function PracticeTempo({ listening, goalBpm, beatWords }: PracticeTempoProps) {
  const { practice, setPractice, state } = listening;
  const heard = state.bpm ?? (goalBpm * practice) / 100;
  return (
    <div className="flex items-center" role="group" aria-label="Practice tempo: how fast you hear it">
      <SignButton
        label={`Hear it ${PRACTICE.step} % slower ([)`}
        disabled={practice <= PRACTICE.min}
        onClick={() => setPractice(practiceStep(practice, -1))}
      >
        <Minus size={16} aria-hidden />
      </SignButton>
      <button
        type="button"
        className="w-19 rounded-md py-0.5 text-center leading-tight hover:bg-band disabled:hover:bg-transparent"
        title={practice === PRACTICE.goal ? 'Heard at the goal' : 'Back to 100 %'}
        disabled={practice === PRACTICE.goal}
        onClick={() => setPractice(PRACTICE.goal)}
        data-practice={practice}
      >
        <span className="block text-fine text-muted">practice</span>
        <b>{practice} %</b> <span className="text-hint text-muted">{Math.round(heard)}</span>
        <span className="sr-only">
          {' '}
          of the goal, {Math.round(heard)} {beatWords} a minute
        </span>
      </button>
      <SignButton
        label={`Hear it ${PRACTICE.step} % faster (])`}
        disabled={practice >= PRACTICE.max}
        onClick={() => setPractice(practiceStep(practice, 1))}
      >
        <Plus size={16} aria-hidden />
      </SignButton>
    </div>
  );
}
