import { MAX_TAKE_SECONDS } from '#core/take';
import { MAX_WAV_BYTES, readWav, WavFault } from '#formats/wav';
import { wavFaultWords } from '#words/take';
import type { Sound } from './hearProtocol';

/** Why a file cannot be listened to, in words. */
export class SoundFileProblem extends Error {}

/** Other kinds than WAV go through the browser's own reader, which unpacks them into memory. */
const MAX_PACKED_BYTES = 32 * 1024 * 1024;
const RATE = 44100;

/**
 * A sound file: WAV, or whatever the browser reads.
 * @throws SoundFileProblem
 */
export async function readSound(file: File): Promise<Sound & { readonly promisedSeconds: number | null }> {
  if (file.size > MAX_WAV_BYTES) throw new SoundFileProblem(wavFaultWords('too-large', file.size));
  const bytes = new Uint8Array(await file.arrayBuffer());
  try {
    return readWav(bytes, MAX_TAKE_SECONDS);
  } catch (error) {
    if (!(error instanceof WavFault)) throw error;
    if (error.code !== 'not-wav' && error.code !== 'compressed')
      throw new SoundFileProblem(wavFaultWords(error.code, error.got));
    return unpacked(bytes);
  }
}

async function unpacked(bytes: Uint8Array): Promise<Sound & { readonly promisedSeconds: null }> {
  if (bytes.length > MAX_PACKED_BYTES)
    throw new SoundFileProblem('expected at most 32 MB of a packed sound file; a WAV file may have 256 MB');
  const context = new OfflineAudioContext(1, 1, RATE);
  const audio = await context.decodeAudioData(Uint8Array.from(bytes).buffer).catch(() => {
    throw new SoundFileProblem('expected a sound file that this browser can read, such as WAV; got something else');
  });
  if (audio.duration > MAX_TAKE_SECONDS)
    throw new SoundFileProblem(wavFaultWords('too-long', Math.round(audio.duration)));
  const samples = new Float32Array(audio.length);
  for (let channel = 0; channel < audio.numberOfChannels; channel++) {
    const data = audio.getChannelData(channel);
    for (let n = 0; n < data.length; n++) samples[n]! += data[n]! / audio.numberOfChannels;
  }
  return { samples, sampleRate: audio.sampleRate, promisedSeconds: null };
}
