/** A click is this long, seconds, and so loud. */
const CLICK = { seconds: 0.03, level: 0.2, first: 1500, other: 1000 } as const;

/** Clicks so many beats, the first one higher, and settles when the next beat would come; at once when it is stopped. */
export function countIn(beats: number, secondsPerBeat: number, signal: AbortSignal): Promise<void> {
  let context: AudioContext | null = null;
  try {
    context = new AudioContext();
    void context.resume();
    const begins = context.currentTime + 0.02;
    for (let beat = 0; beat < beats; beat++) {
      const tone = context.createOscillator();
      const level = context.createGain();
      const at = begins + beat * secondsPerBeat;
      tone.frequency.value = beat === 0 ? CLICK.first : CLICK.other;
      level.gain.setValueAtTime(CLICK.level, at);
      level.gain.exponentialRampToValueAtTime(0.001, at + CLICK.seconds);
      tone.connect(level).connect(context.destination);
      tone.start(at);
      tone.stop(at + CLICK.seconds);
    }
  } catch {
    // Without a sound device it is counted in silence.
  }
  return waited(1000 * beats * secondsPerBeat, signal).finally(() => void context?.close().catch(() => undefined));
}

/** Settles after a while, or rejects when it is stopped. */
export function waited(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    });
  });
}
