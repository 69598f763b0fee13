import type { Seconds } from '#core/base';
import { Backing, Clicker } from './backing';
import { Body, loudnessTrim } from './body';
import { BowedString } from './bowedString';
import { Noise } from './noise';
import { CONTACT_SECONDS, lagSeconds, type RampedStroke, startedEarly, STOP_RAMP } from './onTime';
import { RingingString } from './ringingString';
import {
  type Accent,
  type Balance,
  type BowStroke,
  type Click,
  type Contact,
  FULL_BALANCE,
  type PitchMove,
  type Pluck,
  type SoundPlan,
  type Swell,
  type Touch,
  type Vibrato,
} from './soundPlan';
import { Timeline } from './timeline';

/** Control is computed anew after so many samples since the beginning, wherever blocks begin. */
const TICK = 16;
const STRINGS = 4;

/** Usual speed of the bow (m/s) and its weight. Its place on an open string is 0.092 of the length. */
const DEFAULT_SPEED = 0.35;
const DEFAULT_FORCE = 0.8;
/** How much a shorter string softens the slip's jump: less than in full proportion. */
const SHORTER_SOFTENS = 0.4;
/** Hiss of the hair beside the tone, about 48 dB under it: it goes through the same rounding, which takes 8 dB of it. */
const BOW_HISS = 0.01;
/** An accent bites: noise 18 dB under the tone for 20 ms, its peak for 30 ms, and then it dies away. */
const ACCENT_HISS = 0.32;
const ACCENT = { noisy: 0.02, held: 0.03, dies: 0.08 } as const;
/** Where a fade ends: so much of its weight, so many times as far from the bridge. Guesses. */
const FADE = { weight: 0.4, outward: 1.5 } as const;
/** Weight at the beginning of a stroke, or in its middle: so many decibels about its level. */
const LEAN_DECIBELS = 1;
/** The excess of weight dies away in this time after a turn. */
const SCRATCH_SECONDS = 0.04;
/** Partials up to so many times the pitch are missing where a string is cloudy. A guess. */
const CLOUDED = 3;
/** What is taken of them so that they come out so much weaker against the higher ones, which lose some as well. Measured. */
const CLOUD_OWN = 2.4;
const FLICK_DAMPING = 0.95;
const FLICK_RAMP = 0.003;
const THUD = { hertz: 170, level: 0.05, decay: 0.012 } as const;
/** Ringing of the open strings, from the lowest. */
const RING_SECONDS = [2.2, 1.8, 1.5, 1.1] as const;
const DAMPED_RING_SECONDS = 0.08;
const RING_INPUT = 0.2;
/** Slow wander of a held tone: amplitude, brightness, cents. */
const DRIFT = { amplitude: 0.08, brightness: 0.12, cents: 0.6, hertz: [0.61, 1.37] } as const;
const TONE = { level: 0.05, partials: [1, 0.5, 0.3, 0.15], attack: 0.05 } as const;
/** One period of the tone in small steps, the first again at its end. */
const TONE_STEPS = 2048;
const TONE_WAVE = Float64Array.from({ length: TONE_STEPS + 1 }, (_, i) =>
  TONE.partials.reduce((sum, part, k) => sum + part * Math.sin((2 * Math.PI * (k + 1) * i) / TONE_STEPS), 0),
);
/** Nothing comes out louder than this. */
const CEILING = 0.92;
const RELEASE_SECONDS = 0.15;

/** What the strings do, before the body: for measuring. */
export interface Taps {
  /** Sum of the bowed strings. */
  readonly bridge?: Float32Array;
  /** Sum of the strings that ring along. */
  readonly ringing?: Float32Array;
}

