import {
  Accidental,
  BarlineType,
  Beam,
  Dot,
  Formatter,
  GraceNote,
  GraceNoteGroup,
  Renderer,
  Stave,
  StaveNote,
  Stem,
  Voice,
} from 'vexflow/core';
import { type Fraction, divide, floorQuotient, fraction, multiply, toNumber, ZERO, add } from '#core/base';
import { type Key, type Pitch, alterInKey, keyFifths, midiOf } from '#core/pitch';
import { type Meter, type NoteEvent, type RestEvent, isCompound } from '#core/tune';
import type { BarBox, LineGeometry, NoteBox, Obstacle, TupletSign } from './geometry';
import type { LineBar, LineSpec } from './lines';

/** Top staff line in the drawing; what stands above is cut to need by the line's view. */
export const STAFF_TOP = 90;
const STAFF_SPACE = 10;
/** VexFlow keeps four spaces over the top line. */
const STAVE_Y = STAFF_TOP - 4 * STAFF_SPACE;
const DRAWING_HEIGHT = 240;
/** Room after a bar line before the first note, and least room from note to note. */
const BAR_LEAD = 14;
const SIGN_LEAD = 12;
const LEAST_ADVANCE = 15;
/** Lines with few bars keep the spacing of a full one up to this stretch. */
const MOST_STRETCH = 1.15;

const MAJOR_KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
const BASE_DURATIONS: readonly [Fraction, string][] = [
  [fraction(2), '1/2'],
  [fraction(1), 'w'],
  [fraction(1, 2), 'h'],
  [fraction(1, 4), 'q'],
  [fraction(1, 8), '8'],
  [fraction(1, 16), '16'],
  [fraction(1, 32), '32'],
  [fraction(1, 64), '64'],
];
const ACCIDENTAL_SIGNS: Record<number, string> = { [-2]: 'bb', [-1]: 'b', 0: 'n', 1: '#', 2: '##' };

interface Drawn {
  readonly event: NoteEvent | RestEvent;
  readonly note: StaveNote;
  readonly graces: readonly GraceNote[];
  readonly weight: number;
  readonly leftExtra: number;
}

interface DrawnBar {
  readonly bar: LineBar;
  readonly drawn: readonly Drawn[];
  readonly beams: readonly Beam[];
  readonly tuplets: readonly TupletGroup[];
}

/** Draws one line into an empty element and tells where everything came to stand. */
export function engraveLine(element: HTMLElement, line: LineSpec, width: number): LineGeometry {
  element.replaceChildren();
  const renderer = new Renderer(element as HTMLDivElement, Renderer.Backends.SVG);
  renderer.resize(width, DRAWING_HEIGHT);
  const context = renderer.getContext();
  const bars = line.bars.map(prepareBar);
  const staves = layOutStaves(line, bars, width);
  const boxes: BarBox[] = [];
  const notes: NoteBox[] = [];
  const rests: { id: string; x: number }[] = [];
  const obstacles: Obstacle[] = [];
  const tupletSigns: TupletSign[] = [];
  for (const [i, { bar, drawn, beams, tuplets }] of bars.entries()) {
    const { stave, x, endX, contentX, noteXs } = staves[i]!;
    stave.setContext(context).draw();
    boxes.push({ id: bar.id, x, endX, contentX });
    for (const { note } of drawn) note.setStave(stave).setContext(context);
    placeNotes(
      drawn.map(({ note }) => note),
      noteXs,
      stave,
    );
    for (const { note } of drawn) note.draw();
    for (const beam of beams) beam.setContext(context).draw();
    measureBar(drawn, beams, i, notes, rests, obstacles);
    for (const group of tuplets) {
      const { sign, obstacle } = tupletSign(group);
      tupletSigns.push(sign);
      obstacles.push(obstacle);
    }
  }
  const first = [...notes.map(({ x }) => x), ...rests.map(({ x }) => x)].reduce((a, b) => Math.min(a, b), width);
  return {
    width,
    staffTop: STAFF_TOP,
    staffBottom: STAFF_TOP + 4 * STAFF_SPACE,
    notes,
    rests,
    bars: boxes,
    tuplets: tupletSigns,
    obstacles,
    musicX: first,
  };
}

