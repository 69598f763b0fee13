import { proxy } from 'comlink';
import type { TuneReport } from '#core/report';
import { choosePlace } from '#core/simulatedPlayer';
import { MISTAKE_KINDS, type MistakeKind } from '#core/take';
import { workThread } from '../threads/workerTask';
import { countIn, waited } from './countIn';
import type { HearWorker, TakeSubject } from './hearProtocol';
import { openMicrophone } from './microphone';
import type { TakeResult } from './takeResult';
import { startHearing } from './useRecorder';

/** Who plays while the ladder listens. */
export type LoopSource = 'microphone' | 'simulated';

/** A loop that has not ended by itself is over after so many times its length, and seconds. */
const LONGEST = { times: 1.5, seconds: 1.5 } as const;
/** Blocks of the simulated player come so often, ms. */
const FEED_MS = 50;
/** It makes a mistake in one loop of so many. */
const ONE_IN = 3;

interface LoopOptions {
  readonly source: LoopSource;
  readonly report: TuneReport;
  readonly subject: TakeSubject;
  readonly seed: number;
  readonly signal: AbortSignal;
  readonly onPhase: (phase: 'counting' | 'playing') => void;
  readonly onLevel: (level: number) => void;
}

/** A loop as it was heard, and how long after its end the answer was there, ms. */
export interface HeardLoop {
  readonly result: TakeResult;
  readonly answerMs: number;
}

/**
 * One loop of the ladder that listens: counted in, played, and answered as soon as its end is heard.
 * @throws MicrophoneProblem, or the signal's reason
 */
export async function listenLoop({
  source,
  report,
  subject,
  seed,
  signal,
  onPhase,
  onLevel,
}: LoopOptions): Promise<HeardLoop> {
  const { beat, bpm } = report.settings;
  const bar = report.tune.meter.num / report.tune.meter.den;
  const beats = Math.max(2, Math.round((bar * beat.d) / beat.n));
  const thread = workThread<HearWorker>(startHearing);
  const player = workThread<HearWorker>(startHearing);
  let close: (() => void) | null = null;
  const waiting: Float32Array[] = [];
  let isOpen = false;
  try {
    onPhase('counting');
    const made =
      source === 'simulated'
        ? await player.ask((remote) => remote.simulate(subject, wishOf(report, seed), proxy(silently)), { signal })
        : null;
    const microphone =
      source === 'microphone' ? await openMicrophone(null, (block) => isOpen && waiting.push(block)) : null;
    close = microphone?.close ?? null;
    const sampleRate = made?.sampleRate ?? microphone!.sampleRate;
    await thread.ask((remote) => remote.begin(subject, sampleRate), { signal });
    await countIn(beats, 60 / bpm, signal);
    onPhase('playing');
    isOpen = true;
    const began = performance.now();
    const seconds = report.timing.total;
    let fed = 0;
    for (;;) {
      await waited(FEED_MS, signal);
      const gone = (performance.now() - began) / 1000;
      if (made) {
        const until = Math.min(made.samples.length, Math.floor(gone * sampleRate));
        if (until > fed) waiting.push(made.samples.slice(fed, until));
        fed = until;
      }
      let isOver = gone > LONGEST.times * seconds + LONGEST.seconds;
      for (let block = waiting.shift(); block; block = waiting.shift()) {
        const own = block;
        const told = await thread.ask((remote) => remote.push(own), { signal });
        onLevel(told.level);
        isOver ||= told.isOver;
      }
      if (!isOver) continue;
      const ended = performance.now();
      const result = await thread.ask((remote) => remote.end(), { signal });
      return { result, answerMs: performance.now() - ended };
    }
  } finally {
    close?.();
    thread.end();
    player.end();
  }
}

const silently = () => undefined;

function wishOf(report: TuneReport, seed: number) {
  const possible = MISTAKE_KINDS.filter((kind) => kind !== 'wrong-pass' && choosePlace(report, kind, seed) !== null);
  const mistakes: readonly MistakeKind[] =
    seed % ONE_IN === 0 && possible.length > 0 ? [possible[seed % possible.length]!] : [];
  return { player: 'steady', mistakes, signalToNoise: 38, room: 0.15, seed } as const;
}
