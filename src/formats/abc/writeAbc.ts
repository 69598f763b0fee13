import { type Fraction, divide, formatFraction, fraction, multiply } from '#core/base';
import { joiningLink } from '#core/bowing';
import { type Key, LETTERS, type Pitch, alterInKey, staffStep } from '#core/pitch';
import { beatUnit } from '#core/tempo';
import {
  type Bar,
  type Link,
  type NoteEvent,
  type Part,
  type RestEvent,
  type Tune,
  meterName,
  writtenBars,
} from '#core/tune';
import { STANDARD_TUNING, tuningName } from '#core/tuning';
import { MARK_SIGNS } from './markSigns';
import { directiveLines } from './directives';

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
  const plain = simplePlays(tune);
  const bars = writtenBars(tune);
  const { body, links } = writeBody(tune, bars, plain);
  const tempo =
    tune.tempoBpm === null
      ? []
      : [`Q:${formatFraction(beatUnit(tune.danceType, tune.meter))}=${Math.round(tune.tempoBpm * 100) / 100}`];
  const header = [
    `X:${reference}`,
    `T:${oneLine(tune.title)}`,
    ...(tune.composer ? [`C:${oneLine(tune.composer)}`] : []),
    ...(tune.source ? [`S:${oneLine(tune.source)}`] : []),
    ...(tune.notes ?? []).map((note) =>
      note.startsWith('Also called: ') ? `T:${oneLine(note.slice(13))}` : `N:${oneLine(note)}`,
    ),
    ...(tune.danceType ? [`R:${tune.danceType}`] : []),
    `M:${tune.meter.symbol === 'common' ? 'C' : tune.meter.symbol === 'cut' ? 'C|' : meterName(tune.meter)}`,
    'L:1/8',
    ...tempo,
    ...(plain ? [] : [`P:${tune.form.join('.')}`]),
    ...(tuningName(tune.tuning) === tuningName(STANDARD_TUNING) ? [] : [`%%morrin-tuning ${tuningName(tune.tuning)}`]),
    ...directiveLines(tune, links),
    `K:${keyField(tune.key)}`,
  ];
  return `${[...header, ...body].join('\n')}\n`;
}

/** Plays of each part where the form is simply each part in turn, one or two times or as its endings say; else null. */
function simplePlays(tune: Tune): Map<string, number> | null {
  const runs: { name: string; plays: number }[] = [];
  for (const name of tune.form) {
    const last = runs[runs.length - 1];
    if (last?.name === name) last.plays += 1;
    else runs.push({ name, plays: 1 });
  }
  const isSimple =
    runs.length === tune.parts.length &&
    runs.every(({ name, plays }, i) => {
      const part = tune.parts[i]!;
      const endings = Math.max(
        0,
        ...part.events.flatMap((event) => (event.kind === 'bar' && event.ending ? (event.onPlays ?? []) : [])),
      );
      return (
        part.name === name && name === String.fromCharCode(65 + i) && (endings > 0 ? endings === plays : plays <= 2)
      );
    });
  return isSimple ? new Map(runs.map(({ name, plays }) => [name, plays])) : null;
}

function oneLine(text: string): string {
  return text.replace(/\s+/g, ' ').replace(/%/g, '\\%').trim();
}

function keyField(key: Key): string {
  const tonic = `${key.letter}${key.alter === 1 ? '#' : key.alter === -1 ? 'b' : ''}${MODE_SUFFIX[key.mode]}`;
  const extra = (key.extra ?? []).map(({ letter, alter }) => ` ${ACCIDENTAL_SIGNS[alter]}${letter.toLowerCase()}`);
  return tonic + extra.join('');
}

