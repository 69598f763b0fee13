import { divide, formatFraction, type Fraction, fraction, multiply, toNumber } from '#core/base';
import { alterInKey, type Key, LETTERS, type Pitch, staffStep } from '#core/pitch';
import { beatUnit } from '#core/tempo';
import {
  type Bar,
  type Meter,
  meterBeat,
  meterName,
  type NoteEvent,
  type NoteMark,
  type RestEvent,
  type Tune,
  writtenBars,
} from '#core/tune';
import { STANDARD_TUNING, tuningName } from '#core/tuning';
import { directiveLines, opensWithPickup, type PlainScore, plainScore } from '../score';
import { MARK_SIGNS } from './markSigns';

const SAID_MARKS = new Set(Object.keys(MARK_SIGNS) as NoteMark[]);

const UNIT = fraction(1, 8);
const MODE_SUFFIX = {
  major: '',
  minor: 'm',
  dorian: 'dor',
  mixolydian: 'mix',
  phrygian: 'phr',
  lydian: 'lyd',
  locrian: 'loc',
};
const ACCIDENTAL_SIGNS: Record<number, string> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' };
/**
 * A tune as ABC that reads back as the same tune. Slurs are bow slurs, locks are `u` and `v`; what ABC has no sign
 * for goes into `%%morrin-…` lines. Repeat signs stand where the form is each part in turn; else `P:` gives the order.
 */
export function writeAbc(tune: Tune, reference = '1'): string {
  const plain = plainScore(tune);
  const labels = partLabels(tune);
  const order = tune.form.map((name) => labels.get(name)!);
  const tempo =
    tune.tempoBpm === null ? [] : [`Q:${formatFraction(beatUnit(tune.danceType, tune.meter))}=${tune.tempoBpm}`];
  const header = [
    `X:${reference}`,
    `T:${oneLine(tune.title)}`,
    ...(tune.composer ? [`C:${oneLine(tune.composer)}`] : []),
    ...(tune.source ? [`S:${oneLine(tune.source)}`] : []),
    ...(tune.notes ?? []).map((note) =>
      note.startsWith('Also called: ') ? `T:${oneLine(note.slice(13))}` : `N:${oneLine(note)}`,
    ),
    ...(tune.danceType ? [`R:${tune.danceType}`] : []),
    `M:${meterField(tune.meter)}`,
    'L:1/8',
    ...tempo,
    ...(plain.plays || order.some((label) => label.length > 1) ? [] : [`P:${order.join('.')}`]),
    ...(tuningName(tune.tuning) === tuningName(STANDARD_TUNING) ? [] : [`%%morrin-tuning ${tuningName(tune.tuning)}`]),
    ...directiveLines(tune, plain, SAID_MARKS),
    `K:${keyField(tune.key)}`,
  ];
  return `${[...header, ...writeBody(tune, plain)].join('\n')}\n`;
}

/** What a part is called in the body: its own name where all are single letters, else by its place. */
function partLabels(tune: Tune): Map<string, string> {
  const isPlain = tune.parts.every(({ name }) => /^[A-Za-z]$/.test(name));
  const byPlace = (i: number) => `${String.fromCharCode(65 + (i % 26))}${i < 26 ? '' : Math.floor(i / 26) + 1}`;
  return new Map(tune.parts.map(({ name }, i) => [name, isPlain ? name : byPlace(i)]));
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/%/g, '\\%').trim();
}

function keyField(key: Key): string {
  const tonic = `${key.letter}${key.alter === 1 ? '#' : key.alter === -1 ? 'b' : ''}${MODE_SUFFIX[key.mode]}`;
  const extra = (key.extra ?? []).map(({ letter, alter }) => ` ${ACCIDENTAL_SIGNS[alter]}${letter.toLowerCase()}`);
  return tonic + extra.join('');
}

function writeBody(tune: Tune, plain: PlainScore): string[] {
  const body: string[] = [];
  const labels = partLabels(tune);
  const bars = writtenBars(tune);
  for (const part of tune.parts) {
    if (!plain.plays) body.push(`P:${labels.get(part.name)}`);
    const repeats = (plain.plays?.get(part.name) ?? 1) > 1;
    const once = plain.plays !== null && opensWithPickup(part);
    const isBracketed = plain.bracketed.has(part.name);
    let line = repeats && !once ? '|:' : '';
    const list = bars.get(part.name)!;
    for (const [i, bar] of list.entries()) {
      const previous = list[i - 1];
      if (isBracketed && bar.event.ending && String(previous?.event.onPlays) !== String(bar.event.onPlays))
        line += `[${bar.event.onPlays!.join(',')} `;
      if (bar.event.meter) line += `[M:${meterField(bar.event.meter)}]`;
      if (bar.event.key) line += `[K:${keyField(bar.event.key)}]`;
      line = `${(line + writeEvents(bar, plain)).trimEnd()} ${closingSign(list, i, repeats, once)} `;
      if ((i + 1) % 4 === 0 || i === list.length - 1) {
        body.push(line.trim());
        line = '';
      }
    }
  }
  return body;
}