/**
 * A fiddle that plays a plan, and what sounds with it.
 *
 * Each bowed string has an amplitude of contact · v/0.35 · trim · (0.092/β)^0.4, β = 0.092·f/f_open, since the slip's jump
 * grows with v/β (softened), signed as the bow goes, and follows it with a lag of 1.5 ms + 1.6/f + 3 ms/(0.5 + F). Weight
 * beyond 0.25 + 1.25·(v/0.35)·(0.092/β) scratches, mostly in the first 40 ms of a stroke. Strings drive the body and the
 * open strings that ring along; backing, clicks and tone go past both. A limiter keeps |y| ≤ 0.92.
 *
 * The same plan, seed and sample rate give the same samples, whatever the size of the blocks. About 200 steps a sample.
 */
export class Fiddle {
  private readonly strings = Array.from({ length: STRINGS }, () => new BowedString());
  private readonly rings: RingingString[];
  private readonly body: Body;
  private readonly trim: (hertz: number) => number;
  private readonly noise: Noise;
  private readonly backing: Backing;
  private readonly clicker: Clicker;
  private readonly strokes: Timeline<RampedStroke>;
  private readonly swells: Timeline<Swell>;
  private readonly accents: Timeline<Accent>;
  private readonly contacts: Timeline<Contact>[];
  private readonly pitches: Timeline<PitchMove>[];
  private readonly vibrato: Timeline<Vibrato>[];
  private readonly touches: Timeline<Touch>[];
  private readonly plucks: Timeline<Pluck>;
  private readonly clicks: Timeline<Click>;
  private readonly hertz = new Float64Array(STRINGS);
  private readonly fromHertz = new Float64Array(STRINGS);
  private readonly moves: (PitchMove | null)[] = [null, null, null, null];
  private readonly contact = new Float64Array(STRINGS);
  /** The bow as it was last set; filled anew at each tick, so that nothing is left to collect. */
  private readonly bow = {
    sign: 1 | -1,
    velocity: 0,
    gain: 1,
    hiss: 0,
    since: 0,
    weight: DEFAULT_FORCE,
    outward: 1,
    drift: 0,
  };
  private readonly thuds: number[] = [];
  private sample = 0;
  private pluckCount = 0;
  private tonePhase = 0;
  private toneLevel = 0;
  private peak = 0;

  balance: Balance = FULL_BALANCE;

  constructor(
    private readonly plan: SoundPlan,
    private readonly sampleRate: number,
    seed = 1,
  ) {
    const early = startedEarly(plan);
    this.rings = plan.openHertz.map((hertz, i) => new RingingString(hertz, RING_SECONDS[i]!, sampleRate));
    this.body = new Body(sampleRate);
    this.trim = trimFor(sampleRate);
    this.noise = new Noise(seed);
    this.backing = new Backing(sampleRate);
    this.clicker = new Clicker(sampleRate);
    const from = ({ from: begin }: { readonly from: Seconds }) => begin;
    const at = ({ at: begin }: { readonly at: Seconds }) => begin;
    this.strokes = new Timeline(early.strokes, from);
    this.swells = new Timeline(plan.swells, from);
    this.accents = new Timeline(plan.accents, at);
    this.contacts = early.contacts.map((list) => new Timeline(list, from));
    this.pitches = early.pitches.map((list) => new Timeline(list, at));
    this.vibrato = plan.vibrato.map((list) => new Timeline(list, from));
    this.touches = early.touches.map((list) => new Timeline(list, from));
    this.plucks = new Timeline(plan.plucks, at);
    this.clicks = new Timeline(plan.clicks, at);
    for (const [i, open] of plan.openHertz.entries()) this.hertz[i] = open;
  }

  /** Where it is, in seconds of the plan. */
  get time(): Seconds {
    return this.sample / this.sampleRate;
  }

  /** Goes to a time of the plan; what rings goes on ringing. */
  seek(time: Seconds): void {
    this.sample = TICK * Math.round((time * this.sampleRate) / TICK);
    for (const line of [this.strokes, this.swells, this.accents, this.plucks, this.clicks]) line.seek(time);
    for (const lines of [this.contacts, this.pitches, this.vibrato, this.touches])
      for (const line of lines) line.seek(time);
    this.moves.fill(null);
  }

