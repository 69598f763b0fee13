import { Noise } from './noise';
import { RingingString } from './ringingString';
import type { Click, Pluck } from './soundPlan';

interface PluckSound {
  readonly seconds: number;
  readonly level: number;
  /** Share of the way to the noise that the plectrum goes in a sample: less is softer. */
  readonly softness: number;
  /** After this it is damped, the chord on the offbeat short. */
  readonly damped: number;
}

const SOUNDS: Readonly<Record<Pluck['kind'], PluckSound>> = {
  bass: { seconds: 1.4, level: 0.5, softness: 0.12, damped: 0.6 },
  chord: { seconds: 0.7, level: 0.22, softness: 0.35, damped: 0.14 },
};
const DAMPED_SECONDS = 0.12;
/** After so long it has died away by more than 80 dB. */
const GONE_SECONDS = 0.2;
/** Strings that may ring at once; the oldest makes room. */
const VOICES = 8;

interface Voice {
  readonly string: RingingString;
  readonly sound: PluckSound;
  readonly noise: Noise;
  readonly period: number;
  age: number;
  soft: number;
}

/** Plucked strings that play bass and chords. */
export class Backing {
  private voices: Voice[] = [];

  constructor(private readonly sampleRate: number) {}

  pluck({ hertz, kind }: Pluck, seed: number): void {
    const sound = SOUNDS[kind];
    if (this.voices.length === VOICES) this.voices.shift();
    this.voices.push({
      string: new RingingString(hertz, sound.seconds, this.sampleRate),
      sound,
      noise: new Noise(seed),
      period: Math.round(this.sampleRate / hertz),
      age: 0,
      soft: 0,
    });
  }

  next(): number {
    let sum = 0;
    for (let i = 0; i < this.voices.length; i++) {
      const voice = this.voices[i]!;
      let struck = 0;
      if (voice.age < voice.period) {
        voice.soft += (voice.noise.next() - voice.soft) * voice.sound.softness;
        struck = voice.soft;
      }
      if (voice.age === Math.round(voice.sound.damped * this.sampleRate)) voice.string.ringFor(DAMPED_SECONDS);
      sum += voice.sound.level * voice.string.next(struck);
      voice.age += 1;
    }
    // Once a voice has died away it is let go.
    const first = this.voices[0];
    if (first && first.age > (first.sound.damped + GONE_SECONDS) * this.sampleRate) this.voices.shift();
    return sum;
  }
}

const CLICKS: Readonly<Record<Click['kind'], { readonly hertz: number; readonly level: number }>> = {
  bar: { hertz: 1760, level: 0.5 },
  beat: { hertz: 1320, level: 0.36 },
  offbeat: { hertz: 990, level: 0.16 },
};
const CLICK_DECAY = 0.009;

/** A short knock on wood. */
export class Clicker {
  private age = Infinity;
  private hertz = 0;
  private level = 0;

  constructor(private readonly sampleRate: number) {}

  click({ kind }: Click): void {
    this.age = 0;
    this.hertz = CLICKS[kind].hertz;
    this.level = CLICKS[kind].level;
  }

  next(): number {
    if (this.age > 12 * CLICK_DECAY * this.sampleRate) return 0;
    const t = this.age / this.sampleRate;
    this.age += 1;
    return this.level * Math.exp(-t / CLICK_DECAY) * Math.sin(2 * Math.PI * this.hertz * t);
  }
}