function prepareBar(bar: LineBar): DrawnBar {
  const held = new Map<string, number>();
  const drawn = bar.events.map((event) => prepareEvent(event, bar.key, held));
  const beams = beamGroups(drawn, bar.meter).map((group) => new Beam(group));
  return { bar, drawn, beams, tuplets: tupletsOf(drawn) };
}

function prepareEvent(event: NoteEvent | RestEvent, key: Key, held: Map<string, number>): Drawn {
  const written = event.tuplet
    ? multiply(event.duration, fraction(event.tuplet.notes, event.tuplet.inTimeOf))
    : event.duration;
  const { base, dots } = writtenDuration(written);
  if (event.kind === 'rest') {
    const note = new StaveNote({ keys: ['b/4'], duration: `${base}r`, dots });
    for (let k = 0; k < dots; k++) Dot.buildAndAttach([note]);
    return { event, note, graces: [], weight: spacingWeight(event.duration), leftExtra: 0 };
  }
  const pitches = [...(event.stops ?? []), event.pitch].sort((a, b) => midiOf(a) - midiOf(b));
  const note = new StaveNote({ keys: pitches.map(vexKey), duration: base, dots, autoStem: true });
  note.setAttribute('id', event.id);
  let leftExtra = 0;
  for (const [i, pitch] of pitches.entries()) {
    const sign = accidentalFor(pitch, key, held);
    if (sign === null) continue;
    note.addModifier(new Accidental(sign), i);
    leftExtra = 11;
  }
  for (let k = 0; k < dots; k++) Dot.buildAndAttach([note], { all: true });
  const graces = (event.graceNotes ?? []).map((pitch) => {
    const grace = new GraceNote({ keys: [vexKey(pitch)], duration: '8', slash: event.graceNotes!.length === 1 });
    const sign = accidentalFor(pitch, key, held);
    if (sign !== null) grace.addModifier(new Accidental(sign), 0);
    return grace;
  });
  if (graces.length > 0) {
    const group = new GraceNoteGroup(graces, false);
    if (graces.length > 1) group.beamNotes();
    note.addModifier(group, 0);
    leftExtra += 14 * graces.length + 2;
  }
  return { event, note, graces, weight: spacingWeight(event.duration), leftExtra };
}

function vexKey({ letter, octave }: Pitch): string {
  return `${letter.toLowerCase()}/${octave}`;
}

/** The nearest plain or dotted value not longer than the written length. */
function writtenDuration(length: Fraction): { base: string; dots: number } {
  for (const [base, name] of BASE_DURATIONS) {
    const ratio = toNumber(divide(length, base));
    if (ratio < 1 - 1e-9) continue;
    return { base: name, dots: ratio >= 1.75 - 1e-9 ? 2 : ratio >= 1.5 - 1e-9 ? 1 : 0 };
  }
  return { base: '64', dots: 0 };
}

/** Space after a note grows more slowly than its length. */
function spacingWeight(duration: Fraction): number {
  return Math.pow(Math.max(toNumber(duration), 1 / 32) * 8, 0.62);
}

/** Accidental to show: where the bar so far at this height, or the key, says otherwise; courtesy in other octaves. */
function accidentalFor(pitch: Pitch, key: Key, held: Map<string, number>): string | null {
  const slot = `${pitch.letter}${pitch.octave}`;
  const inKey = alterInKey(key, pitch.letter);
  const expected = held.get(slot) ?? inKey;
  const elsewhere = [...held].some(
    ([name, alter]) => name !== slot && name[0] === pitch.letter && alter !== pitch.alter,
  );
  if (pitch.alter === expected && !(elsewhere && !held.has(slot))) return null;
  held.set(slot, pitch.alter);
  return ACCIDENTAL_SIGNS[pitch.alter] ?? null;
}

/** Beams by the meter: halves of a bar in 4/4 and 2/2, dotted quarters in compound meters, else quarters. */
function beamGroups(drawn: readonly Drawn[], meter: Meter): StaveNote[][] {
  const unit = isCompound(meter)
    ? fraction(3, 8)
    : meter.num % 2 === 0 && meter.num / meter.den >= 1
      ? fraction(1, 2)
      : fraction(1, 4);
  const groups: StaveNote[][] = [];
  let open: StaveNote[] = [];
  let openUnit = -1;
  let at = ZERO;
  const close = () => {
    if (open.length > 1) groups.push(open);
    open = [];
  };
  for (const { event, note } of drawn) {
    const unitNumber = floorQuotient(at, unit);
    const isShort = event.kind === 'note' && /^(8|16|32|64)$/.test(note.getDuration());
    if (unitNumber !== openUnit || !isShort) close();
    openUnit = unitNumber;
    if (isShort) open.push(note);
    at = add(at, event.duration);
  }
  close();
  for (const group of groups) {
    const direction = groupStem(group);
    for (const note of group) note.setStemDirection(direction);
  }
  return groups;
}