  /** Writes the next samples into a block. */
  next(block: Float32Array, taps: Taps = {}): void {
    const { strings, rings, noise, body, balance, sampleRate } = this;
    const release = Math.exp(-1 / (RELEASE_SECONDS * sampleRate));
    for (let n = 0; n < block.length; n++) {
      if (this.sample % TICK === 0) this.control(this.sample);
      let bridge = 0;
      for (let i = 0; i < STRINGS; i++) {
        const string = strings[i]!;
        if (!string.isSilent) bridge += string.next(noise);
      }
      bridge += this.thud();
      let ringing = 0;
      for (let i = 0; i < STRINGS; i++) {
        const ring = rings[i]!;
        ringing += ring.next(bridge * ring.uptake * RING_INPUT);
      }
      if (taps.bridge) taps.bridge[n] = bridge;
      if (taps.ringing) taps.ringing[n] = ringing;
      const sum =
        body.next(bridge + ringing) +
        balance.backing * this.backing.next() +
        balance.click * this.clicker.next() +
        this.tone();
      const size = Math.abs(sum);
      this.peak = size > this.peak ? size : this.peak * release;
      block[n] = this.peak > CEILING ? (sum * CEILING) / this.peak : sum;
      this.sample += 1;
    }
  }

  /** Everything that changes more slowly than the wave, counted for a sample that is a whole number of ticks. */
  private control(sample: number): void {
    const { balance } = this;
    const time = sample / this.sampleRate;
    for (let pluck = this.plucks.take(time); pluck; pluck = this.plucks.take(time))
      this.backing.pluck(pluck, ++this.pluckCount);
    for (let click = this.clicks.take(time); click; click = this.clicks.take(time)) this.clicker.click(click);
    this.toneLevel = this.plan.toneHertz === null ? 0 : balance.tone * TONE.level;

    this.setBow(time);
    for (let i = 0; i < STRINGS; i++) this.controlString(i, time);
  }

  /** What the bow does now, for all strings alike. */
  private setBow(time: Seconds): void {
    const { bow } = this;
    const stroke = this.strokes.current(time);
    const swell = this.swells.current(time);
    const accent = this.accents.current(time);
    const risen = swell ? risenAt(swell, time) : 0;
    const struck = accent ? time - accent.at : Infinity;
    const bitten = accent ? accent.decibels * bittenAt(struck) : 0;
    const leaning = stroke ? LEAN_DECIBELS * leanAt(stroke, time) : 0;
    bow.sign = stroke?.sign ?? 1;
    bow.velocity = stroke ? bowSpeedAt(stroke, time) : 0;
    bow.gain = 10 ** (((swell ? swell.decibels * risen : 0) + bitten + leaning) / 20);
    bow.hiss = BOW_HISS + (struck < ACCENT.noisy ? ACCENT_HISS : 0);
    bow.since = stroke ? time - stroke.from : 0;
    const bite = stroke && bow.since < stroke.biteSeconds ? stroke.bite : 1;
    bow.weight = (stroke?.force ?? DEFAULT_FORCE) * bite * (swell ? weightIn(swell, risen) : 1);
    bow.outward = swell?.by === 'fade' ? 1 + (FADE.outward - 1) * risen : 1;
    bow.drift = driftAt(time);
  }

