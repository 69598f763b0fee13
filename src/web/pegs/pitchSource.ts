import { type SimulatedFiddle, soundingMidi, soundOf, turnPeg, waitMinutes } from '#core/creep';
import type { Place } from '#core/tune';

/** Samples looked at for one reading, and how often: long enough for the lowest string. */
export const FRAME_SAMPLES = 8192;
export const FRAME_MS = 125;

/** What a pitch is read from: a microphone, or the simulated fiddle played as one would be. */
export interface PitchSource {
  /** Begins to give frames; rejects where there is no microphone or it is refused. */
  start(onFrame: (frame: Float32Array, sampleRate: number, minutes: number) => void): Promise<void>;
  stop(): void;
}

const SIMULATED_RATE = 44_100;

/** The simulated fiddle behind a peg box: it is bowed on one string, its pegs are turned, and time passes for it. */
export class FiddleSource implements PitchSource {
  private timer: ReturnType<typeof setInterval> | undefined;
  private frames = 1;
  /** How much quicker its time goes than ours. */
  speed = 1;

  constructor(
    public fiddle: SimulatedFiddle,
    public bowed: Place,
    private readonly a4: number,
  ) {}

  start(onFrame: (frame: Float32Array, sampleRate: number, minutes: number) => void): Promise<void> {
    this.stop();
    this.timer = setInterval(() => {
      this.fiddle = waitMinutes(this.fiddle, (this.speed * FRAME_MS) / 60_000);
      this.frames += 1;
      const sound = soundOf(soundingMidi(this.fiddle, this.bowed), FRAME_SAMPLES, SIMULATED_RATE, {
        noise: 0.02,
        seed: this.frames,
        a4: this.a4,
      });
      onFrame(sound, SIMULATED_RATE, this.fiddle.minutes);
    }, FRAME_MS);
    return Promise.resolve();
  }

  stop(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }

  turn(place: Place, cents: number): void {
    this.fiddle = turnPeg(this.fiddle, place, cents);
  }
}

/** The real fiddle, through the microphone where the browser allows it. Nothing is recorded. */
export class MicrophoneSource implements PitchSource {
  private timer: ReturnType<typeof setInterval> | undefined;
  private stream: MediaStream | null = null;
  private audio: AudioContext | null = null;
  private isWanted = false;

  async start(onFrame: (frame: Float32Array, sampleRate: number, minutes: number) => void): Promise<void> {
    this.stop();
    // Absent where the page is not served over a safe connection.
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices) throw new Error('This browser does not let pages use the microphone.');
    this.isWanted = true;
    const stream = await devices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
    // The page was left, or another source chosen, while the browser asked: then nothing may go on listening.
    if (!this.isWanted) {
      for (const track of stream.getTracks()) track.stop();
      return;
    }
    this.stream = stream;
    this.audio = new AudioContext();
    const analyser = this.audio.createAnalyser();
    analyser.fftSize = FRAME_SAMPLES;
    this.audio.createMediaStreamSource(stream).connect(analyser);
    const frame = new Float32Array(FRAME_SAMPLES);
    const began = performance.now();
    const { sampleRate } = this.audio;
    this.timer = setInterval(() => {
      analyser.getFloatTimeDomainData(frame);
      onFrame(frame, sampleRate, (performance.now() - began) / 60_000);
    }, FRAME_MS);
  }

  stop(): void {
    this.isWanted = false;
    clearInterval(this.timer);
    this.timer = undefined;
    for (const track of this.stream?.getTracks() ?? []) track.stop();
    this.stream = null;
    void this.audio?.close();
    this.audio = null;
  }
}
