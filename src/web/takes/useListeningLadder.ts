import { useEffect, useRef, useState } from 'react';
import type { DrillKind } from '#core/drills';
import type { TuneReport } from '#core/report';
import type { TakeFinding } from '#core/take';
import { barWords, capitalised, countWords } from '#words/spot';
import { mistakeWords, rowWords, takeVerdict } from '#words/take';
import { listenLoop, type LoopSource } from './listenLoop';
import { MICROPHONE_WORDS, MicrophoneProblem } from './microphone';
import { mattersMost, type TakeResult } from './takeResult';
import { useTakeSubject } from './useTakeSubject';

/** After an answer the next loop is counted in so much later, ms. */
const REST_MS = 1400;
/** So often in a row nothing is heard before it stops by itself. */
const SILENT_LOOPS = 2;

export interface ListeningLadder {
  readonly isOn: boolean;
  /** The simulated player plays. */
  readonly isShown: boolean;
  readonly phase: 'off' | 'counting' | 'playing' | 'told';
  readonly level: number;
  /** What is said of the last loop, in a short line; null before. */
  readonly said: string | null;
  readonly isClean: boolean;
  /** A drill's own figures. */
  readonly rows: readonly string[];
  /** The last loop as it was heard, and of what; null before. */
  readonly heard: { readonly result: TakeResult; readonly report: TuneReport } | null;
  readonly problem: string | null;
  readonly start: (source: LoopSource) => void;
  readonly stop: () => void;
}

interface LadderOptions {
  /** The loop that is played, at the tempo of now. */
  readonly report: TuneReport;
  readonly drill: DrillKind | null;
  readonly isDone: boolean;
  /** What was heard goes to the log, and the ladder moves. */
  readonly onHeard: (isClean: boolean, result: TakeResult, source: LoopSource) => void;
  readonly speaks: boolean;
}

/** Loops by ear, hands-free: counted in, played, answered, logged, and on at the ladder's next tempo. */
export function useListeningLadder({ report, drill, isDone, onHeard, speaks }: LadderOptions): ListeningLadder {
  const [source, setSource] = useState<LoopSource | null>(null);
  const [loop, setLoop] = useState(0);
  const [state, setState] =
    useState<Pick<ListeningLadder, 'phase' | 'level' | 'said' | 'isClean' | 'rows' | 'heard' | 'problem'>>(OFF);
  const subjectOf = useTakeSubject(report, null, { drill });
  // What a loop is begun with is what holds then.
  const now = useRef({ report, subjectOf, onHeard, speaks });
  useEffect(() => {
    now.current = { report, subjectOf, onHeard, speaks };
  });
  const silent = useRef(0);
  const isOn = source !== null && !isDone;
  useEffect(() => {
    if (!isOn) return;
    const own = new AbortController();
    const change = (more: Partial<typeof state>) =>
      !own.signal.aborted && setState((before) => ({ ...before, ...more }));
    const once = async () => {
      const { report: played, subjectOf: subject } = now.current;
      const { result } = await listenLoop({
        source: source!,
        report: played,
        subject: await subject(),
        seed: loop + 1,
        signal: own.signal,
        onPhase: (phase) => change({ phase, level: -100 }),
        onLevel: (level) => change({ level }),
      });
      if (own.signal.aborted) return;
      if (result.figures.heardNotes === 0) {
        silent.current += 1;
        if (silent.current >= SILENT_LOOPS) {
          setSource(null);
          setState({ ...OFF, problem: 'Nothing was heard twice, so it stopped listening. Nothing was logged.' });
          return;
        }
        change({ phase: 'told', said: 'Nothing heard. Once more.', isClean: false, rows: [] });
      } else {
        silent.current = 0;
        const most = mattersMost(result.findings);
        const said = most
          ? placedWords(most, played)
          : takeVerdict(result.clean, 0, result.figures.heardNotes, result.figures.notes);
        change({
          phase: 'told',
          said,
          isClean: result.clean,
          rows: result.rows.map(rowWords),
          heard: { result, report: played },
        });
        if (now.current.speaks) speechSynthesis.speak(new SpeechSynthesisUtterance(said));
        now.current.onHeard(result.clean, result, source!);
      }
      setTimeout(() => !own.signal.aborted && setLoop((count) => count + 1), REST_MS);
    };
    once().catch((error: unknown) => {
      if (own.signal.aborted) return;
      setSource(null);
      const words =
        error instanceof MicrophoneProblem ? MICROPHONE_WORDS[error.fault] : 'Listening broke off. Nothing was logged.';
      setState({ ...OFF, problem: words });
    });
    return () => own.abort();
  }, [isOn, source, loop]);
  return {
    ...state,
    phase: isOn ? state.phase : 'off',
    isOn,
    isShown: source === 'simulated',
    start: (from) => {
      silent.current = 0;
      setState({ ...OFF, phase: 'counting' });
      setSource(from);
    },
    stop: () => setSource(null),
  };
}

const OFF = { phase: 'off', level: -100, said: null, isClean: false, rows: [], heard: null, problem: null } as const;

/** What went wrong, and where in the loop. */
function placedWords(finding: TakeFinding, { unrolled }: TuneReport): string {
  const played = unrolled.notes[finding.notes[0]!];
  const words = `${mistakeWords(finding)}.`;
  return played ? `${capitalised(`${barWords(played)}, ${countWords(played)}`)}: ${words}` : capitalised(words);
}