  private controlString(i: number, time: Seconds): void {
    const { bow, sampleRate } = this;
    const string = this.strings[i]!;
    const contact = this.contactAt(i, time);
    const hertz = this.pitchAt(i, time) * 2 ** ((bow.drift * DRIFT.cents) / 1200);
    const open = this.plan.openHertz[i]!;
    // A stopped string does not ring at its open pitch.
    const isStopped = this.touchedAt(i, time) !== null && hertz > open * 1.02;
    this.rings[i]!.ringFor(isStopped ? DAMPED_RING_SECONDS : RING_SECONDS[i]!);
    if (contact === 0) {
      string.target = 0;
      return;
    }
    const shorter = Math.max(1, hertz / open);
    const touch = this.touches[i]!.current(time);
    string.increment = hertz / sampleRate;
    string.target =
      bow.sign *
      contact *
      (bow.velocity / DEFAULT_SPEED) *
      bow.gain *
      this.trim(hertz) *
      (shorter * bow.outward) ** -SHORTER_SOFTENS *
      (1 + DRIFT.amplitude * bow.drift);
    string.quickness = 1 - Math.exp(-1 / (lagSeconds(hertz, bow.weight) * sampleRate));
    string.hiss = bow.hiss;
    const cloud = this.contacts[i]!.current(time)?.cloud ?? 0;
    string.cloud = cloud === 0 ? 0 : 1 - 10 ** ((-CLOUD_OWN * cloud) / 20);
    string.cloudiness = 1 - Math.exp((-2 * Math.PI * CLOUDED * hertz) / sampleRate);
    const most = 0.25 + (1.25 * (bow.velocity / DEFAULT_SPEED)) / (shorter * bow.outward);
    const excess = Math.max(0, (bow.weight - most) / (0.6 + most)) * Math.exp(-bow.since / SCRATCH_SECONDS);
    string.scratch = Math.min(1, excess);
    const sharp =
      Math.sqrt(bow.weight / DEFAULT_FORCE) * (1 + DRIFT.brightness * bow.drift) * (touch ? clearness(touch, time) : 1);
    const corner = Math.min(9000, 1300 + 3200 * sharp + 1.2 * hertz);
    string.sharpness = 1 - Math.exp((-2 * Math.PI * corner) / sampleRate);
    string.let = touch ? letThrough(touch, time) : 1;
    if (touch?.kind === 'flick' && touch.from > time - TICK / sampleRate) this.thuds.push(0);
  }

  /** The bow's contact with a string, while it lasts. */
  private touchedAt(place: number, time: Seconds): Contact | null {
    const touched = this.contacts[place]!.current(time);
    return touched !== null && time < touched.to ? touched : null;
  }

  /** How far the bow lies on a string: it comes on and goes off within a few milliseconds. */
  private contactAt(place: number, time: Seconds): number {
    const { balance, contact } = this;
    const touched = this.touchedAt(place, time);
    const step = TICK / (CONTACT_SECONDS * this.sampleRate);
    const level = touched ? (touched.role === 'melody' ? balance.melody : balance.second) : 0;
    const way = level - contact[place]!;
    contact[place] = Math.abs(way) <= step ? level : contact[place]! + Math.sign(way) * step;
    return contact[place]!;
  }

  private pitchAt(place: number, time: Seconds): number {
    const move = this.pitches[place]!.current(time);
    if (move && move !== this.moves[place]) {
      this.fromHertz[place] = this.moves[place] === null ? move.hertz : this.hertz[place]!;
      this.moves[place] = move;
    }
    let hertz = move?.hertz ?? this.plan.openHertz[place]!;
    if (move && move.glide > 0 && time < move.at + move.glide) {
      const share = (time - move.at) / move.glide;
      hertz = this.fromHertz[place]! * (move.hertz / this.fromHertz[place]!) ** share;
    }
    this.hertz[place] = hertz;
    const wave = this.vibrato[place]!.current(time);
    if (!wave || time >= wave.to) return hertz;
    const grown = wave.grow > 0 ? Math.min(1, (time - wave.from) / wave.grow) : 1;
    // A finger that rolls back lowers the pitch and returns to it.
    const below = (1 - Math.cos(2 * Math.PI * wave.rate * (time - wave.from))) / 2;
    return hertz * 2 ** ((-wave.cents * grown * below) / 1200);
  }