/** One stem direction for a beam: away from the note farthest from the middle line. */
function groupStem(group: readonly StaveNote[]): number {
  let farthest = 0;
  for (const note of group)
    for (const props of note.getKeyProps()) {
      const distance = props.line - 3;
      if (Math.abs(distance) > Math.abs(farthest) || (distance > 0 && distance === -farthest)) farthest = distance;
    }
  return farthest >= 0 ? Stem.DOWN : Stem.UP;
}

interface TupletGroup {
  readonly number: number;
  readonly members: readonly StaveNote[];
}

function tupletsOf(drawn: readonly Drawn[]): TupletGroup[] {
  const tuplets: { number: number; members: StaveNote[] }[] = [];
  let isOpen = false;
  for (const { event, note } of drawn) {
    if (event.tuplet && (event.tuplet.first || !isOpen)) tuplets.push({ number: event.tuplet.notes, members: [] });
    if (event.tuplet) tuplets[tuplets.length - 1]!.members.push(note);
    isOpen = event.tuplet !== undefined;
  }
  return tuplets.filter(({ members }) => members.length > 1);
}

/** The number of a tuplet at its beam or, where there is none, in a bracket on the side of the stems. */
function tupletSign({ number, members }: TupletGroup): { sign: TupletSign; obstacle: Obstacle } {
  const first = members[0]!;
  const last = members[members.length - 1]!;
  const above = first.getStemDirection() === Stem.UP;
  const text = String(number);
  const [left, right] = [first.getNoteHeadBeginX(), last.getNoteHeadEndX()];
  const edge = (note: StaveNote) => {
    const { topY, baseY } = note.hasStem() ? note.getStemExtents() : { topY: 0, baseY: 0 };
    const ys = note.hasStem() ? [topY, baseY, ...note.getYs()] : note.getYs();
    return above ? Math.min(...ys) : Math.max(...ys);
  };
  if (members.every((note) => note.hasBeam())) {
    const stemX = (note: StaveNote) => (above ? note.getNoteHeadEndX() : note.getNoteHeadBeginX());
    const x = (stemX(first) + stemX(last)) / 2;
    const beamY = (edge(first) + edge(last)) / 2;
    const y = above ? beamY - 6 : beamY + 6 + TUPLET_HEIGHT;
    const obstacle = { left: x - 6, right: x + 6, top: y - TUPLET_HEIGHT - 1, bottom: y + 2 };
    return { sign: { x, y, text, bracket: null }, obstacle };
  }
  const edges = members.map(edge);
  const lineY = above ? Math.min(...edges, STAFF_TOP) - 8 : Math.max(...edges, STAFF_TOP + 4 * STAFF_SPACE) + 8;
  const hook = above ? 5 : -5;
  const x = (left + right) / 2;
  const bracket = `M${left} ${lineY + hook}V${lineY}H${x - 8}M${x + 8} ${lineY}H${right}V${lineY + hook}`;
  const half = TUPLET_HEIGHT / 2;
  const obstacle = { left, right, top: lineY - half - 1, bottom: lineY + half + 1 };
  return { sign: { x, y: lineY + half, text, bracket }, obstacle };
}

/** Height of a tuplet's number. */
const TUPLET_HEIGHT = 9;

interface StavePlace {
  readonly stave: Stave;
  readonly x: number;
  readonly endX: number;
  readonly contentX: number;
  readonly noteXs: readonly number[];
}

