/** Samples in a block that is handed on: about a twentieth of a second. */
const BLOCK = 2048;

declare function registerProcessor(name: string, processor: unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Hands on what comes in, in numbered blocks, so that one that is lost would be seen. */
class Capture extends AudioWorkletProcessor {
  private block = new Float32Array(BLOCK);
  private length = 0;
  private number = 0;

  process([input]: readonly (readonly Float32Array[])[]): boolean {
    const channel = input?.[0];
    if (!channel) return true;
    for (let from = 0; from < channel.length;) {
      const taken = Math.min(channel.length - from, BLOCK - this.length);
      this.block.set(channel.subarray(from, from + taken), this.length);
      this.length += taken;
      from += taken;
      if (this.length < BLOCK) continue;
      this.port.postMessage({ number: this.number++, block: this.block }, [this.block.buffer]);
      this.block = new Float32Array(BLOCK);
      this.length = 0;
    }
    return true;
  }
}

registerProcessor('capture', Capture);
