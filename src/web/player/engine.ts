import workletUrl from './fiddle.worklet.ts?worker&url';
import type { FromFiddle, ToFiddle } from './programme';
import { Transport } from './transport';

/** Plays what it is told and says where it is. */
export interface Engine {
  /** Nothing is heard: there is no sound device, and a clock goes on instead. */
  readonly isSilent: boolean;
  tell(message: ToFiddle): void;
  /** What is heard now, by the engine's own clock: behind what is made by the device's delay. */
  heard(): number;
  close(): void;
}

/** A device that has not begun to play after this long is none. */
const DEVICE_MS = 1500;
const SILENT_STEP_MS = 20;
/** Sound made ahead: enough for a busy machine, and an edit is still heard well within a beat. */
const BUFFER_SECONDS = 0.1;

/**
 * The fiddle on the audio thread, or a clock where there is no sound device. Asked for upon a user's action, since
 * browsers begin no sound otherwise.
 */
export async function startEngine(onReport: (report: FromFiddle) => void): Promise<Engine> {
  const sounding = await soundingEngine(onReport).catch(() => null);
  return sounding ?? silentEngine(onReport);
}

async function soundingEngine(onReport: (report: FromFiddle) => void): Promise<Engine | null> {
  const context = new AudioContext({ latencyHint: BUFFER_SECONDS });
  const close = () => void context.close().catch(() => undefined);
  try {
    await Promise.race([context.resume(), after(DEVICE_MS)]);
    await context.audioWorklet.addModule(workletUrl);
    if (!(await isRunning(context))) throw new Error('no sound device');
    const node = new AudioWorkletNode(context, 'fiddle', { numberOfInputs: 0, outputChannelCount: [2] });
    node.port.onmessage = ({ data }: MessageEvent<FromFiddle>) => onReport(data);
    node.connect(context.destination);
    return {
      isSilent: false,
      tell: (message) => {
        void context.resume();
        node.port.postMessage(message);
      },
      heard: () => heardBy(context),
      close,
    };
  } catch (error) {
    close();
    throw error;
  }
}

/** A context without a device never comes to run, or its time stands still. */
async function isRunning(context: AudioContext): Promise<boolean> {
  const from = context.currentTime;
  for (let waited = 0; waited < DEVICE_MS; waited += 50) {
    if (context.state === 'running' && context.currentTime > from) return true;
    await after(50);
  }
  return false;
}

function heardBy(context: AudioContext): number {
  const { contextTime, performanceTime } = context.getOutputTimestamp();
  if (contextTime && performanceTime) return contextTime + (performance.now() - performanceTime) / 1000;
  return context.currentTime - (context.outputLatency || context.baseLatency || 0);
}

function silentEngine(onReport: (report: FromFiddle) => void): Engine {
  const transport = new Transport();
  let last = performance.now();
  const step = () => {
    const now = performance.now();
    if (transport.isPlaying) {
      transport.pass((now - last) / 1000);
      onReport(transport.report(now / 1000));
    }
    last = now;
  };
  const timer = setInterval(step, SILENT_STEP_MS);
  return {
    isSilent: true,
    tell: (message) => {
      step();
      transport.tell(message);
      onReport(transport.report(performance.now() / 1000));
    },
    heard: () => performance.now() / 1000,
    close: () => clearInterval(timer),
  };
}

const after = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