/** Shares the line's width: signs take what they need, the rest goes to notes by their lengths. */
function layOutStaves(line: LineSpec, bars: readonly DrawnBar[], width: number): StavePlace[] {
  const staves = bars.map(({ bar }, i) => {
    const stave = new Stave(0, STAVE_Y, 200, { leftBar: false });
    if (i === 0) {
      stave.addClef('treble');
      stave.addKeySignature(vexKeySignature(bar.key));
    } else if (bar.showKey) {
      stave.addKeySignature(vexKeySignature(bar.key), vexKeySignature(bar.keyBefore));
    }
    if (bar.showMeter) stave.addTimeSignature(vexMeter(bar.meter));
    if (bar.beginsRepeat) stave.setBegBarType(BarlineType.REPEAT_BEGIN);
    else if (i === 0) stave.setBegBarType(BarlineType.NONE);
    stave.setEndBarType(endBarType(line, bar, i === bars.length - 1));
    if (i === bars.length - 1) announce(stave, line.courtesy);
    return stave;
  });
  const leads = staves.map((stave) => Math.max(0, stave.getNoteStartX() - stave.getX()));
  const fixed = bars.map(({ drawn, bar }, i) => {
    const extras = drawn.reduce((sum, { leftExtra }) => sum + leftExtra, 0);
    const announced = i === bars.length - 1 ? courtesyRoom(line.courtesy) : 0;
    return leadRoom(leads[i]!) + extras + (bar.endsRepeat ? 12 : 5) + announced;
  });
  const weights = bars.map(({ drawn }) => drawn.reduce((sum, { weight }) => sum + weight, 0) || 1);
  const totalFixed = fixed.reduce((sum, pixels) => sum + pixels, 0);
  const totalWeight = weights.reduce((sum, weight) => sum + weight, 0);
  const shortness = Math.min(1, (line.bars.length / line.fullBars) * MOST_STRETCH);
  const perWeight = Math.max(4, (width * shortness - totalFixed) / totalWeight);

  let x = 0;
  return bars.map(({ drawn }, i) => {
    const stave = staves[i]!;
    const isLast = i === bars.length - 1;
    const span = isLast && shortness === 1 ? width - x : fixed[i]! + weights[i]! * perWeight;
    stave.setX(x);
    stave.setWidth(span);
    const lead = leadRoom(leads[i]!);
    let at = x + lead;
    const noteXs = drawn.map(({ leftExtra, weight }) => {
      const here = at + leftExtra;
      at = here + Math.max(weight * perWeight, LEAST_ADVANCE / 3);
      return here;
    });
    const place = { stave, x, endX: x + span, contentX: x + lead, noteXs };
    x += span;
    return place;
  });
}

/** A change of key or meter that comes with the next line, shown at this one's end. */
function announce(stave: Stave, courtesy: LineSpec['courtesy']): void {
  if (courtesy?.key) stave.setEndKeySignature(vexKeySignature(courtesy.key), vexKeySignature(courtesy.keyBefore));
  if (courtesy?.meter) stave.setEndTimeSignature(vexMeter(courtesy.meter));
}

const METER_ROOM = 30;
const ACCIDENTAL_ROOM = 11;

function courtesyRoom(courtesy: LineSpec['courtesy']): number {
  if (!courtesy) return 0;
  const signs = courtesy.key ? Math.abs(keyFifths(courtesy.key)) + Math.abs(keyFifths(courtesy.keyBefore)) : 0;
  return (courtesy.meter ? METER_ROOM : 0) + (courtesy.key ? 14 + signs * ACCIDENTAL_ROOM : 0);
}

/** Room from the bar's left edge to its first notehead: past clef, key and repeat sign, or past the bar line. */
function leadRoom(signs: number): number {
  return signs > BAR_LEAD ? signs + SIGN_LEAD : BAR_LEAD;
}

function endBarType(line: LineSpec, bar: LineBar, isLineEnd: boolean): BarlineType {
  if (bar.endsRepeat) return BarlineType.REPEAT_END;
  if (bar.endsPart && line.closesTune && isLineEnd) return BarlineType.END;
  return bar.endsPart ? BarlineType.DOUBLE : BarlineType.SINGLE;
}

function vexKeySignature(key: Key): string {
  return MAJOR_KEYS[keyFifths(key) + 7] ?? 'C';
}

function vexMeter({ num, den, symbol }: Meter): string {
  return symbol === 'common' ? 'C' : symbol === 'cut' ? 'C|' : `${num}/${den}`;
}

