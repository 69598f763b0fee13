import { expose, transfer } from 'comlink';
import { reportTune } from '#core/report';
import { choosePlace, mistakeAt, simulateInBlocks } from '#core/simulatedPlayer';
import { checkInBlocks, checkTake, expectedOf, Listener } from '#core/take';
import type { HearWorker, TakeSubject } from './hearProtocol';
import { takeResult } from './takeResult';

const SAMPLE_RATE = 44100;
/** A sample this near full scale has been cut off. */
const FULL = 0.999;
const TELL_SHARE = 0.02;

const reportOf = ({ tune, settings, bpm }: TakeSubject) => reportTune(tune, { ...settings, bpm });

/** Goes through all steps, telling now and then how far it is. */
function through<T>(steps: Generator<number, T>, onDone: (share: number) => void): T {
  let told = 0;
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (step.value - told < TELL_SHARE) continue;
    told = step.value;
    onDone(told);
  }
}

const clippedOf = (samples: Float32Array) =>
  samples.reduce((count, value) => (value >= FULL || value <= -FULL ? count + 1 : count), 0) /
  Math.max(1, samples.length);

let open: { readonly subject: TakeSubject; readonly listener: Listener; readonly bpm: number } | null = null;
let full = 0;
let count = 0;
let rate = SAMPLE_RATE;

expose({
  check: async (subject, { samples, sampleRate }, onDone) => {
    const report = reportOf(subject);
    const { thresholds, reference, drill } = subject;
    const options = { sampleRate, bpm: report.settings.bpm, thresholds, reference, drill };
    const steps = checkInBlocks(samples, expectedOf(report, subject), options);
    return takeResult(through(steps, onDone), samples.length / sampleRate, clippedOf(samples));
  },
  simulate: async (subject, { player, mistakes, signalToNoise, room, seed }, onDone) => {
    const report = reportOf(subject);
    const span = subject.span ?? undefined;
    const made = mistakes.flatMap((kind, i) => {
      const index = choosePlace(report, kind, seed + i, span);
      return index === null ? [] : [mistakeAt(kind, index)];
    });
    const options = {
      player,
      mistakes: made,
      signalToNoise,
      room,
      seed,
      span,
      loops: subject.loops,
      sampleRate: SAMPLE_RATE,
    };
    // The fiddle it plays is tuned as the player's is.
    const { samples } = through(simulateInBlocks(report, { ...options, a4: subject.a4 }), onDone);
    return transfer({ samples, sampleRate: SAMPLE_RATE }, [samples.buffer as ArrayBuffer]);
  },
  begin: async (subject, sampleRate) => {
    const report = reportOf(subject);
    const listener = new Listener(expectedOf(report, subject), { sampleRate });
    open = { subject, listener, bpm: report.settings.bpm };
    rate = sampleRate;
    [full, count] = [0, 0];
  },
  push: async (block) => {
    if (!open) throw new Error('nothing is listened to');
    open.listener.push(block);
    full += clippedOf(block) * block.length;
    count += block.length;
    return { level: open.listener.level, isOver: open.listener.isOver };
  },
  end: async () => {
    if (!open) throw new Error('nothing is listened to');
    const { listener, bpm, subject } = open;
    open = null;
    return takeResult(checkTake(listener, bpm, subject), count / rate, full / Math.max(1, count));
  },
} satisfies HearWorker);
