import { expose, transfer } from 'comlink';
import { renderInBlocks } from '#core/sound';
import { writeWav } from '#formats/wav';
import type { RenderWorker } from './renderProtocol';

const SAMPLE_RATE = 44100;
/** The page is told after every so many seconds of sound. */
const TELL_SHARE = 0.02;

expose({
  render: async ({ plan, balance }, onDone) => {
    const blocks = renderInBlocks(plan, { sampleRate: SAMPLE_RATE, balance });
    let told = 0;
    for (;;) {
      const step = blocks.next();
      if (step.done) {
        const file = writeWav(step.value, SAMPLE_RATE);
        return transfer(file, [file.buffer as ArrayBuffer]);
      }
      if (step.value - told < TELL_SHARE) continue;
      told = step.value;
      onDone(told);
    }
  },
} satisfies RenderWorker);
