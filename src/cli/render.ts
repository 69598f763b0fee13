import { type Layer, LAYERS, perform, PLAIN_WISH } from '#core/performance';
import { reportTune, type TuneReport } from '#core/report';
import { render as renderPlan } from '#core/sound';
import { writeWav } from '#formats/wav';
import { numberOption, readTunes } from './readInput';
import { liltNamed } from './report';
import { InputError, UsageError } from './usage';

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
  const tunes = readTunes(file, flags.tune, leftOut);
  if (tunes.length > 1)
    throw new UsageError(
      `--tune: expected which of the tunes X:${tunes.map(({ reference }) => reference).join(', ')} to render`,
    );
  const report = reportTune(tunes[0]!.tune, { bpm, lilt });
  if (report.unrolled.notes.length === 0) throw new InputError(`${file}:1:1: the tune has no notes to be heard`);
  const span = from === undefined && to === undefined ? null : spanOfBars(report, from ?? 0, to ?? Infinity);
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

/** Notes of some bars, counted as played through the whole tune; a pickup belongs to the bar before it, the first one is 0. */
function spanOfBars({ unrolled }: TuneReport, from: number, to: number): { from: number; to: number } {
  let count = 0;
  const numbers = unrolled.bars.map(({ isPickup }) => (isPickup ? count : ++count));
  const numberOf = new Map(unrolled.bars.map(({ passIndex, bar }, i) => [`${passIndex} ${bar}`, numbers[i]!]));
  const inside = unrolled.notes.map(({ passIndex, bar }) => {
    const number = numberOf.get(`${passIndex} ${bar}`)!;
    return number >= from && number <= to;
  });
  const first = inside.indexOf(true);
  if (first < 0 || from > to)
    throw new UsageError(
      `--from --to: expected bars from 0 to ${count}, the first before the last, got ${from} to ${to}`,
    );
  return { from: first, to: inside.lastIndexOf(true) + 1 };
}
