import { type Layer, LAYERS, perform, PLAIN_WISH } from '#core/performance';
import { render as renderPlan } from '#core/sound';
import { writeWav } from '#formats/wav';
import { oneTune, spanOfBars } from './oneTune';
import { numberOption } from './readInput';
import { liltNamed } from './report';
import { UsageError } from './usage';

export interface RenderFlags {
  readonly out?: string;
  readonly tune?: string;
  readonly tempo?: string;
  readonly lilt?: string;
  readonly from?: string;
  readonly to?: string;
  readonly layers?: string;
}

const SAMPLE_RATE = 44100;

/** `render FILE --out x.wav`: one tune of the file as sound. */
export function render(file: string, flags: RenderFlags, leftOut: string[]): Uint8Array {
  if (!flags.out || !/\.wav$/i.test(flags.out))
    throw new UsageError(`--out: expected the name of a .wav file to write, got ${flags.out ?? 'nothing'}`);
  const bpm = numberOption('tempo', flags.tempo, 1, 1000);
  const from = numberOption('from', flags.from, 0, 1_000_000);
  const to = numberOption('to', flags.to, 0, 1_000_000);
  const lilt = flags.lilt === undefined ? undefined : liltNamed(flags.lilt);
  const layers = flags.layers === undefined ? PLAIN_WISH.layers : layersNamed(flags.layers);
  const report = oneTune(file, flags.tune, { bpm, lilt }, leftOut);
  const span = spanOfBars(report, from, to);
  return writeWav(
    renderPlan(perform(report, { ...PLAIN_WISH, layers, span, isHuman: true }).plan, { sampleRate: SAMPLE_RATE }),
    SAMPLE_RATE,
  );
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