  private thud(): number {
    if (this.thuds.length === 0) return 0;
    let sum = 0;
    for (let i = 0; i < this.thuds.length; i++) {
      const t = this.thuds[i]! / this.sampleRate;
      sum += THUD.level * Math.exp(-t / THUD.decay) * Math.sin(2 * Math.PI * THUD.hertz * t);
      this.thuds[i]! += 1;
    }
    if (this.thuds[0]! > 12 * THUD.decay * this.sampleRate) this.thuds.shift();
    return sum;
  }

  private tone(): number {
    const { toneHertz } = this.plan;
    if (toneHertz === null || this.toneLevel === 0) return 0;
    this.tonePhase += toneHertz / this.sampleRate;
    if (this.tonePhase >= 1) this.tonePhase -= 1;
    const place = this.tonePhase * TONE_STEPS;
    const step = Math.floor(place);
    const sum = TONE_WAVE[step]! + (TONE_WAVE[step + 1]! - TONE_WAVE[step]!) * (place - step);
    return this.toneLevel * sum * Math.min(1, this.sample / (TONE.attack * this.sampleRate));
  }
}

const trims = new Map<number, (hertz: number) => number>();

/** Counted once for each sample rate. */
function trimFor(sampleRate: number): (hertz: number) => number {
  const known = trims.get(sampleRate) ?? loudnessTrim(sampleRate);
  trims.set(sampleRate, known);
  return known;
}

/** Speed of the bow at a time: ramped at both ends of the stroke and about its stops. */
function bowSpeedAt({ from, to, up, down, speed, stops }: RampedStroke, time: Seconds): number {
  if (time >= to) return 0;
  let share = Math.min(1, (time - from) / up, (to - time) / down);
  for (const stop of stops) {
    if (time > stop.from - STOP_RAMP && time < stop.to + STOP_RAMP)
      share = Math.min(share, Math.max(0, (stop.from - time) / STOP_RAMP, (time - stop.to) / STOP_RAMP));
  }
  return speed * Math.max(0, share);
}

/** How much of an accent is heard so long after it was struck, 0 to 1. */
function bittenAt(since: Seconds): number {
  return Math.max(0, 1 - Math.max(0, since - ACCENT.held) / ACCENT.dies);
}

/** How far the weight lies to where the stroke has it, from -1 to 1: all over a stroke it adds up to nothing. */
function leanAt({ from, to, lean }: BowStroke, time: Seconds): number {
  if (lean === 'even' || time >= to) return 0;
  const share = Math.max(0, (time - from) / (to - from));
  return lean === 'start' ? 1 - 2 * share : -Math.cos(2 * Math.PI * share);
}

/** How many times the weight of the stroke a swell has on the string. */
function weightIn({ by }: Swell, risen: number): number {
  if (by === 'speed') return 1;
  return by === 'weight' ? 1 + 0.5 * risen : 1 - (1 - FADE.weight) * risen;
}

/** How far a swell has risen, 0 to 1. */
function risenAt({ from, to, returns }: Swell, time: Seconds): number {
  if (time >= to) return 0;
  const share = (time - from) / (to - from);
  return returns ? Math.sin(Math.PI * share) ** 2 : Math.sin((Math.PI / 2) * share) ** 2;
}

function letThrough({ kind, from, to }: Touch, time: Seconds): number {
  if (time >= to) return 1;
  if (kind === 'press') return 0.25 + 0.75 * ((time - from) / (to - from));
  return 1 - FLICK_DAMPING * Math.max(0, Math.min(1, (time - from) / FLICK_RAMP, (to - time) / FLICK_RAMP));
}

function clearness({ kind, from, to }: Touch, time: Seconds): number {
  return kind === 'press' && time < to ? 0.3 + 0.7 * ((time - from) / (to - from)) : 1;
}

/** From -1 to 1, two slow waves that do not meet. */
function driftAt(time: Seconds): number {
  const [slow, quick] = DRIFT.hertz;
  return 0.6 * Math.sin(2 * Math.PI * slow * time) + 0.4 * Math.sin(2 * Math.PI * quick * time + 1);
}
