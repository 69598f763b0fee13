import { divide, formatFraction, type Fraction, fraction, multiply, toNumber } from '#core/base';
import { parseChord } from '#core/harmony';
import { type Key, keyFifths, type Pitch } from '#core/pitch';
import { beatUnit } from '#core/tempo';
import {
  type Bar,
  type Meter,
  meterBeat,
  type NoteEvent,
  type NoteMark,
  type Part,
  PLACES,
  type RestEvent,
  type Tune,
  writtenBars,
} from '#core/tune';
import { STANDARD_TUNING, tuningName } from '#core/tuning';
import { directiveLines, downwards, opensWithPickup, type PlainScore, plainScore, splitLength } from '../score';
import { beamsOf } from './beams';
import { CHORD_KINDS, FIELD_PREFIX, JOINED, MARK_ELEMENTS, NOTE_TYPES } from './names';
import { buildXml, el, type XmlOut } from './xml';

/** Divisions of a quarter beyond this are not written: lengths are then rounded to them. */
const MAX_DIVISIONS = 1_000_000;

const SAID_MARKS = new Set<NoteMark>([...(Object.keys(MARK_ELEMENTS) as NoteMark[]), 'fermata']);

type Sounding = NoteEvent | RestEvent;

/**
 * A tune as MusicXML 4.0, partwise, one part. Slurs are bow slurs, locks are bow marks, strings and fingers are technical
 * marks, a tuning other than the usual one is a scordatura. What the format has no element for stands in miscellaneous
 * fields, which other programs skip, and comes back from there.
 */
export function writeMusicXml(tune: Tune): string {
  const plain = plainScore(tune);
  const bars = writtenBars(tune);
  const divisions = divisionsOf(tune);
  const events = tune.parts.flatMap(({ events: own }) => own.filter((event) => event.kind !== 'bar'));
  const state: WriteState = { tune, plain, divisions, measure: 0, isFirst: true, isTied: false };
  const measures = tune.parts.flatMap((part) => partMeasures(part, bars.get(part.name)!, state));
  const root = el('score-partwise', { version: '4.0' }, [
    el('work', [el('work-title', tune.title)]),
    el('identification', [
      ...(tune.composer ? [el('creator', { type: 'composer' }, tune.composer)] : []),
      el('encoding', [el('software', 'Morrin'), el('supports', { element: 'beam', type: 'yes' })]),
      ...(tune.source ? [el('source', tune.source)] : []),
      ...miscellaneous(tune, plain, events),
    ]),
    el('part-list', [
      el('score-part', { id: 'P1' }, [
        el('part-name', 'Fiddle'),
        el('score-instrument', { id: 'P1-I1' }, [
          el('instrument-name', 'Fiddle'),
          el('instrument-sound', 'strings.fiddle'),
        ]),
        el('midi-instrument', { id: 'P1-I1' }, [el('midi-channel', 1), el('midi-program', 41)]),
      ]),
    ]),
    el('part', { id: 'P1' }, measures),
  ]);
  return buildXml(root);
}

interface WriteState {
  readonly tune: Tune;
  readonly plain: PlainScore;
  readonly divisions: number;
  measure: number;
  isFirst: boolean;
  /** The note before is tied to the next one. */
  isTied: boolean;
}

/** The fewest divisions of a quarter in which every length is a whole number. */
function divisionsOf(tune: Tune): number {
  let divisions = 1;
  for (const { events } of tune.parts)
    for (const event of events) {
      if (event.kind === 'bar') continue;
      const { d } = multiply(event.duration, fraction(4));
      const common = lowestCommonMultiple(divisions, d);
      if (common <= MAX_DIVISIONS) divisions = common;
    }
  return divisions;
}

function lowestCommonMultiple(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return (a / x) * b;
}

