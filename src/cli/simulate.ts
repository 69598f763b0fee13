import { writeFileSync } from 'node:fs';
import { truthSchema } from '#contract/take';
import type { TuneReport } from '#core/report';
import {
  choosePlace,
  type Mistake,
  mistakeAt,
  placesOf,
  PLAYER_NAMES,
  simulate as play,
  type Truth,
} from '#core/simulatedPlayer';
import { MISTAKE_KINDS, type MistakeKind } from '#core/take';
import { writeWav } from '#formats/wav';
import { isMistakeKind } from '#words/take';
import { numberOption } from './readInput';
import { type StretchFlags, stretchOf } from './stretch';
import { UsageError } from './usage';

export interface SimulateFlags extends StretchFlags {
  readonly out?: string;
  readonly truth?: string;
  readonly player?: string;
  readonly mistake?: readonly string[];
  readonly noise?: string;
  readonly room?: string;
  readonly drift?: string;
  readonly seed?: string;
}

const SAMPLE_RATE = 44100;

/** `simulate FILE --out take.wav`: a take of the simulated player, and the truth about it. */
export function simulate(file: string, flags: SimulateFlags, leftOut: string[]): Uint8Array {
  if (!flags.out || !/\.wav$/i.test(flags.out))
    throw new UsageError(`--out: expected the name of a .wav file to write, got ${flags.out ?? 'nothing'}`);
  const player = PLAYER_NAMES.find((name) => name === (flags.player ?? 'steady'));
  if (!player) throw new UsageError(`--player: expected ${PLAYER_NAMES.join(', ')}, got ${flags.player}`);
  const seed = numberOption('seed', flags.seed, 0, 2 ** 31) ?? 1;
  const { report, span, loops, a4 } = stretchOf(file, flags, leftOut);
  const { samples, truth } = play(report, {
    player,
    seed,
    span: span ?? undefined,
    loops,
    a4,
    signalToNoise: numberOption('noise', flags.noise, 0, 120) ?? null,
    room: numberOption('room', flags.room, 0, 5),
    driftPercent: numberOption('drift', flags.drift, -50, 50),
    mistakes: (flags.mistake ?? []).map((text, i) =>
      mistakeNamed(report, text, { seed: seed + i, span: span ?? undefined }),
    ),
    sampleRate: SAMPLE_RATE,
  });
  if (flags.truth) writeFileSync(flags.truth, truthJson(truth));
  return writeWav(samples, SAMPLE_RATE);
}

/** `KIND[@NOTE[:PASS]]`: NOTE is a written note's id or a played note's number; where none is said, a seeded one that is fit for it. */
function mistakeNamed(
  report: TuneReport,
  text: string,
  { seed, span }: { readonly seed: number; readonly span?: { readonly from: number; readonly to: number } },
): Mistake {
  const [kind, place] = text.split('@', 2) as [string, string?];
  if (!isMistakeKind(kind)) throw new UsageError(`--mistake: expected one of ${MISTAKE_KINDS.join(', ')}, got ${kind}`);
  if (place !== undefined) return mistakeAt(kind, placeNamed(report, kind, place));
  const index = choosePlace(report, kind, seed, span);
  if (index === null) throw new UsageError(`--mistake: the tune has no note on which ${kind} could be made`);
  return mistakeAt(kind, index);
}

function placeNamed(report: TuneReport, kind: MistakeKind, place: string): number {
  const [note, pass] = place.split(':', 2) as [string, string?];
  const { notes } = report.unrolled;
  const found = /^\d+$/.test(note)
    ? notes[Number(note)]
    : notes.find((one) => one.ids.includes(note) && (pass === undefined || one.pass === Number(pass)));
  if (!found)
    throw new UsageError(
      `--mistake: the tune has no note ${place}; expected an id such as n12, n12:2, or 0 to ${notes.length - 1}`,
    );
  if (!placesOf(report, kind).includes(found.index))
    throw new UsageError(
      `--mistake: ${kind} cannot be made on note ${place}: expected one such as ${placesOf(report, kind).slice(0, 5).join(', ') || 'none of this tune'}`,
    );
  return found.index;
}

function truthJson({ notes, mistakes }: Truth): string {
  const counted = <T extends { readonly loop: number }>(one: T) => ({ ...one, loop: one.loop + 1 });
  return `${JSON.stringify(truthSchema.parse({ notes: notes.map(counted), mistakes: mistakes.map(counted) }))}\n`;
}