function meterField(meter: Meter): string {
  return meter.symbol === 'common' ? 'C' : meter.symbol === 'cut' ? 'C|' : meterName(meter);
}

/** The events of a bar, a space after each beat; room without sound for a bar that is empty. */
function writeEvents(bar: Bar, plain: PlainScore): string {
  if (bar.events.length === 0) return 'y';
  const held = new Map<string, number>();
  const beat = toNumber(meterBeat(bar.meter));
  let sinceBeat = 0;
  let text = '';
  for (const [i, event] of bar.events.entries()) {
    const next = bar.events.findIndex(({ tuplet }, k) => k > i && (!tuplet || tuplet.first));
    text += writeEvent(event, bar.key, held, plain.slurs, (next < 0 ? bar.events.length : next) - i);
    sinceBeat += event.duration.n / event.duration.d;
    if (sinceBeat >= beat - 1e-9) {
      text += ' ';
      sinceBeat = 0;
    }
  }
  return text;
}

function closingSign(list: readonly Bar[], i: number, repeats: boolean, pickup: boolean): string {
  const here = list[i]!.event;
  const next = list[i + 1]?.event;
  if (pickup && i === 0 && repeats) return '|:';
  const endingEnds = here.ending && String(next?.onPlays) !== String(here.onPlays);
  if (next) return endingEnds && repeats ? ':|' : '|';
  return repeats && !here.ending ? ':|' : '||';
}

function writeEvent(
  event: NoteEvent | RestEvent,
  key: Key,
  held: Map<string, number>,
  { opens, closes }: PlainScore['slurs'],
  inTuplet: number,
): string {
  const { tuplet } = event;
  const tupletSign = tuplet?.first ? `(${tuplet.notes}:${tuplet.inTimeOf}:${inTuplet}` : '';
  const chord = event.chord ? `"${event.chord.replace(/"/g, "'")}"` : '';
  const written = tuplet ? multiply(event.duration, fraction(tuplet.notes, tuplet.inTimeOf)) : event.duration;
  const length = abcLength(written);
  if (event.kind === 'rest') return `${tupletSign}${chord}z${length}`;
  const pitch = (p: Pitch) => writePitch(p, key, held);
  const marks = (event.marks ?? []).map((mark) => MARK_SIGNS[mark] ?? '').join('');
  const lock = event.lock === 'up' ? 'u' : event.lock === 'down' ? 'v' : '';
  const finger = event.finger === undefined ? '' : `!${event.finger}!`;
  const graces = event.graceNotes ? `{${event.graceNotes.map(pitch).join('')}}` : '';
  const all = [event.pitch, ...(event.stops ?? [])].map(pitch);
  const head = all.length > 1 ? `[${all.join('')}]` : all[0]!;
  return `${tupletSign}${opens.has(event.id) ? '(' : ''}${chord}${graces}${lock}${finger}${marks}${head}${length}${event.tie ? '-' : ''}${closes.has(event.id) ? ')' : ''}`;
}

/** An accidental is written where the bar so far, in any octave, or the key says otherwise. */
function writePitch(pitch: Pitch, key: Key, held: Map<string, number>): string {
  const expected = held.get(pitch.letter) ?? alterInKey(key, pitch.letter);
  const sign = pitch.alter === expected ? '' : ACCIDENTAL_SIGNS[pitch.alter]!;
  if (sign !== '') held.set(pitch.letter, pitch.alter);
  const octave = Math.floor(staffStep(pitch) / 7);
  const letter = LETTERS[staffStep(pitch) - 7 * octave]!;
  if (octave >= 5) return `${sign}${letter.toLowerCase()}${"'".repeat(octave - 5)}`;
  return `${sign}${letter}${','.repeat(4 - octave)}`;
}

function abcLength(length: Fraction): string {
  const { n, d } = divide(length, UNIT);
  return `${n === 1 && d !== 1 ? '' : n === 1 ? '' : n}${d === 1 ? '' : `/${d === 2 ? '' : d}`}`;
}
