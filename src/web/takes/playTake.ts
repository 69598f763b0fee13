import { type KeptTake, soundOf } from './keptTakes';
import { tellPlaying } from './shownTake';

let stopNow: (() => void) | null = null;

/** Plays a kept take from a second of it on; what sounded before stops. False where it cannot be heard. */
export async function playTake(take: KeptTake, from = 0): Promise<boolean> {
  stopTake();
  const samples = await soundOf(take.id);
  if (!samples) return false;
  const context = new AudioContext();
  const buffer = context.createBuffer(1, samples.length, take.sampleRate);
  buffer.copyToChannel(Float32Array.from(samples), 0);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(context.destination);
  // Without a sound device a clock of our own goes on, so that the plan is still followed.
  const began = performance.now();
  void context.resume();
  source.start(0, from);
  const timer = setTimeout(() => stopTake(), 1000 * Math.max(0, buffer.duration - from));
  stopNow = () => {
    clearTimeout(timer);
    void context.close().catch(() => undefined);
    tellPlaying(null);
  };
  tellPlaying({ time: () => from + (performance.now() - began) / 1000 });
  return true;
}

export function stopTake(): void {
  const stop = stopNow;
  stopNow = null;
  stop?.();
}
