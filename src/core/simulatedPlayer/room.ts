import { normalOf, type Seconds, seeded } from '#core/base';

// Looked up once: they are called for millions of times.
const { max, min, round, sqrt } = Math;

/** Delays of the walls, seconds, none a multiple of another, and of what scatters them (after Schroeder, 1962). */
const WALLS = [0.0297, 0.0371, 0.0411, 0.0437, 0.0313, 0.0347] as const;
const SCATTER = [
  { seconds: 0.005, gain: 0.7 },
  { seconds: 0.0017, gain: 0.7 },
] as const;
/** How loud the room is beside the fiddle, at a second of reverberation. A guess. */
const WET = 0.5;

/**
 * The sound of a room whose echoes fall by 60 dB in so many seconds: parallel combs with g = 10^(−3·delay⁄T60), then two
 * allpasses, added to the direct sound. Time O(n).
 */
export function inRoom(samples: Float32Array, sampleRate: number, seconds: Seconds): Float32Array {
  if (seconds <= 0) return samples;
  const wet = new Float32Array(samples.length);
  for (const wall of WALLS) {
    const delay = round(wall * sampleRate);
    const back = 10 ** ((-3 * wall) / seconds);
    const line = new Float32Array(delay);
    for (let n = 0, at = 0; n < samples.length; n++, at = at + 1 === delay ? 0 : at + 1) {
      const out = line[at]!;
      wet[n]! += out / WALLS.length;
      line[at] = samples[n]! + back * out;
    }
  }
  for (const { seconds: wall, gain } of SCATTER) {
    const delay = round(wall * sampleRate);
    const line = new Float32Array(delay);
    for (let n = 0, at = 0; n < wet.length; n++, at = at + 1 === delay ? 0 : at + 1) {
      const late = line[at]!;
      const into = wet[n]! + gain * late;
      wet[n] = late - gain * into;
      line[at] = into;
    }
  }
  const share = WET * sqrt(seconds);
  return samples.map((sample, n) => sample + share * wet[n]!);
}

/** Noise of a room, duller than white, so many decibels under the RMS of what sounds. */
export function withNoise(samples: Float32Array, signalToNoise: number, seed: number): Float32Array {
  const level = soundingRms(samples) * 10 ** (-signalToNoise / 20);
  const normal = normalOf(seeded(seed));
  const noise = new Float32Array(samples.length);
  let dull = 0;
  let sum = 0;
  for (let n = 0; n < noise.length; n++) {
    const white = normal();
    dull += 0.08 * (white - dull);
    noise[n] = 0.4 * white + 3 * dull;
    sum += noise[n]! ** 2;
  }
  const scale = level / sqrt(sum / max(1, noise.length) || 1);
  return samples.map((sample, n) => sample + scale * noise[n]!);
}

/** RMS where there is sound: of the samples in blocks within 30 dB of the loudest. */
function soundingRms(samples: Float32Array): number {
  const BLOCK = 1024;
  const powers: number[] = [];
  for (let from = 0; from < samples.length; from += BLOCK) {
    let sum = 0;
    const to = min(samples.length, from + BLOCK);
    for (let n = from; n < to; n++) sum += samples[n]! ** 2;
    powers.push(sum / (to - from));
  }
  const loudest = powers.reduce((most, power) => max(most, power), 0);
  const sounding = powers.filter((power) => power >= loudest / 1000);
  return sqrt(sounding.reduce((sum, power) => sum + power, 0) / max(1, sounding.length));
}