/** Fields for what has no element: our own lines, and what of the head has no place. */
function miscellaneous(tune: Tune, plain: PlainScore, events: readonly Sounding[]): XmlOut[] {
  const keys = [
    tune.key,
    ...tune.parts.flatMap(({ events: own }) => own.flatMap((event) => (event.kind === 'bar' ? [event.key] : []))),
  ];
  const extras = keys.flatMap((key, i) => (key?.extra ? [[i, key.extra] as const] : []));
  const words = events.flatMap(({ chord }, i) =>
    chord !== undefined && harmonyOf(chord) === null ? [[i + 1, chord] as const] : [],
  );
  const lines = [
    ...(tune.danceType ? [['dance', tune.danceType]] : []),
    ...(tune.notes ? [['notes', JSON.stringify(tune.notes)]] : []),
    ...(extras.length > 0 ? [['extras', JSON.stringify(Object.fromEntries(extras))]] : []),
    ...(words.length > 0 ? [['words', JSON.stringify(Object.fromEntries(words))]] : []),
    ...(tuningName(tune.tuning) === tuningName(STANDARD_TUNING) ? [] : [['tuning', tuningName(tune.tuning)]]),
    ...directiveLines(tune, plain, SAID_MARKS).map((line) => /^%%morrin-(\w+) (.*)$/.exec(line)!.slice(1)),
  ];
  if (lines.length === 0) return [];
  return [
    el(
      'miscellaneous',
      lines.map(([name, value]) => el('miscellaneous-field', { name: `${FIELD_PREFIX}${name}` }, value!)),
    ),
  ];
}

function partMeasures(part: Part, bars: readonly Bar[], state: WriteState): XmlOut[] {
  const { plain } = state;
  const plays = plain.plays?.get(part.name) ?? 1;
  const once = plain.plays !== null && opensWithPickup(part);
  const isBracketed = plain.bracketed.has(part.name);
  const repeatFrom = plays > 1 ? (once ? 1 : 0) : -1;
  return bars.map((bar, i) => {
    const { event } = bar;
    const ending = isBracketed && event.ending ? event.onPlays!.join(',') : null;
    const endingOf = (other: Bar | undefined) => (other?.event.ending ? other.event.onPlays!.join(',') : null);
    const begins = ending !== null && endingOf(bars[i - 1]) !== ending;
    const ends = ending !== null && endingOf(bars[i + 1]) !== ending;
    const isLast = i === bars.length - 1;
    const repeats = plays > 1 && (ending !== null ? ends && !isLast : isLast);
    const left = [
      ...(begins ? [el('ending', { number: ending, type: 'start' })] : []),
      ...(i === repeatFrom ? [el('repeat', { direction: 'forward' })] : []),
    ];
    const style = repeats
      ? 'light-heavy'
      : isLast
        ? state.tune.parts.at(-1) === part
          ? 'light-heavy'
          : 'light-light'
        : null;
    const right = [
      ...(style ? [el('bar-style', style)] : []),
      ...(ends ? [el('ending', { number: ending, type: repeats ? 'stop' : 'discontinue' })] : []),
      ...(repeats
        ? [el('repeat', { direction: 'backward', ...(plays > 2 && ending === null ? { times: plays } : {}) })]
        : []),
    ];
    const isImplicit = toNumber(bar.duration) < bar.meter.num / bar.meter.den - 1e-9;
    const measure = el(
      'measure',
      { number: isImplicit ? `X${state.measure + 1}` : state.measure + 1, ...(isImplicit ? { implicit: 'yes' } : {}) },
      [
        ...(left.length > 0 ? [el('barline', { location: 'left' }, left)] : []),
        ...attributes(bar, state),
        ...(i === 0 && !plain.plays ? [rehearsal(part.name)] : []),
        ...barEvents(bar, state),
        ...(right.length > 0 ? [el('barline', { location: 'right' }, right)] : []),
      ],
    );
    state.measure += 1;
    state.isFirst = false;
    return measure;
  });
}

function rehearsal(name: string): XmlOut {
  return el('direction', { placement: 'above' }, [el('direction-type', [el('rehearsal', name)])]);
}

/** What holds from a measure on; the first says everything. */
function attributes({ event, meter, key }: Bar, { tune, divisions, isFirst }: WriteState): XmlOut[] {
  const [newKey, newMeter] = isFirst ? [key, meter] : [event.key, event.meter];
  const inner = [
    ...(isFirst ? [el('divisions', divisions)] : []),
    ...(newKey ? [keyElement(newKey)] : []),
    ...(newMeter ? [timeElement(newMeter)] : []),
    ...(isFirst ? [el('clef', [el('sign', 'G'), el('line', 2)])] : []),
  ];
  const directions = isFirst ? [...scordatura(tune), ...tempo(tune)] : [];
  return [...(inner.length > 0 ? [el('attributes', inner)] : []), ...directions];
}

function keyElement(key: Key): XmlOut {
  return el('key', [el('fifths', keyFifths(key)), el('mode', key.mode)]);
}

function timeElement({ num, den, symbol }: Meter): XmlOut {
  return el('time', symbol ? { symbol } : {}, [el('beats', num), el('beat-type', den)]);
}

