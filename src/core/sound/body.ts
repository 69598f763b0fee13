import { Filter, highPass, lowPass, resonance, responseOf, type Section } from './filters';
import { Noise } from './noise';

/** A mode of the body: hertz, sharpness, gain. */
type Mode = readonly [hertz: number, q: number, gain: number];

/** The lowest modes of a fiddle's body: the air in it, then the plates (figures of the model that was tried). */
const LOW_MODES: readonly Mode[] = [
  [278, 9, 1],
  [405, 14, 0.35],
  [462, 14, -0.85],
  [545, 16, 0.9],
  [690, 12, -0.5],
];
const HIGH_MODES = 22;
const HIGH_FROM = 840;
const HIGH_RATIO = 1.09;
/** Modes above are those of one seeded fiddle. */
const BODY_SEED = 20;
/** Broad hill of the bridge. */
const HILL = { base: 0.42, height: 0.75, hertz: 2500, octaves: 0.6 } as const;
const LOW_CUT = 225;
const HIGH_CUT = 7000;
/** What reaches the air without a mode of its own. */
const DIRECT = 0.06;
/** Keeps what dies away from ending in numbers that are slow to reckon with; far below anything heard. */
const HUM = 1e-25;

const bodyModes: readonly Mode[] = (() => {
  const noise = new Noise(BODY_SEED);
  const modes: Mode[] = [...LOW_MODES];
  for (let i = 0; i < HIGH_MODES; i++) {
    const hertz = HIGH_FROM * HIGH_RATIO ** (i + 0.25 * noise.next());
    const hill = HILL.base + HILL.height * Math.exp(-((Math.log2(hertz / HILL.hertz) / HILL.octaves) ** 2));
    modes.push([hertz, 11.5 + 2.5 * noise.next(), (i % 2 === 0 ? 1 : -1) * hill]);
  }
  return modes;
})();

const cuts = (sampleRate: number): readonly Section[] => [
  highPass(LOW_CUT, Math.SQRT1_2, sampleRate),
  lowPass(HIGH_CUT, Math.SQRT1_2, sampleRate),
];

/** The fiddle's body: all modes side by side, between a high-pass and a low-pass. */
export class Body {
  private readonly lowCut: Filter;
  private readonly highCut: Filter;
  /** Of each mode in turn: b0, a1, a2, gain, and its two states. */
  private readonly modes: Float64Array;
  private hum = HUM;

  constructor(sampleRate: number) {
    const [low, high] = cuts(sampleRate);
    this.lowCut = new Filter(low!);
    this.highCut = new Filter(high!);
    const audible = bodyModes.filter(([hertz]) => hertz < 0.45 * sampleRate);
    this.modes = Float64Array.from(
      audible.flatMap(([hertz, q, gain]) => {
        const { b0, a1, a2 } = resonance(hertz, q, sampleRate);
        return [b0, a1, a2, gain, 0, 0];
      }),
    );
  }

  next(bridge: number): number {
    this.hum = -this.hum;
    const x = this.lowCut.next(bridge) + this.hum;
    const { modes } = this;
    const { length } = modes;
    let sum = DIRECT * x;
    for (let i = 0; i < length; i += 6) {
      const bx = modes[i]! * x;
      const y = bx + modes[i + 4]!;
      // b1 is 0 and b2 is -b0 in a resonance.
      modes[i + 4] = modes[i + 5]! - modes[i + 1]! * y;
      modes[i + 5] = -bx - modes[i + 2]! * y;
      sum += modes[i + 3]! * y;
    }
    return this.highCut.next(sum);
  }
}

/** Size of the body's response at a frequency. */
function bodyGain(hertz: number, sampleRate: number): number {
  let [re, im] = [DIRECT, 0];
  for (const [mode, q, gain] of bodyModes) {
    const [r, i] = responseOf(resonance(mode, q, sampleRate), hertz, sampleRate);
    re += gain * r;
    im += gain * i;
  }
  return cuts(sampleRate).reduce(
    (size, cut) => size * Math.hypot(...responseOf(cut, hertz, sampleRate)),
    Math.hypot(re, im),
  );
}

/** Partials that are weighed for the loudness of a tone. */
const PARTIALS = 30;
/** Corners of the wave at a usual weight. */
const DEFAULT_CORNER = (hertz: number) => 4500 + 1.2 * hertz;
const LOWEST = 150;
const STEPS_PER_OCTAVE = 24;
const OCTAVES = 5;
/** A full correction would make the scale lifeless, none would let it vary by more than 20 dB. */
const CORRECTION = 0.95;
/** Level of a tone after the body that its string signal is brought to. */
const LEVEL = 0.16;

/**
 * What a string's signal is multiplied by, so that notes are about equally loud after the body: (level / rms)^0.95, rms
 * that of a saw of 30 partials with its usual corners through the body. Tabulated at 24 to the octave.
 */
export function loudnessTrim(sampleRate: number): (hertz: number) => number {
  const table = Float64Array.from({ length: OCTAVES * STEPS_PER_OCTAVE + 1 }, (_, i) => {
    const hertz = LOWEST * 2 ** (i / STEPS_PER_OCTAVE);
    let power = 0;
    for (let k = 1; k <= PARTIALS && k * hertz < 0.45 * sampleRate; k++) {
      const corner = 1 / (1 + ((k * hertz) / DEFAULT_CORNER(hertz)) ** 2);
      power += ((2 / (Math.PI * k)) * corner * bodyGain(k * hertz, sampleRate)) ** 2 / 2;
    }
    return (LEVEL / Math.sqrt(power)) ** CORRECTION;
  });
  return (hertz) => {
    const place = Math.min(table.length - 1.001, Math.max(0, STEPS_PER_OCTAVE * Math.log2(hertz / LOWEST)));
    const i = Math.floor(place);
    return table[i]! + (table[i + 1]! - table[i]!) * (place - i);
  };
}
