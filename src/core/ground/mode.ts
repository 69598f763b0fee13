import { toNumber } from '#core/base';
import { alterInKey, type Key, midiOf, type Mode, MODES, type Pitch, pitchAtStep, staffStep } from '#core/pitch';
import type { Unrolled } from '#core/tune';

/** How well the notes of a tune agree with a mode on its tonic: the share of the playing time within its scale. */
export interface ModeFit {
  readonly mode: Mode;
  readonly share: number;
}

export interface ModeCheck {
  /** Of the key as it is stated, its written accidentals in it. */
  readonly stated: number;
  /** All modes on the same tonic, the best first; among equals the stated one, then in their usual order. */
  readonly fits: readonly ModeFit[];
  /** Another mode that fits better than the stated one by more than little; null where there is none. */
  readonly better: Mode | null;
  /** Notes outside the stated key, by letter and accidental, with their share of the time; the most first. */
  readonly outside: readonly { readonly pitch: Pitch; readonly share: number }[];
}

/** Another mode is named from this much more of the time on. A guess. */
const CLEARLY = 0.02;

/** Compares the notes used with the stated mode. Time O(n). */
export function modeCheck(key: Key, { notes }: Unrolled): ModeCheck {
  let total = 0;
  const time = new Map<number, number>();
  const foreign = new Map<string, { pitch: Pitch; share: number }>();
  const statedScale = scaleClasses(key);
  for (const { note, duration } of notes) {
    const length = toNumber(duration);
    total += length;
    const tone = ((midiOf(note.pitch) % 12) + 12) % 12;
    time.set(tone, (time.get(tone) ?? 0) + length);
    if (statedScale.has(tone)) continue;
    const name = `${note.pitch.letter}${note.pitch.alter}`;
    const before = foreign.get(name)?.share ?? 0;
    foreign.set(name, { pitch: note.pitch, share: before + length });
  }
  const shareOf = (scale: ReadonlySet<number>) => {
    let within = 0;
    for (const [tone, length] of time) if (scale.has(tone)) within += length;
    return total === 0 ? 1 : within / total;
  };
  const stated = shareOf(statedScale);
  const fits = MODES.map((mode) => ({
    mode,
    share: shareOf(scaleClasses({ letter: key.letter, alter: key.alter, mode })),
  }));
  fits.sort((a, b) => b.share - a.share || Number(b.mode === key.mode) - Number(a.mode === key.mode));
  const [best] = fits;
  return {
    stated,
    fits,
    better: best && best.mode !== key.mode && best.share > stated + CLEARLY ? best.mode : null,
    outside: [...foreign.values()]
      .map(({ pitch, share }) => ({ pitch, share: total === 0 ? 0 : share / total }))
      .sort((a, b) => b.share - a.share),
  };
}

function scaleClasses(key: Key): Set<number> {
  const tonic = staffStep({ letter: key.letter, alter: 0, octave: 4 });
  return new Set(
    Array.from({ length: 7 }, (_, i) => {
      const natural = pitchAtStep(tonic + i);
      return midiOf({ ...natural, alter: alterInKey(key, natural.letter) }) % 12;
    }),
  );
}
