import { MAX_TAKE_SECONDS } from '#core/take';
import { MAX_WAV_BYTES, writeWav } from '#formats/wav';
import { readSound, SoundFileProblem } from './readSound';

const file = (bytes: Uint8Array, size = bytes.length) =>
  ({ size, arrayBuffer: () => Promise.resolve(bytes.slice().buffer) }) as File;
const tone = Float32Array.from({ length: 4410 }, (_, n) => 0.5 * Math.sin(n / 10));

function browserReads(audio: Partial<AudioBuffer> | null): void {
  const decodeAudioData = () => (audio ? Promise.resolve(audio) : Promise.reject(new Error('unknown')));
  Object.assign(globalThis, { OfflineAudioContext: jest.fn(() => ({ decodeAudioData })) });
}

test('a WAV file is read as it is, without the browser', async () => {
  browserReads(null);
  const { samples, sampleRate, promisedSeconds } = await readSound(file(writeWav(tone, 44100)));
  expect(sampleRate).toBe(44100);
  expect(promisedSeconds).toBeNull();
  expect(Math.abs(samples[100]! - tone[100]!)).toBeLessThan(1e-4);
});

test('a file that ends early is read as far as it goes, and what it promised is told', async () => {
  const { samples, promisedSeconds } = await readSound(file(writeWav(tone, 44100).slice(0, 44 + 4410)));
  expect(samples).toHaveLength(2205);
  expect(promisedSeconds).toBeCloseTo(0.1, 3);
});

test('another kind goes through the browser, its channels mixed', async () => {
  const channels = [Float32Array.from([1, 0]), Float32Array.from([0, 0.5])];
  browserReads({
    duration: 1,
    length: 2,
    numberOfChannels: 2,
    sampleRate: 48000,
    getChannelData: (channel: number) => channels[channel]! as Float32Array<ArrayBuffer>,
  });
  const { samples, sampleRate } = await readSound(file(Uint8Array.from([1, 2, 3, 4])));
  expect([...samples]).toEqual([0.5, 0.25]);
  expect(sampleRate).toBe(48000);
});

test('what is no sound, too long or too large is refused in words, before it is unpacked where that can be told', async () => {
  browserReads(null);
  await expect(readSound(file(Uint8Array.from([1, 2, 3])))).rejects.toThrow(/expected a sound file/);
  browserReads({ duration: MAX_TAKE_SECONDS + 1, length: 0, numberOfChannels: 1 });
  await expect(readSound(file(Uint8Array.from([1, 2, 3])))).rejects.toThrow(SoundFileProblem);
  await expect(readSound(file(new Uint8Array(0), MAX_WAV_BYTES + 1))).rejects.toThrow(SoundFileProblem);
  await expect(readSound(file(new Uint8Array(33 * 1024 * 1024)))).rejects.toThrow(/at most 32 MB/);
});
