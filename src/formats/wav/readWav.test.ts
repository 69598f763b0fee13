import encoder from 'wav-encoder';
import { seeded } from '#core/base';
import { readWav, WavFault, writeWav } from '.';

const wave = Float32Array.from({ length: 3000 }, (_, i) => 0.6 * Math.sin(i / 9));

test.each([8, 16, 24, 32] as const)(
  'a file of %i bits from another writer is read within a step of its scale',
  (bitDepth) => {
    const file = encoder.encode.sync({ sampleRate: 44100, channelData: [wave, wave] }, { bitDepth });
    const { sampleRate, channels, bits, samples, clipped, promisedSeconds } = readWav(new Uint8Array(file));
    expect({ sampleRate, channels, bits, clipped, promisedSeconds }).toEqual({
      sampleRate: 44100,
      channels: 2,
      bits: bitDepth,
      clipped: 0,
      promisedSeconds: null,
    });
    expect(samples).toHaveLength(wave.length);
    const worst = samples.reduce((most, value, i) => Math.max(most, Math.abs(value - wave[i]!)), 0);
    expect(worst).toBeLessThan(2 / 2 ** (bitDepth - 1));
  },
);

/** A file put together by hand. */
function fileOf(parts: {
  kind?: number;
  channels?: number;
  rate?: number;
  bits?: number;
  data?: Uint8Array;
  said?: number;
}) {
  const { kind = 1, channels = 1, rate = 48000, bits = 16, data = new Uint8Array(200) } = parts;
  const { said = data.length } = parts;
  const bytes = new Uint8Array(44 + data.length);
  const view = new DataView(bytes.buffer);
  const put = (at: number, text: string) =>
    bytes.set(
      [...text].map((letter) => letter.charCodeAt(0)),
      at,
    );
  put(0, 'RIFF');
  put(8, 'WAVE');
  put(12, 'fmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, kind, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint16(34, bits, true);
  put(36, 'data');
  view.setUint32(40, said, true);
  bytes.set(data, 44);
  return bytes;
}

test.each([
  ['nothing', new Uint8Array(0), 'empty'],
  ['a tune', new TextEncoder().encode('X:1\nT:No sound at all\nK:D\n'), 'not-wav'],
  ['a file that breaks off in its head', fileOf({}).subarray(0, 30), 'no-format'],
  ['a head alone', fileOf({}).subarray(0, 36), 'no-sound'],
  ['no samples', fileOf({ data: new Uint8Array(0) }), 'no-sound'],
  ['a compressed one', fileOf({ kind: 2 }), 'compressed'],
  ['12 bits', fileOf({ bits: 12 }), 'depth'],
  ['no channel', fileOf({ channels: 0 }), 'channels'],
  ['3 Hz', fileOf({ rate: 3 }), 'rate'],
  ['384 kHz', fileOf({ rate: 384_000 }), 'rate'],
])('%s cannot be listened to, with its reason', (_, bytes, code) => {
  expect(() => readWav(bytes)).toThrow(expect.objectContaining({ code }));
});

test('an hour is refused before it is read, and eight channels are one', () => {
  const data = new Uint8Array(8 * 2 * 48000);
  expect(() => readWav(fileOf({ data, channels: 8 }), 0.5)).toThrow(WavFault);
  expect(readWav(fileOf({ data, channels: 8 }), 2).samples).toHaveLength(48000);
});

test('a file that ends early is read as far as it goes, and says what it promised', () => {
  const { samples, promisedSeconds } = readWav(fileOf({ data: new Uint8Array(9600), said: 96_000 }));
  expect(samples).toHaveLength(4800);
  expect(promisedSeconds).toBeCloseTo(1, 6);
});

test('what is cut off at full scale is counted', () => {
  const loud = wave.map((value) => 3 * value);
  expect(readWav(writeWav(loud, 44100)).clipped).toBeGreaterThan(0.3);
});

test('bytes changed at random are read or refused, and nothing else', () => {
  const random = seeded(4);
  const file = writeWav(wave, 44100);
  for (let round = 0; round < 400; round++) {
    const broken = file.slice(0, 12 + Math.floor(random() * (file.length - 12)));
    for (let k = 0; k < 4; k++) broken[Math.floor(random() * Math.min(60, broken.length))] = Math.floor(random() * 256);
    try {
      const { samples } = readWav(broken);
      expect(samples.every((value) => Number.isFinite(value))).toBe(true);
    } catch (error) {
      expect(error).toBeInstanceOf(WavFault);
    }
  }
});
