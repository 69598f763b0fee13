import { hertzOf } from '#core/pitch';

/** Partials of a bowed tone, each weaker than the one below: as the drones are weighed. */
const PARTIALS = 7;
const DECAY = 0.88;
/** Level of one tone, well under what hurts; two together stay under full scale. */
const LEVEL = 0.12;
const ATTACK_SECONDS = 0.06;

let context: AudioContext | null = null;
let playing: (() => void) | null = null;

/** Sounds pitches together for a while, at a reference pitch, at once; ends what sounded before. Returns false where there is no sound device. */
export function playTones(midis: readonly number[], a4: number, seconds = 1.6): boolean {
  stopTones();
  try {
    context ??= new AudioContext();
  } catch {
    return false;
  }
  const audio = context;
  void audio.resume();
  const wave = audio.createPeriodicWave(
    new Float32Array(PARTIALS + 1),
    Float32Array.from({ length: PARTIALS + 1 }, (_, k) => (k === 0 ? 0 : DECAY ** (k - 1))),
  );
  const level = audio.createGain();
  level.connect(audio.destination);
  const now = audio.currentTime;
  level.gain.setValueAtTime(0, now);
  level.gain.linearRampToValueAtTime(LEVEL, now + ATTACK_SECONDS);
  level.gain.setValueAtTime(LEVEL, now + seconds - ATTACK_SECONDS);
  level.gain.linearRampToValueAtTime(0, now + seconds);
  const tones = midis.map((midi) => {
    const tone = audio.createOscillator();
    tone.setPeriodicWave(wave);
    tone.frequency.value = hertzOf(midi, a4);
    tone.connect(level);
    tone.start(now);
    tone.stop(now + seconds);
    return tone;
  });
  playing = () => {
    for (const tone of tones) tone.stop();
    level.disconnect();
  };
  return true;
}

/** Ends what sounds. */
export function stopTones(): void {
  playing?.();
  playing = null;
}
