/** Largest file, longest sound and rates that are read. Memory: the file, and 4 bytes for each moment of it. */
export const MAX_WAV_BYTES = 256 * 1024 * 1024;
export const WAV_RATES = { min: 8000, max: 192_000 } as const;
const MAX_CHANNELS = 32;
/** Formats by their numbers in the file: whole numbers, floats, and one that says which in an extension. */
const FORMAT = { integer: 1, float: 3, extended: 0xfffe } as const;
/** A sample this near full scale has been cut off. */
const FULL = 0.999;

export type WavFaultCode =
  | 'empty'
  | 'not-wav'
  | 'no-format'
  | 'compressed'
  | 'depth'
  | 'channels'
  | 'rate'
  | 'no-sound'
  | 'too-large'
  | 'too-long';

/** Why a file cannot be listened to: what was expected, and what it has. */
export class WavFault extends Error {
  constructor(
    readonly code: WavFaultCode,
    readonly got: number | string = '',
  ) {
    super(`${code} ${got}`.trim());
  }
}

export interface WavSound {
  readonly sampleRate: number;
  /** All channels together, from -1 to 1. */
  readonly samples: Float32Array;
  readonly channels: number;
  readonly bits: number;
  /** Seconds that the file says it has, where it ends before them. */
  readonly promisedSeconds: number | null;
  /** Share of the samples that are cut off at full scale. */
  readonly clipped: number;
}

interface Format {
  readonly kind: number;
  readonly channels: number;
  readonly sampleRate: number;
  readonly bits: number;
  readonly frameBytes: number;
}

/**
 * A WAV file of 8, 16, 24 or 32 bits, or floats of 32 or 64, of any number of channels, as one channel of floats: read in
 * place, since longer files would not fit into memory a second time. What a file promises and does not hold is left.
 * @throws WavFault for what is no such file
 */
export function readWav(bytes: Uint8Array, maxSeconds = Infinity): WavSound {
  if (bytes.length === 0) throw new WavFault('empty');
  if (bytes.length > MAX_WAV_BYTES) throw new WavFault('too-large', bytes.length);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 12 || word(0) !== 'RIFF' || word(8) !== 'WAVE') throw new WavFault('not-wav');
  let format: Format | null = null;
  for (let at = 12; at + 8 <= bytes.length;) {
    const [name, size] = [word(at), view.getUint32(at + 4, true)];
    if (name === 'fmt ') format = formatOf(view, at + 8, Math.min(size, bytes.length - at - 8));
    if (name === 'data') {
      if (!format) throw new WavFault('no-format');
      return soundOf(view, format, { from: at + 8, size }, maxSeconds);
    }
    // Chunks begin at even places.
    at += 8 + size + (size % 2);
  }
  throw new WavFault(format ? 'no-sound' : 'no-format');
}

function formatOf(view: DataView, at: number, size: number): Format {
  if (size < 16) throw new WavFault('no-format');
  const said = view.getUint16(at, true);
  const kind = said === FORMAT.extended && size >= 26 ? view.getUint16(at + 24, true) : said;
  const channels = view.getUint16(at + 2, true);
  const sampleRate = view.getUint32(at + 4, true);
  const bits = view.getUint16(at + 14, true);
  if (kind !== FORMAT.integer && kind !== FORMAT.float) throw new WavFault('compressed', kind);
  const depths = kind === FORMAT.float ? [32, 64] : [8, 16, 24, 32];
  if (!depths.includes(bits)) throw new WavFault('depth', bits);
  if (channels < 1 || channels > MAX_CHANNELS) throw new WavFault('channels', channels);
  if (sampleRate < WAV_RATES.min || sampleRate > WAV_RATES.max) throw new WavFault('rate', sampleRate);
  return { kind, channels, sampleRate, bits, frameBytes: (channels * bits) / 8 };
}

function soundOf(
  view: DataView,
  { kind, channels, sampleRate, bits, frameBytes }: Format,
  { from, size }: { readonly from: number; readonly size: number },
  maxSeconds: number,
): WavSound {
  const there = Math.min(size, view.byteLength - from);
  const frames = Math.floor(there / frameBytes);
  if (frames === 0) throw new WavFault('no-sound');
  if (frames / sampleRate > maxSeconds) throw new WavFault('too-long', Math.round(frames / sampleRate));
  const samples = new Float32Array(frames);
  const read = readerOf(view, kind, bits);
  let full = 0;
  for (let i = 0, at = from; i < frames; i++) {
    let sum = 0;
    let isFull = false;
    for (let c = 0; c < channels; c++, at += bits / 8) {
      const value = read(at);
      if (value >= FULL || value <= -FULL) isFull = true;
      // What is no number is silence.
      sum += value >= -8 && value <= 8 ? value : 0;
    }
    if (isFull) full += 1;
    samples[i] = sum / channels;
  }
  return {
    sampleRate,
    samples,
    channels,
    bits,
    promisedSeconds: there < size ? Math.floor(size / frameBytes) / sampleRate : null,
    clipped: full / frames,
  };
}

function readerOf(view: DataView, kind: number, bits: number): (at: number) => number {
  if (kind === FORMAT.float) return bits === 32 ? (at) => view.getFloat32(at, true) : (at) => view.getFloat64(at, true);
  if (bits === 8) return (at) => (view.getUint8(at) - 128) / 128;
  if (bits === 16) return (at) => view.getInt16(at, true) / 32768;
  if (bits === 24) return (at) => (view.getInt8(at + 2) * 65536 + view.getUint16(at, true)) / 8388608;
  return (at) => view.getInt32(at, true) / 2147483648;
}