function scordatura({ tuning }: Tune): XmlOut[] {
  if (tuningName(tuning) === tuningName(STANDARD_TUNING)) return [];
  // Strings are counted from the highest.
  const accords = tuning.map(({ letter, alter, octave }, i) =>
    el('accord', { string: tuning.length - i }, [
      el('tuning-step', letter),
      ...(alter === 0 ? [] : [el('tuning-alter', alter)]),
      el('tuning-octave', octave),
    ]),
  );
  return [el('direction', { placement: 'above' }, [el('direction-type', [el('scordatura', accords)])])];
}

function tempo({ tempoBpm, danceType, meter }: Tune): XmlOut[] {
  if (tempoBpm === null) return [];
  const unit = beatUnit(danceType, meter);
  const type = typeOf(unit);
  const words = type
    ? [el('metronome', [el('beat-unit', type.name), ...dots('beat-unit-dot', type.dots), el('per-minute', tempoBpm)])]
    : [el('words', `${formatFraction(unit)} = ${tempoBpm}`)];
  return [
    el('direction', { placement: 'above' }, [
      el('direction-type', words),
      el('sound', { tempo: tempoBpm * toNumber(unit) * 4 }),
    ]),
  ];
}

const dots = (name: string, count: number) => Array.from({ length: count }, () => el(name));

/** Type and dots of a written length; null where no note has it. */
function typeOf(length: Fraction): { name: string; dots: number } | null {
  const units = toNumber(length) * 256;
  for (const [name, plainUnits] of NOTE_TYPES)
    for (const [count, factor] of [1, 1.5, 1.75, 1.875].entries())
      if (Math.abs(units - plainUnits * factor) < 1e-9) return { name, dots: count };
  return null;
}

function barEvents(bar: Bar, state: WriteState): XmlOut[] {
  const beat = bar.meter.num === 4 && bar.meter.den === 4 ? fraction(1, 2) : meterBeat(bar.meter);
  const beams = beamsOf(bar.events, beat);
  return bar.events.flatMap((event, i) => {
    const harmony = event.chord === undefined ? null : harmonyOf(event.chord);
    const next = bar.events[i + 1]?.tuplet;
    const endsTuplet = event.tuplet !== undefined && (!next || next.first === true);
    const lengths = lengthElements(event, state.divisions);
    return [
      ...(harmony ? [harmony] : []),
      ...lengths.flatMap((length, k) => {
        const piece: Piece = { isFirst: k === 0, isLast: k === lengths.length - 1, endsTuplet };
        return event.kind === 'rest'
          ? [restElement(event, length, piece)]
          : noteElements(event, length, piece, k === 0 ? beams[i]! : [], state);
      }),
    ];
  });
}

/** Which piece of an event is written: a length that no note has takes several, tied. */
interface Piece {
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly endsTuplet: boolean;
}

interface LengthElements {
  readonly duration: XmlOut;
  /** Type, dots and what a tuplet makes of them. */
  readonly type: readonly XmlOut[];
  readonly modification: readonly XmlOut[];
}

function lengthElements({ duration, tuplet }: Sounding, divisions: number): LengthElements[] {
  const factor = tuplet ? fraction(tuplet.notes, tuplet.inTimeOf) : fraction(1);
  const written = multiply(duration, factor);
  const pieces = typeOf(written) ? [written] : splitLength(written);
  return pieces.map((piece) => {
    const type = typeOf(piece);
    const sounding = toNumber(multiply(divide(piece, factor), fraction(4 * divisions)));
    return {
      duration: el('duration', Math.max(1, Math.round(sounding))),
      type: type ? [el('type', type.name), ...dots('dot', type.dots)] : [],
      modification: tuplet
        ? [el('time-modification', [el('actual-notes', tuplet.notes), el('normal-notes', tuplet.inTimeOf)])]
        : [],
    };
  });
}

function tupletMarks({ tuplet }: Sounding, { isFirst, isLast, endsTuplet }: Piece): XmlOut[] {
  return [
    ...(tuplet?.first && isFirst ? [el('tuplet', { type: 'start', number: 1 })] : []),
    ...(endsTuplet && isLast ? [el('tuplet', { type: 'stop', number: 1 })] : []),
    ...(isFirst ? [] : [el('other-notation', { type: 'single' }, JOINED)]),
  ];
}

function restElement(event: RestEvent, { duration, type, modification }: LengthElements, piece: Piece): XmlOut {
  const marks = tupletMarks(event, piece);
  return el('note', [
    el('rest'),
    duration,
    el('voice', 1),
    ...type,
    ...modification,
    ...(marks.length > 0 ? [el('notations', marks)] : []),
  ]);
}

