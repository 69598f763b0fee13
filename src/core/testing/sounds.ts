import { Fiddle, type SoundPlan } from '#core/sound';

export const RATE = 44100;

export const hertz = (midi: number) => 440 * 2 ** ((midi - 69) / 12);

/** A note of a plan for tests, on the string that usually has it. */
export interface PlannedNote {
  readonly midi: number;
  readonly from: number;
  readonly to: number;
  readonly sign?: 1 | -1;
  /** In the stroke of the note before. */
  readonly slurred?: boolean;
  readonly place?: number;
}

const STANDARD = [55, 62, 69, 76] as const;

export function defaultPlace(midi: number, tuning: readonly number[] = STANDARD): number {
  return Math.max(
    0,
    tuning.findLastIndex((open) => open <= midi),
  );
}

/** A plan of plain strokes. */
export function planOf(
  notes: readonly PlannedNote[],
  more: Partial<SoundPlan> = {},
  tuning: readonly number[] = STANDARD,
): SoundPlan {
  const contacts: SoundPlan['contacts'][number][number][][] = [[], [], [], []];
  const pitches: SoundPlan['pitches'][number][number][][] = [[], [], [], []];
  const strokes: SoundPlan['strokes'][number][] = [];
  for (const { midi, from, to, sign = 1, slurred, place = defaultPlace(midi, tuning) } of notes) {
    contacts[place]!.push({ from, to, role: 'melody' });
    pitches[place]!.push({ at: from, hertz: hertz(midi), glide: 0.003 });
    if (slurred) strokes[strokes.length - 1] = { ...strokes[strokes.length - 1]!, to };
    else strokes.push({ from, to, sign, speed: 0.35, force: 0.8, bite: 1, biteSeconds: 0, lean: 'even', stops: [] });
  }
  return {
    seconds: notes.at(-1)!.to,
    openHertz: tuning.map(hertz) as [number, number, number, number],
    strokes,
    contacts,
    pitches,
    vibrato: [[], [], [], []],
    swells: [],
    accents: [],
    touches: [[], [], [], []],
    plucks: [],
    clicks: [],
    toneHertz: null,
    ...more,
  };
}

export interface Heard {
  readonly out: Float32Array;
  readonly bridge: Float32Array;
  readonly ringing: Float32Array;
}

/** A plan played through, with what the strings do before the body. */
export function hear(plan: SoundPlan, { seed = 1, rate = RATE, block = 512 } = {}): Heard {
  const length = Math.ceil(plan.seconds * rate);
  const heard = {
    out: new Float32Array(length),
    bridge: new Float32Array(length),
    ringing: new Float32Array(length),
  };
  const fiddle = new Fiddle(plan, rate, seed);
  for (let at = 0; at < length; at += block) {
    const to = Math.min(length, at + block);
    fiddle.next(heard.out.subarray(at, to), {
      bridge: heard.bridge.subarray(at, to),
      ringing: heard.ringing.subarray(at, to),
    });
  }
  return heard;
}

/** Root mean square of a stretch, in decibels. */
export function level(samples: Float32Array, from: number, to: number, rate = RATE): number {
  const [first, end] = [Math.max(0, Math.round(from * rate)), Math.min(samples.length, Math.round(to * rate))];
  let sum = 0;
  for (let i = first; i < end; i++) sum += samples[i]! ** 2;
  return 10 * Math.log10(sum / (end - first) + 1e-20);
}

/** The lowest level of 8 ms about a time, against the louder of the notes on both sides. */
export function dipAt(samples: Float32Array, time: number, noteSeconds: number): number {
  let dip = Infinity;
  for (let t = time - 0.015; t < time + 0.025; t += 0.001) dip = Math.min(dip, level(samples, t - 0.004, t + 0.004));
  const around = [time - noteSeconds * 0.5, time + noteSeconds * 0.5].map((t) => level(samples, t - 0.01, t + 0.01));
  return dip - Math.min(...around);
}

/** Cents by which the partial near `near` stands off it, by the turn of its phase between two halves of a stretch. */
export function centsOff(samples: Float32Array, near: number, from: number, to: number, rate = RATE): number {
  const half = Math.round(((to - from) * rate) / 2);
  const phaseAt = (start: number) => {
    let [re, im] = [0, 0];
    for (let i = 0; i < half; i++) {
      const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / half);
      const turn = (2 * Math.PI * near * (start + i)) / rate;
      re += window * samples[start + i]! * Math.cos(turn);
      im -= window * samples[start + i]! * Math.sin(turn);
    }
    return Math.atan2(im, re);
  };
  const first = Math.round(from * rate);
  let turned = phaseAt(first + half) - phaseAt(first);
  turned -= 2 * Math.PI * Math.round(turned / (2 * Math.PI));
  return 1200 * Math.log2(1 + (turned * rate) / (2 * Math.PI * half) / near);
}
