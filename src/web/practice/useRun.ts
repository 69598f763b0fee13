import { useCallback, useEffect, useRef, useState } from 'react';
import type { Attempt, Pain, Wrong } from '#contract/log';
import { beginRun, hurt, putTogether, type Run, runRepeated, stopped, takenApart } from '#core/practice';
import type { TuneReport } from '#core/report';
import type { QueueState } from '../log/attemptQueue';
import { useAttemptQueue } from '../log/useAttemptQueue';
import type { RunChoices } from './runChoices';
import type { RunItem } from './runItem';

/** A repetition takes no longer than this: who goes away is not practising. In minutes. */
const LONGEST = 3;

export interface Running {
  readonly run: Run;
  /** Stage of a drill, from 0. */
  readonly stage: number;
  readonly isDone: boolean;
  /** Clean repetitions of a drill's stage in a row. */
  readonly stageCleans: number;
  /** The last repetition, where it is in the log: what went wrong in it can be told. */
  readonly last: Attempt | null;
  readonly count: number;
  readonly repeat: (isClean: boolean, heard?: HeardRepetition) => void;
  /** What went wrong in the last repetition. */
  readonly tellWrong: (wrong: Wrong) => void;
  /** Takes the last repetition back. */
  readonly takeBack: () => void;
  readonly apart: () => void;
  readonly together: () => void;
  /** Something hurts; null: it is better. */
  readonly hurts: (pain: Pain | null) => void;
  readonly stop: () => void;
  readonly queue: QueueState;
}

/** What a listener said of a repetition, and what went wrong by that. */
export interface HeardRepetition {
  readonly note: string;
  readonly wrong: Wrong | null;
  /** The player played it, and not a simulated one: it belongs into the log. */
  readonly isOwn: boolean;
}

interface Step {
  readonly run: Run;
  readonly stage: number;
  readonly stageCleans: number;
}

/** A repetition that can be taken back. */
interface Past {
  readonly step: Step;
  readonly attempt: Attempt;
  readonly isLogged: boolean;
}

/** A run and its log: each repetition is in the log before the next is counted. */
export function useRun(
  item: RunItem,
  report: TuneReport,
  tune: { readonly id: string; readonly revision: number },
  choices: RunChoices,
  { isResting, isHeld }: { readonly isResting: boolean; readonly isHeld: boolean },
): Running {
  const { queue, state: queued } = useAttemptQueue();
  const [step, setStep] = useState<Step>(() => ({
    run: hurt(
      beginRun(item.stretch, {
        ...ladderOf(choices),
        ...(item.what === 'run-through' ? { cleanInARow: 1 } : {}),
        wishBpm: item.wishBpm,
        startBpm: item.startBpm,
        known: item.known,
      }),
      isResting,
      isHeld,
    ),
    stage: 0,
    stageCleans: 0,
  }));
  const [past, setPast] = useState<readonly Past[]>([]);
  const since = useRef(0);
  useEffect(() => {
    since.current = Date.now();
  }, []);
  const stages = item.drill?.stages ?? null;
  const isDone = step.run.ladder.ended !== null || (stages !== null && step.stage >= stages.length);

  /** What the log is told of the time since the last entry. */
  const entry = (isClean: boolean, pain: Pain | null): Attempt => {
    const now = Date.now();
    const minutes = Math.min(LONGEST, (now - since.current) / 60_000);
    since.current = now;
    return {
      id: crypto.randomUUID(),
      at: new Date(now).toISOString(),
      tuneId: tune.id,
      title: report.tune.title,
      revision: tune.revision,
      span: item.span,
      what: step.run.cell ? 'cell' : item.what,
      drill: item.drill?.kind ?? null,
      layer: choices.layer,
      way: stages?.[step.stage]?.way ?? choices.way,
      bpm: stages?.[step.stage]?.bpm ?? step.run.ladder.bpm,
      wishBpm: stages?.[step.stage]?.bpm ?? item.wishBpm,
      clean: isClean,
      wrong: null,
      minutes,
      note: '',
      pain,
      corrects: null,
      isWithdrawn: false,
    };
  };
  const repeat: Running['repeat'] = (isClean, heard) => {
    if (isDone || step.run.hurts) return;
    const { note = '', wrong = null, isOwn = true } = heard ?? {};
    const attempt = { ...entry(isClean, null), note, wrong };
    if (isOwn) void queue.add(attempt);
    setPast([...past, { step, attempt, isLogged: isOwn }]);
    setStep(nextStep(withChoices(step, choices, item), isClean, attempt.minutes, item, report));
  };
  const correct = useCallback(
    (attempt: Attempt, more: Partial<Attempt>): Attempt => {
      const corrected = { ...attempt, ...more, id: crypto.randomUUID(), corrects: attempt.id };
      void queue.add(corrected);
      return corrected;
    },
    [queue],
  );
  const tellWrong = (wrong: Wrong) => {
    const last = past[past.length - 1];
    if (!last?.isLogged || last.attempt.clean) return;
    setPast([...past.slice(0, -1), { ...last, attempt: correct(last.attempt, { wrong }) }]);
  };
  const takeBack = () => {
    const last = past[past.length - 1];
    if (!last) return;
    if (last.isLogged) correct(last.attempt, { isWithdrawn: true });
    setStep(last.step);
    setPast(past.slice(0, -1));
  };
  const change = (run: Run) => setStep({ ...step, run });
  const lastPast = past[past.length - 1];
  return {
    run: step.run,
    stage: step.stage,
    stageCleans: step.stageCleans,
    isDone,
    last: lastPast?.isLogged ? lastPast.attempt : null,
    count: past.length,
    repeat,
    tellWrong,
    takeBack,
    apart: () => item.at !== null && change(takenApart(step.run, report, item.at)),
    together: () => change(putTogether(step.run)),
    hurts: (pain) => {
      if (pain) void queue.add(entry(false, pain));
      change(hurt(step.run, pain !== null, isHeld));
    },
    stop: () => change(stopped(step.run)),
    queue: queued,
  };
}

const ladderOf = ({ cleanInARow, stepPercent, capMinutes }: RunChoices) => ({ cleanInARow, stepPercent, capMinutes });

/** What was chosen meanwhile holds from now on; a run-through is played once. */
function withChoices(step: Step, choices: RunChoices, { what }: RunItem): Step {
  const { ladder } = step.run;
  const chosen = { ...ladderOf(choices), ...(what === 'run-through' ? { cleanInARow: 1 } : {}) };
  return { ...step, run: { ...step.run, ladder: { ...ladder, wish: { ...ladder.wish, ...chosen } } } };
}

/** A drill goes on to its next stage after so many clean ones in a row; everything else has its ladder. */
function nextStep(step: Step, isClean: boolean, minutes: number, item: RunItem, report: TuneReport): Step {
  if (item.drill) {
    const cleans = isClean ? step.stageCleans + 1 : 0;
    const passes = cleans >= (item.drill.stages[step.stage]?.clean ?? 1);
    return { ...step, stage: passes ? step.stage + 1 : step.stage, stageCleans: passes ? 0 : cleans };
  }
  return { ...step, run: runRepeated(step.run, isClean, minutes, { report, at: item.at }) };
}
