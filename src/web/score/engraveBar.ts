import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  GraceNote,
  GraceNoteGroup,
  type RenderContext,
  type Stave,
  StaveNote,
  Stem,
  Voice,
} from 'vexflow/core';
import { add, floorQuotient, fraction, ZERO } from '#core/base';
import type { Pitch } from '#core/pitch';
import { isCompound, type Meter } from '#core/tune';
import { outline, polyline } from '../ui/paths';
import type { WrittenEvent } from './barContent';
import { type NoteBox, type Obstacle, STAFF_SPACE, STAFF_TOP, type TupletSign } from './geometry';

/** What a drawn bar brings to its line's geometry. */
export interface BarInk {
  readonly notes: readonly NoteBox[];
  readonly rests: readonly { readonly id: string; readonly x: number }[];
  readonly obstacles: readonly Obstacle[];
  readonly tuplets: readonly TupletSign[];
}

/** The bar to draw: what stands in it and where its heads go. */
export interface BarToDraw {
  readonly content: readonly WrittenEvent[];
  readonly noteXs: readonly number[];
  readonly meter: Meter;
  /** Which of the line's bars it is. */
  readonly barIndex: number;
}

interface Drawn {
  readonly written: WrittenEvent;
  readonly note: StaveNote;
  readonly graces: readonly GraceNote[];
}

/** Draws a bar's staff and notes, and measures where they came to stand. */
export function engraveBar(context: RenderContext, stave: Stave, bar: BarToDraw): BarInk {
  const drawn = bar.content.map(prepareEvent);
  const beams = beamGroups(drawn, bar.meter).map((group) => new Beam(group));
  stave.setContext(context).draw();
  for (const { note } of drawn) note.setStave(stave).setContext(context);
  placeNotes(
    drawn.map(({ note }) => note),
    bar.noteXs,
    stave,
  );
  for (const { note } of drawn) note.draw();
  for (const beam of beams) beam.setContext(context).draw();
  const ink = measureBar(drawn, beams, bar.barIndex);
  const tuplets = tupletsOf(drawn).map(tupletSign);
  return {
    ...ink,
    obstacles: [...ink.obstacles, ...tuplets.map(({ obstacle }) => obstacle)],
    tuplets: tuplets.map(({ sign }) => sign),
  };
}

function prepareEvent(written: WrittenEvent): Drawn {
  const { event, value, dots, heads } = written;
  if (event.kind === 'rest') {
    const note = new StaveNote({ keys: ['b/4'], duration: `${value}r`, dots });
    for (let k = 0; k < dots; k++) Dot.buildAndAttach([note]);
    return { written, note, graces: [] };
  }
  const note = new StaveNote({
    keys: heads.map(({ pitch }) => vexKey(pitch)),
    duration: value,
    dots,
    autoStem: true,
  });
  note.setAttribute('id', event.id);
  for (const [i, { accidental }] of heads.entries())
    if (accidental !== null) note.addModifier(new Accidental(accidental), i);
  for (let k = 0; k < dots; k++) Dot.buildAndAttach([note], { all: true });
  const graces = written.graces.map(({ pitch, accidental }) => {
    const grace = new GraceNote({ keys: [vexKey(pitch)], duration: '8', slash: written.graces.length === 1 });
    if (accidental !== null) grace.addModifier(new Accidental(accidental), 0);
    return grace;
  });
  if (graces.length > 0) {
    const group = new GraceNoteGroup(graces, false);
    if (graces.length > 1) group.beamNotes();
    note.addModifier(group, 0);
  }
  return { written, note, graces };
}

function vexKey({ letter, octave }: Pitch): string {
  return `${letter.toLowerCase()}/${octave}`;
}

/** Beams by the meter: halves of a bar in 4/4 and 2/2, dotted quarters in compound meters, else quarters; a tuplet has its own. */
function beamGroups(drawn: readonly Drawn[], meter: Meter): StaveNote[][] {
  const unit = isCompound(meter)
    ? fraction(3, 8)
    : meter.num % 2 === 0 && meter.num / meter.den >= 1
      ? fraction(1, 2)
      : fraction(1, 4);
  const groups: StaveNote[][] = [];
  let open: StaveNote[] = [];
  let openUnit = -1;
  let isTuplet = false;
  let at = ZERO;
  const close = () => {
    if (open.length > 1) groups.push(open);
    open = [];
  };
  for (const {
    written: { event },
    note,
  } of drawn) {
    const unitNumber = floorQuotient(at, unit);
    const isShort = event.kind === 'note' && /^(8|16|32|64)$/.test(note.getDuration());
    const isAtEdge = event.tuplet ? event.tuplet.first || !isTuplet : isTuplet;
    if (unitNumber !== openUnit || !isShort || isAtEdge) close();
    isTuplet = event.tuplet !== undefined;
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
  for (const {
    written: { event },
    note,
  } of drawn) {
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
  const bracket = outline();
  polyline(bracket, [left, lineY + hook], [left, lineY], [x - 8, lineY]);
  polyline(bracket, [x + 8, lineY], [right, lineY], [right, lineY + hook]);
  const half = TUPLET_HEIGHT / 2;
  const obstacle = { left, right, top: lineY - half - 1, bottom: lineY + half + 1 };
  return { sign: { x, y: lineY + half, text, bracket: bracket.toString() }, obstacle };
}

/** Height of a tuplet's number. */
const TUPLET_HEIGHT = 9;

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

function measureBar(drawn: readonly Drawn[], beams: readonly Beam[], barIndex: number): Omit<BarInk, 'tuplets'> {
  const notes: NoteBox[] = [];
  const rests: { id: string; x: number }[] = [];
  const obstacles: Obstacle[] = [];
  const beamed = new Set(beams.flatMap((beam) => beam.getNotes()));
  for (const {
    written: { event },
    note,
    graces,
  } of drawn) {
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
  return { notes, rests, obstacles };
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