/** Sets each note's head at its x: the formatter is only asked to measure, the spacing is ours. */
function placeNotes(notes: readonly StaveNote[], xs: readonly number[], stave: Stave): void {
  if (notes.length === 0) return;
  const voice = new Voice({ numBeats: 4, beatValue: 4 }).setMode(Voice.Mode.SOFT);
  voice.addTickables([...notes]);
  const formatter = new Formatter().joinVoices([voice]);
  formatter.createTickContexts([voice]);
  formatter.preFormat(0, stave.getContext(), [voice], stave);
  for (const [i, note] of notes.entries()) {
    const context = note.getTickContext();
    context.setX(0);
    context.setX(xs[i]! - note.getNoteHeadBeginX());
  }
}

function measureBar(
  drawn: readonly Drawn[],
  beams: readonly Beam[],
  barIndex: number,
  notes: NoteBox[],
  rests: { id: string; x: number }[],
  obstacles: Obstacle[],
): void {
  const beamed = new Set(beams.flatMap((beam) => beam.getNotes()));
  for (const { event, note, graces } of drawn) {
    const left = note.getNoteHeadBeginX();
    const right = note.getNoteHeadEndX();
    const x = (left + right) / 2;
    if (event.kind === 'rest') {
      rests.push({ id: event.id, x });
      continue;
    }
    const ys = note.getYs();
    const hasStem = note.hasStem();
    const extents = hasStem ? note.getStemExtents() : { topY: Math.min(...ys), baseY: Math.max(...ys) };
    const stemUp = note.getStemDirection() === Stem.UP;
    notes.push({
      id: event.id,
      x,
      headY: Math.min(...ys),
      lowHeadY: Math.max(...ys),
      headLeft: left,
      headRight: right,
      stemUp,
      hasStem,
      stemTipY: stemUp ? Math.min(extents.topY, extents.baseY) : Math.max(extents.topY, extents.baseY),
      barIndex,
      beamed: beamed.has(note),
    });
    obstacles.push({ left, right, top: Math.min(...ys) - 5.5, bottom: Math.max(...ys) + 5.5 });
    if (hasStem) {
      const stemX = stemUp ? right : left;
      const tips = [extents.topY, extents.baseY];
      obstacles.push({ left: stemX - 1, right: stemX + 1, top: Math.min(...tips), bottom: Math.max(...tips) });
      if (!beamed.has(note) && /^(8|16|32|64)$/.test(note.getDuration()))
        obstacles.push({ left: stemX, right: stemX + 10, top: Math.min(...tips), bottom: Math.max(...tips) });
    }
    const dots = note.getModifiersByType(Dot.CATEGORY).length / ys.length;
    if (dots > 0)
      for (const y of ys)
        obstacles.push({ left: right + 2, right: right + 3 + 6 * dots, top: y - 7.5, bottom: y + 2.5 });
    const accidentals = note.getModifiersByType(Accidental.CATEGORY);
    if (accidentals.length > 0)
      obstacles.push({ left: left - 12, right: left - 1, top: Math.min(...ys) - 14, bottom: Math.max(...ys) + 11 });
    for (const grace of graces) {
      const graceYs = grace.getYs();
      const graceTip = grace.getStemExtents();
      const graceTops = [...graceYs.map((y) => y - 4), graceTip.topY, graceTip.baseY];
      obstacles.push({
        left: grace.getNoteHeadBeginX() - 1,
        right: grace.getNoteHeadEndX() + 6,
        top: Math.min(...graceTops),
        bottom: Math.max(...graceYs) + 4,
      });
    }
  }
  for (const beam of beams) obstacles.push(...beamObstacles(beam.getNotes() as StaveNote[]));
}

/** The beam as boxes 2 px wide along its slope. */
function beamObstacles(group: readonly StaveNote[]): Obstacle[] {
  const first = group[0]!;
  const last = group[group.length - 1]!;
  const up = first.getStemDirection() === Stem.UP;
  const end = (note: StaveNote) => {
    const { topY, baseY } = note.getStemExtents();
    return {
      x: up ? note.getNoteHeadEndX() : note.getNoteHeadBeginX(),
      y: up ? Math.min(topY, baseY) : Math.max(topY, baseY),
    };
  };
  const a = end(first);
  const b = end(last);
  const boxes: Obstacle[] = [];
  for (let x = a.x; x <= b.x; x += 2) {
    const y = a.y + ((b.y - a.y) * (x - a.x)) / Math.max(1, b.x - a.x);
    boxes.push({ left: x, right: x + 2, top: y - 3, bottom: y + 3 });
  }
  return boxes;
}