function pitchElement({ letter, alter, octave }: Pitch): XmlOut {
  return el('pitch', [el('step', letter), ...(alter === 0 ? [] : [el('alter', alter)]), el('octave', octave)]);
}

/** Grace notes, the note, and the other notes of its chord. */
function noteElements(
  note: NoteEvent,
  { duration, type, modification }: LengthElements,
  piece: Piece,
  beams: readonly XmlOut[],
  state: WriteState,
): XmlOut[] {
  const { slurs } = state.plain;
  // A slur that runs on into a later ending is written anew there, since each sign must have its partner.
  const resumes = slurs.resumes.has(note.id);
  const opens = slurs.opens.has(note.id) || (resumes && !slurs.closes.has(note.id));
  const { isFirst, isLast } = piece;
  const ties = note.tie === true || !isLast;
  const graces = (isFirst ? (note.graceNotes ?? []) : []).map((pitch) =>
    el('note', [el('grace', { slash: 'yes' }), pitchElement(pitch), el('voice', 1), el('type', 'eighth')]),
  );
  const technical = [
    ...(note.lock === 'up' ? [el('up-bow')] : note.lock === 'down' ? [el('down-bow')] : []),
    ...(note.finger === 0 ? [el('open-string')] : note.finger !== undefined ? [el('fingering', note.finger)] : []),
    ...(note.place ? [el('string', PLACES.length - PLACES.indexOf(note.place))] : []),
  ];
  const inGroup = (group: 'articulations' | 'ornaments') =>
    (note.marks ?? []).flatMap((mark) => {
      const element = MARK_ELEMENTS[mark];
      return element?.[0] === group ? [el(element[1])] : [];
    });
  const grouped = (name: string, inner: XmlOut[]) => (inner.length > 0 ? [el(name, inner)] : []);
  const tie = [...(state.isTied ? [el('tie', { type: 'stop' })] : []), ...(ties ? [el('tie', { type: 'start' })] : [])];
  const wasTied = state.isTied;
  state.isTied = ties;
  const notations = [
    ...(wasTied ? [el('tied', { type: 'stop' })] : []),
    ...(ties ? [el('tied', { type: 'start' })] : []),
    ...(isLast && slurs.closes.has(note.id) && !resumes ? [el('slur', { type: 'stop', number: 1 })] : []),
    ...(isFirst && opens ? [el('slur', { type: 'start', number: 1 })] : []),
    ...tupletMarks(note, piece),
    ...(isFirst
      ? [
          ...grouped('ornaments', inGroup('ornaments')),
          ...grouped('technical', technical),
          ...grouped('articulations', inGroup('articulations')),
          ...(note.marks?.includes('fermata') ? [el('fermata')] : []),
        ]
      : []),
  ];
  const [top, ...others] = downwards(note);
  const main = el('note', [
    pitchElement(top),
    duration,
    ...tie,
    el('voice', 1),
    ...type,
    ...modification,
    ...beams,
    ...grouped('notations', notations),
  ]);
  const stops = others.map((pitch) =>
    el('note', [
      el('chord'),
      pitchElement(pitch),
      duration,
      ...tie,
      el('voice', 1),
      ...type,
      ...modification,
      ...grouped('notations', [
        ...(wasTied ? [el('tied', { type: 'stop' })] : []),
        ...(ties ? [el('tied', { type: 'start' })] : []),
        ...(isFirst ? [] : [el('other-notation', { type: 'single' }, JOINED)]),
      ]),
    ]),
  );
  return [...graces, main, ...stops];
}

/** A chord symbol as an element; null where it is a word of advice. */
function harmonyOf(symbol: string): XmlOut | null {
  const found = /^([A-G])([#b]?)([^/]*)(?:\/([A-G])([#b]?))?$/.exec(symbol);
  if (!found || !parseChord(symbol)) return null;
  const [, step, sign, kind, bass, bassSign] = found as unknown as [string, string, string, string, string?, string?];
  const alter = (name: string, value: string | undefined) =>
    value === '#' ? [el(name, 1)] : value === 'b' ? [el(name, -1)] : [];
  return el('harmony', [
    el('root', [el('root-step', step), ...alter('root-alter', sign)]),
    el('kind', { text: kind }, CHORD_KINDS[kind] ?? 'other'),
    ...(bass ? [el('bass', [el('bass-step', bass), ...alter('bass-alter', bassSign)])] : []),
  ]);
}
