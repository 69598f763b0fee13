import { type Balance, Fiddle, FULL_BALANCE } from '#core/sound';
import type { ToFiddle } from './programme';
import { Transport } from './transport';

/** What the audio thread offers to its processors. */
declare const sampleRate: number;
/** Of the first sample of the block that is being made. */
declare const currentTime: number;
declare function registerProcessor(name: string, processor: new (options: NodeOptions) => AudioProcessor): void;
declare class AudioProcessor {
  readonly port: MessagePort;
}
declare const AudioWorkletProcessor: typeof AudioProcessor;
interface NodeOptions {
  /** Told before the first sample. */
  readonly processorOptions?: { readonly first?: ToFiddle };
}

/** A new plan comes in while the old one goes out. */
const FADE_SECONDS = 0.03;
/** What rings after the last note dies away in this time. */
const RING_OUT_SECONDS = 1.2;
/** The page is told where it is after so many blocks. */
const TELL_BLOCKS = 8;
/** Sound that is behind the clock by so much more than it ever was has not been ready in time. */
const LATE_MS = 60;

/** Plays plans on the audio thread: the same fiddle as everywhere, with the transport telling what and where. */
class FiddleProcessor extends AudioWorkletProcessor {
  private readonly transport = new Transport();
  private fiddle: Fiddle | null = null;
  private leaving: Fiddle | null = null;
  private faded = 1;
  private fadeSeconds = FADE_SECONDS;
  private balance: Balance = FULL_BALANCE;
  private block = 0;
  private frames = 0;
  private began = 0;
  private latest = 0;
  private underruns = 0;
  private readonly spare = new Float32Array(4096);

  constructor({ processorOptions }: NodeOptions) {
    super();
    this.port.onmessage = ({ data }: MessageEvent<ToFiddle>) => this.tell(data);
    if (processorOptions?.first) {
      this.tell(processorOptions.first);
      this.faded = 1;
    }
  }

  private tell(message: ToFiddle): void {
    if (message.kind === 'balance') this.balance = message.balance;
    const wasPlaying = this.transport.isPlaying;
    if (wasPlaying && this.fiddle) this.transport.time = this.fiddle.time;
    if (this.transport.tell(message)) this.change(wasPlaying ? FADE_SECONDS : 0);
    if (!wasPlaying) this.began = 0;
    if (this.fiddle) this.fiddle.balance = this.balance;
    this.say(currentTime);
  }

  private say(clock: number): void {
    this.port.postMessage(this.transport.report(clock, this.underruns));
  }

  /** The fiddle that plays what the transport has now; the one before is faded out. */
  private change(fadeSeconds: number): void {
    this.leaving = this.fiddle;
    this.faded = fadeSeconds > 0 ? 0 : 1;
    this.fadeSeconds = fadeSeconds;
    const { playing, time } = this.transport;
    this.fiddle = playing && new Fiddle(playing.plan, sampleRate);
    if (!this.fiddle) return;
    this.fiddle.balance = this.balance;
    this.fiddle.seek(time);
  }

  process(_inputs: Float32Array[][], [output]: Float32Array[][]): boolean {
    const out = output![0]!;
    this.countUnderruns(out.length);
    let at = 0;
    while (at < out.length && this.fiddle) {
      this.transport.time = this.fiddle.time;
      const left = Math.round(this.transport.untilTurn * sampleRate);
      if (left > 0) {
        const to = Math.min(out.length, at + left);
        this.fiddle.next(out.subarray(at, to));
        at = to;
      } else this.turn(currentTime + at / sampleRate);
    }
    out.fill(0, at);
    this.fade(out);
    for (let channel = 1; channel < output!.length; channel++) output![channel]!.set(out);
    if (this.fiddle) this.transport.time = this.fiddle.time;
    if (++this.block % TELL_BLOCKS === 0 && this.transport.isPlaying) this.say(currentTime + out.length / sampleRate);
    return true;
  }

  /** The same plan goes back and rings on; another takes over. */
  private turn(clock: number): void {
    const before = this.transport.playing;
    this.transport.turn();
    if (this.transport.playing === before) this.fiddle!.seek(this.transport.time);
    else this.change(this.transport.isPlaying ? FADE_SECONDS : RING_OUT_SECONDS);
    this.say(clock);
  }

  private fade(out: Float32Array): void {
    if (this.faded >= 1) return;
    const step = 1 / (this.fadeSeconds * sampleRate);
    const old = this.spare.subarray(0, out.length);
    if (this.leaving) this.leaving.next(old);
    else old.fill(0);
    for (let i = 0; i < out.length; i++) {
      this.faded = Math.min(1, this.faded + step);
      out[i] = out[i]! * this.faded + old[i]! * (1 - this.faded);
    }
    if (this.faded >= 1) this.leaving = null;
  }

  /** Sound goes on by its samples, the clock by itself: where it falls behind, the device had nothing to play. */
  private countUnderruns(length: number): void {
    if (!this.transport.isPlaying) {
      this.began = 0;
      return;
    }
    const now = Date.now();
    if (this.began === 0) {
      this.began = now;
      this.frames = 0;
      this.latest = LATE_MS;
    }
    const late = now - this.began - (1000 * this.frames) / sampleRate;
    if (late > this.latest) {
      this.underruns += 1;
      this.latest = late + LATE_MS;
    }
    this.frames += length;
  }
}

registerProcessor('fiddle', FiddleProcessor);
