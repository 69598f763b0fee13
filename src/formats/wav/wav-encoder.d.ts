/** The parts of the encoder that are used here. */
declare module 'wav-encoder' {
  interface AudioData {
    readonly sampleRate: number;
    readonly channelData: readonly Float32Array[];
  }
  const encoder: {
    readonly encode: { sync(audio: AudioData, options: { readonly bitDepth: 8 | 16 | 24 | 32 }): ArrayBuffer };
  };
  export default encoder;
}
