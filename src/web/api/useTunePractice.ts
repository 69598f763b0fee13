import { type TunePractice, type TunePracticeRecord, USUAL_PRACTICE } from '#contract/log';
import { useSaveTunePracticeMutation, useTunePracticeQuery } from './logApi';
import { useRecordUndo } from './useRecordUndo';

export interface KeptPractice {
  readonly practice: TunePractice;
  readonly change: (next: TunePractice, label: string) => void;
  readonly steps: ReturnType<typeof useRecordUndo<TunePractice, Pick<TunePracticeRecord, 'revision'>>>;
  readonly error: unknown;
  readonly isReady: boolean;
}

/** How a player wants to practise a tune: own cuts, order and landmarks; each change is a step of undo. */
export function useTunePractice(id: string): KeptPractice {
  const { data: record, isError } = useTunePracticeQuery(id);
  const [save, { error }] = useSaveTunePracticeMutation();
  const practice = record?.practice ?? USUAL_PRACTICE;
  const steps = useRecordUndo<TunePractice, Pick<TunePracticeRecord, 'revision'>>(`practice ${id}`, (change) =>
    save({ id, change }),
  );
  return {
    practice,
    change: (next, label) => void steps.change({ before: practice, next }, label),
    steps,
    error,
    isReady: record !== undefined || isError,
  };
}
