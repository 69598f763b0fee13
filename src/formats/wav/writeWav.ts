import encoder from 'wav-encoder';

/** One channel of samples from -1 to 1 as a WAV file of 16 bits; beyond full scale they are cut off. */
export function writeWav(samples: Float32Array, sampleRate: number): Uint8Array {
  return new Uint8Array(encoder.encode.sync({ sampleRate, channelData: [samples] }, { bitDepth: 16 }));
}
