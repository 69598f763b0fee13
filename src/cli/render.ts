import { type Layer, LAYERS, perform, PLAIN_WISH } from '#core/performance';
import { render as renderPlan } from '#core/sound';
import { writeWav } from '#formats/wav';
import { type StretchFlags, stretchOf } from './stretch';
import { UsageError } from './usage';

export interface RenderFlags extends StretchFlags {
  readonly out?: string;
  readonly layers?: string;
}

const SAMPLE_RATE = 44100;

/** `render FILE --out x.wav`: one tune of the file as sound. */
export function render(file: string, flags: RenderFlags, leftOut: string[]): Uint8Array {
  if (!flags.out || !/\.wav$/i.test(flags.out))
    throw new UsageError(`--out: expected the name of a .wav file to write, got ${flags.out ?? 'nothing'}`);
  const layers = flags.layers === undefined ? PLAIN_WISH.layers : layersNamed(flags.layers);
  const { report, span, a4 } = stretchOf(file, flags, leftOut);
  const { plan } = perform(report, { ...PLAIN_WISH, layers, span, a4, isHuman: true });
  return writeWav(renderPlan(plan, { sampleRate: SAMPLE_RATE }), SAMPLE_RATE);
}

function layersNamed(names: string): Set<Layer> {
  return new Set(
    names.split(',').map((name) => {
      const layer = LAYERS.find((known) => known === name.trim());
      if (!layer) throw new UsageError(`--layers: expected some of ${LAYERS.join(',')}, got ${name}`);
      return layer;
    }),
  );
}
