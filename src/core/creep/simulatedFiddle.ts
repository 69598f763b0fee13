import { hertzOf, midiOf, REFERENCE_PITCH } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { TENSION_NEWTONS, tensionRatio, type Tuning } from '#core/tuning';
import type { Cents, Minutes } from './creep';

/**
 * How the simulated fiddle behaves. It is its own law, not the forecast's: each string stretches back in two parts of
 * their own, strings pull on each other through the neck, pegs slip at random.
 */
const LAW = {
  /** Parts of a change that go back, and their half-lives in minutes. */
  quickShare: 0.03,
  quickHalfLife: 1.8,
  slowShare: 0.05,
  slowHalfLife: 9,
  /** Each fiddle's strings are by this much apart from one another. */
  variety: 0.25,
  newString: 3,
  /** Cents by which every other string falls for each newton that one is tightened. */
  centsPerNewton: -0.16,
  /** Slips an hour, and how far a slip goes. */
  slipsPerHour: 0.5,
  slipCents: [3, 7],
  /** A turn of a peg goes by this share more or less than meant. */
  turnError: 0.06,
} as const;

interface StringState {
  /** Where the peg holds it, in cents above its first pitch. */
  readonly peg: Cents;
  /** Where it has settled so far, per part. */
  readonly quick: Cents;
  readonly slow: Cents;
  readonly quickShare: number;
  readonly slowShare: number;
}

/** A fiddle whose pegs turn, slip and creep. An immutable value: every deed gives the next one. */
export interface SimulatedFiddle {
  readonly first: Tuning;
  readonly strings: readonly StringState[];
  readonly seed: number;
  readonly minutes: Minutes;
  readonly slips: readonly { readonly place: Place; readonly minutes: Minutes; readonly cents: Cents }[];
}

/** The next random number 0 … 1 and the seed after it (mulberry32). */
function draw(seed: number): [number, number] {
  const state = (seed + 0x6d2b79f5) >>> 0;
  let t = state;
  t = Math.imul(t ^ (t >>> 15), t | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return [((t ^ (t >>> 14)) >>> 0) / 4294967296, state];
}

/** A fiddle that has stood in a tuning long enough to have settled. */
export function simulatedFiddle(tuning: Tuning, seed: number, newStrings: readonly Place[] = []): SimulatedFiddle {
  let state = seed >>> 0;
  const strings = PLACES.map((place): StringState => {
    const next = () => {
      const [value, after] = draw(state);
      state = after;
      return 1 + LAW.variety * (2 * value - 1);
    };
    const fresh = newStrings.includes(place) ? LAW.newString : 1;
    return {
      peg: 0,
      quick: 0,
      slow: 0,
      quickShare: LAW.quickShare * fresh * next(),
      slowShare: LAW.slowShare * fresh * next(),
    };
  });
  return { first: tuning, strings, seed: state, minutes: 0, slips: [] };
}

/** Cents of a string above its first pitch. */
function rawCents({ strings }: SimulatedFiddle, at: number): Cents {
  const { peg, quick, slow } = strings[at]!;
  const pull = strings.reduce((sum, other, i) => {
    if (i === at) return sum;
    const newtons = TENSION_NEWTONS[i]! * (tensionRatio((other.peg - other.quick - other.slow) / 100) - 1);
    return sum + newtons * LAW.centsPerNewton;
  }, 0);
  return peg - quick - slow + pull;
}

/** True pitch of a string as a MIDI number with its fraction. */
export function soundingMidi(fiddle: SimulatedFiddle, place: Place): number {
  const at = PLACES.indexOf(place);
  return midiOf(fiddle.first[at]!) + rawCents(fiddle, at) / 100;
}

/** Cents of a string above a target pitch. */
export function centsFrom(fiddle: SimulatedFiddle, place: Place, targetMidi: number): Cents {
  return 100 * (soundingMidi(fiddle, place) - targetMidi);
}

/** Turns a peg by about so many cents: it goes a little further or less far than meant. */
export function turnPeg(fiddle: SimulatedFiddle, place: Place, cents: Cents): SimulatedFiddle {
  const [value, seed] = draw(fiddle.seed);
  const turned = cents * (1 + LAW.turnError * (2 * value - 1));
  return {
    ...fiddle,
    seed,
    strings: fiddle.strings.map((string, i) =>
      PLACES[i] === place ? { ...string, peg: string.peg + turned } : string,
    ),
  };
}

/** Lets time pass: each part goes on its way toward its share of the change, and a peg may slip. Steps of six seconds. */
export function waitMinutes(fiddle: SimulatedFiddle, minutes: Minutes): SimulatedFiddle {
  const STEP = 0.1;
  let { seed, strings, slips } = fiddle;
  let passed = 0;
  while (passed < minutes - 1e-9) {
    const step = Math.min(STEP, minutes - passed);
    passed += step;
    strings = strings.map((string) => ({
      ...string,
      quick: settle(string.quick, string.peg * string.quickShare, step, LAW.quickHalfLife),
      slow: settle(string.slow, string.peg * string.slowShare, step, LAW.slowHalfLife),
    }));
    for (const [i, place] of PLACES.entries()) {
      let chance: number;
      [chance, seed] = draw(seed);
      if (chance >= (LAW.slipsPerHour / PLACES.length) * (step / 60)) continue;
      let size: number;
      [size, seed] = draw(seed);
      const cents = -(LAW.slipCents[0] + size * (LAW.slipCents[1] - LAW.slipCents[0]));
      strings = strings.map((string, k) => (k === i ? { ...string, peg: string.peg + cents } : string));
      slips = [...slips, { place, minutes: fiddle.minutes + passed, cents }];
    }
  }
  return { ...fiddle, seed, strings, slips, minutes: fiddle.minutes + minutes };
}

function settle(now: Cents, target: Cents, minutes: Minutes, halfLife: Minutes): Cents {
  return target + (now - target) * 2 ** (-minutes / halfLife);
}

/** Partials of the simulated tone, each weaker than the one below; enough for a pitch detector. */
const PARTIALS = 8;
const DECAY = 0.72;

interface SoundOptions {
  readonly noise?: number;
  readonly seed?: number;
  /** Pitch of A4 by which it is meant. */
  readonly a4?: number;
}

/** A stretch of sound of one string, as a microphone would give it: harmonic, a little noisy, from phase 0. */
export function soundOf(
  midi: number,
  samples: number,
  sampleRate: number,
  { noise = 0.01, seed = 1, a4 = REFERENCE_PITCH.usual }: SoundOptions = {},
): Float32Array {
  const hertz = hertzOf(midi, a4);
  const out = new Float32Array(samples);
  let state = seed >>> 0;
  for (let i = 0; i < samples; i++) {
    let value = 0;
    for (let k = 1; k <= PARTIALS; k++)
      value += DECAY ** (k - 1) * Math.sin((2 * Math.PI * k * hertz * i) / sampleRate);
    let random: number;
    [random, state] = draw(state);
    out[i] = 0.2 * value + noise * (2 * random - 1);
  }
  return out;
}