function writeBody(
  tune: Tune,
  bars: ReadonlyMap<string, readonly Bar[]>,
  plays: ReadonlyMap<string, number> | null,
): { body: string[]; links: Map<string, Link> } {
  const body: string[] = [];
  const links = new Map<string, Link>();
  const notes = tune.parts.flatMap((part) => part.events).filter((event) => event.kind !== 'bar');
  const strokes = slurSigns(notes);
  let before: NoteEvent | null = null;
  let restBetween = false;
  for (const part of tune.parts) {
    if (!plays) body.push(`P:${part.name}`);
    const repeats = (plays?.get(part.name) ?? 1) > 1;
    let line = repeats && !opensWithPickup(part) ? '|:' : '';
    const list = bars.get(part.name)!;
    for (const [i, bar] of list.entries()) {
      const previous = list[i - 1];
      if (bar.event.ending && String(previous?.event.onPlays) !== String(bar.event.onPlays))
        line += `[${bar.event.onPlays!.join(',')} `;
      if (bar.event.meter)
        line += `[M:${bar.event.meter.symbol === 'common' ? 'C' : bar.event.meter.symbol === 'cut' ? 'C|' : meterName(bar.event.meter)}]`;
      if (bar.event.key) line += `[K:${keyField(bar.event.key)}]`;
      const held = new Map<string, number>();
      let sinceBeat = 0;
      for (const event of bar.events) {
        if (event.kind === 'note') {
          const slurred = strokes.inSlur.has(event.id) && before !== null;
          links.set(event.id, before === null ? 'start' : slurred ? joiningLink(before, event, restBetween) : 'change');
          before = event;
          restBetween = false;
        } else {
          restBetween = true;
        }
        const beat = bar.meter.den === 8 ? 0.375 : 0.25;
        line += writeEvent(event, bar.key, held, strokes);
        sinceBeat += event.duration.n / event.duration.d;
        if (sinceBeat >= beat - 1e-9) {
          line += ' ';
          sinceBeat = 0;
        }
      }
      line = `${line.trimEnd()} ${closingSign(list, i, repeats, opensWithPickup(part))} `;
      if ((i + 1) % 4 === 0 || i === list.length - 1) {
        body.push(line.trim());
        line = '';
      }
    }
  }
  return { body, links };
}

function opensWithPickup(part: Part): boolean {
  const first = part.events[0];
  return first?.kind === 'bar' && first.onPlays !== undefined && !first.ending;
}

function closingSign(list: readonly Bar[], i: number, repeats: boolean, pickup: boolean): string {
  const here = list[i]!.event;
  const next = list[i + 1]?.event;
  if (pickup && i === 0 && repeats) return '|:';
  const endingEnds = here.ending && String(next?.onPlays) !== String(here.onPlays);
  if (next) return endingEnds && repeats ? ':|' : '|';
  return repeats && !here.ending ? ':|' : '||';
}

interface SlurSigns {
  readonly opens: ReadonlySet<string>;
  readonly closes: ReadonlySet<string>;
  readonly inSlur: ReadonlySet<string>;
}

/** Where slur signs open and close so that each shared stroke stands under one. */
function slurSigns(events: readonly (NoteEvent | RestEvent)[]): SlurSigns {
  const opens = new Set<string>();
  const closes = new Set<string>();
  const inSlur = new Set<string>();
  let before: NoteEvent | null = null;
  let inside = false;
  for (const event of events) {
    if (event.kind !== 'note') continue;
    const joins = before !== null && (event.link === 'slur' || event.link === 'hook');
    if (joins) {
      if (!inside) opens.add(before!.id);
      inSlur.add(event.id);
    } else if (inside && before) {
      closes.add(before.id);
    }
    inside = joins;
    before = event;
  }
  if (inside && before) closes.add(before.id);
  return { opens, closes, inSlur };
}

function writeEvent(
  event: NoteEvent | RestEvent,
  key: Key,
  held: Map<string, number>,
  { opens, closes }: SlurSigns,
): string {
  const { tuplet } = event;
  const tupletSign = tuplet?.first ? `(${tuplet.notes}:${tuplet.inTimeOf}:${tuplet.notes}` : '';
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
