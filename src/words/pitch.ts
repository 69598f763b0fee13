import { type Key, type Pitch, pitchName } from '#core/pitch';

const ACCIDENTALS: Record<number, string> = {
  [-2]: ' double flat',
  [-1]: ' flat',
  0: '',
  1: ' sharp',
  2: ' double sharp',
};

/** `F sharp`, as it is said. */
export function spokenPitch({ letter, alter }: Pitch): string {
  return `${letter}${ACCIDENTALS[alter] ?? ''}`;
}

/** `F#5` with proper signs. */
export function writtenPitch(pitch: Pitch): string {
  return pitchName(pitch).replace('##', '𝄪').replace('#', '♯').replace('bb', '𝄫').replace('b', '♭');
}

/** `F♯`, without its octave. */
export function noteName(pitch: Pitch): string {
  return writtenPitch(pitch).replace(/-?\d+$/, '');
}

/** `D major`, `B♭ major`. */
export function writtenKey(key: Key): string {
  const sign = key.alter === 1 ? '♯' : key.alter === -1 ? '♭' : '';
  return `${key.letter}${sign} ${key.mode}`;
}
