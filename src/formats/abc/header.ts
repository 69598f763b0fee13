import { toNumber } from '#core/base';
import { beatUnit } from '#core/tempo';
import { DANCE_TYPES, type DanceType, type Meter } from '#core/tune';
import { type ImportMessage, importMessage } from '../text';
import type { AbcTuneText } from './splitTunes';

/** What the field lines before the music say. */
export interface Header {
  readonly title: string;
  readonly composer?: string;
  readonly source?: string;
  readonly notes?: string[];
  readonly danceType: DanceType | null;
  readonly order: string | null;
}

const TYPE_NAMES: Record<string, DanceType> = {
  'double jig': 'jig',
  'single jig': 'jig',
  'hop jig': 'slip jig',
  slipjig: 'slip jig',
  'slow air': 'air',
  airs: 'air',
  lament: 'air',
  'barn dance': 'schottische',
  barndance: 'schottische',
  barndances: 'schottische',
  schottisches: 'schottische',
  schottis: 'schottische',
  'two-step': 'march',
  'two step': 'march',
  breakdowns: 'breakdown',
  strathspeys: 'strathspey',
  mazurkas: 'mazurka',
  slides: 'slide',
  reels: 'reel',
  jigs: 'jig',
  hornpipes: 'hornpipe',
  polkas: 'polka',
  marches: 'march',
  waltzes: 'waltz',
};

export function readHeader(
  { text, firstLine }: AbcTuneText,
  defaults: readonly string[],
  messages: ImportMessage[],
): Header {
  const lines = text.split('\n');
  const keyLine = lines.findIndex((line) => line.startsWith('K:'));
  const header = [...defaults, ...lines.slice(0, keyLine < 0 ? lines.length : keyLine)];
  const fields = (letter: string) =>
    header.flatMap((line) =>
      line.startsWith(`${letter}:`)
        ? [
            line
              .slice(2)
              .replace(/(^|[^\\])%.*/, '$1')
              .trim(),
          ].filter((value) => value !== '')
        : [],
    );
  const rhythm = fields('R')[0]?.toLowerCase() ?? null;
  const danceType =
    rhythm === null ? null : (DANCE_TYPES.find((type) => type === rhythm) ?? TYPE_NAMES[rhythm] ?? null);
  if (rhythm !== null && danceType === null) {
    const line = firstLine + lines.findIndex((text) => text.startsWith('R:'));
    messages.push(importMessage({ line, column: 1 }, { what: 'unknown-dance', name: rhythm }));
  }
  const notes = [
    ...fields('T')
      .slice(1)
      .map((title) => `Also called: ${title}`),
    ...fields('N'),
  ];
  const line = (words: string, most: number) => words.replace(/\s+/g, ' ').slice(0, most);
  return {
    title: line(fields('T')[0] ?? '', 300),
    composer: line(fields('C').join(', '), 300) || undefined,
    source: line(fields('S').join(', '), 1000) || undefined,
    notes: notes.length > 0 ? notes.slice(0, 200).map((note) => note.slice(0, 4000)) : undefined,
    danceType,
    order: fields('P')[0] ?? null,
  };
}

/** `Q:` in the dance's own beat; null without one. */
export function tempoOf(
  tempo: { duration?: number[]; bpm?: number } | undefined,
  { text, firstLine }: AbcTuneText,
  danceType: DanceType | null,
  meter: Meter,
  messages: ImportMessage[],
): number | null {
  if (!tempo?.bpm) return null;
  const line = text.split('\n').findIndex((row) => row.startsWith('Q:'));
  const isPlain = /^Q:\s*"?[^"=]*"?\s*\d+\s*(%.*)?$/m.test(text.split('\n')[line] ?? '');
  const beat = toNumber(beatUnit(danceType, meter));
  const unit = tempo.duration?.reduce((sum, length) => sum + length, 0) ?? beat;
  if (isPlain)
    messages.push(
      importMessage({ line: firstLine + Math.max(0, line), column: 1 }, { what: 'tempo-without-beat', bpm: tempo.bpm }),
    );
  // The parser drops what comes after the point.
  const exact = Number(/=\s*(\d+(?:\.\d+)?)/.exec(text.split('\n')[line] ?? '')?.[1] ?? tempo.bpm);
  const bpm = isPlain ? tempo.bpm : (exact * unit) / beat;
  return bpm >= 10 && bpm <= 400 ? bpm : null;
}
