import type { NoteState } from '#core/noteStates';
import type { NoteEvent, RestEvent } from '#core/tune';
import { callOf } from '#words/note';
import { noteName } from '#words/pitch';
import { outline, polyline } from '../ui/paths';
import type { LineGeometry, NoteBox } from './geometry';
import type { LineSpec } from './lines';
import type { ScoreMark } from './markPaths';
import { Skyline } from './skyline';

/** Places of our own signs over the engraving, whichever way the strokes go: bow signs, slurs, ties, fingers, endings. All places in the line's pixels. */
export interface LineSigns {
  /** Lowest ink with all signs. */
  readonly bottom: number;
  /** Closed shapes of slurs and ties, as one path. */
  readonly curves: string;
  /** Short strokes under a slur that mark a hook's stop. */
  readonly hooks: string;
  readonly bows: readonly {
    readonly id: string;
    readonly x: number;
    readonly y: number;
  }[];
  readonly locks: readonly { readonly id: string; readonly x: number; readonly y: number; readonly broken: boolean }[];
  readonly fingers: readonly {
    readonly id: string;
    readonly x: number;
    /** Finger, call and letter, for the rows under the staff; `position`: where the hand comes to with this finger. */
    readonly finger: string;
    /** Fingers of what sounds beside it, without their strings. */
    readonly beside: string;
    /** The string, where it is another than the note's before. */
    readonly string: string;
    readonly position: string | null;
    readonly call: string;
    readonly letter: string;
  }[];
  readonly endings: readonly {
    readonly label: string;
    readonly path: string;
    readonly x: number;
    readonly y: number;
  }[];
  /** Marks on notes by name: staccato and its like at the head, the others over all. */
  readonly marks: readonly { readonly id: string; readonly name: ScoreMark; readonly x: number; readonly y: number }[];
  readonly chords: readonly { readonly x: number; readonly y: number; readonly text: string }[];
  /** What bars that take up others say of it. */
  readonly reuses: readonly { readonly x: number; readonly y: number; readonly text: string }[];
}

const BOW_SIGN = { width: 10, height: 11, gap: 4 };
/** From a bow sign to the one of another pass over it. */
export const OTHER_SIGN_STEP = 12;
const HEAD_GAP = 8;
const ENDING_HEIGHT = 14;
/** Most that a slur may bulge before it is let touch what is in its way. */
const MAX_BULGE = 46;

/** How the signs of a line are laid out. */
export interface SignOptions {
  /** Room for the other passes' bow signs. */
  readonly showsOther?: boolean;
  /** Bow signs stand in one row over the line, for the eye that reads them first; else each by its note. */
  readonly inRow?: boolean;
}

interface Curve {
  readonly from: { x: number; y: number };
  readonly to: { x: number; y: number };
  readonly above: boolean;
  readonly bulge: number;
}

/**
 * Lays signs on an engraved line in one order: curves first, then bow signs above them, then endings above those;
 * fingers stand in a row below everything. Each looks up the outline so far, so that nothing touches.
 * Time O(notes + width).
 */
export function layOutSigns(
  line: LineSpec,
  geometry: LineGeometry,
  states: ReadonlyMap<string, NoteState>,
  { showsOther = false, inRow = false }: SignOptions = {},
): LineSigns {
  const skyline = new Skyline(geometry.width);
  for (const obstacle of geometry.obstacles) skyline.add(obstacle);
  const boxes = geometry.notes;
  const events = new Map(line.bars.flatMap((bar) => bar.events.map((event) => [event.id, event] as const)));
  const { marks, edges } = headMarks(boxes, events, skyline);
  const { curves, hookXs } = curvesOf(boxes, states, events, geometry, edges);
  const paths: string[] = [];
  const hooks = outline();
  for (const curve of curves) {
    const cleared = clear(curve, skyline);
    paths.push(curvePath(cleared));
    for (const x of hookXs.get(curve) ?? []) {
      const y = curveY(cleared, x) + (cleared.above ? -5 : 5);
      polyline(hooks, [x - 3, y], [x + 3, y]);
    }
    addCurve(cleared, skyline);
  }

  const bows: LineSigns['bows'][number][] = [];
  const locks: LineSigns['locks'][number][] = [];
  const chords: LineSigns['chords'][number][] = [];
  const half = BOW_SIGN.width / 2 + 1;
  const bowY = (box: NoteBox) =>
    Math.min(skyline.top(box.x - half, box.x + half), geometry.staffTop - 2) - BOW_SIGN.gap;
  const begins = (box: NoteBox) => states.get(box.id)?.inStroke === 1 && !states.get(box.id)!.continues;
  const rowY = inRow ? Math.min(...boxes.filter(begins).map(bowY)) : null;
  for (const box of boxes) {
    const state = states.get(box.id);
    if (!state || state.continues) continue;
    if (state.inStroke === 1) {
      const y = rowY ?? bowY(box);
      bows.push({ id: box.id, x: box.x, y });
      const other = showsOther && state.differs ? OTHER_SIGN_STEP : 0;
      skyline.add({ left: box.x - half, right: box.x + half, top: y - BOW_SIGN.height - other, bottom: y });
    }
    if (state.lock) {
      const y = Math.min(skyline.top(box.x - half, box.x + half), geometry.staffTop - 2) - 3;
      locks.push({ id: box.id, x: box.x, y, broken: state.lockBroken });
      skyline.add({ left: box.x - half, right: box.x + half, top: y - 11, bottom: y });
    }
  }
  for (const box of boxes) {
    for (const name of marksOf(events, box.id)) {
      if (HEAD_MARKS.has(name)) continue;
      const y = Math.min(skyline.top(box.x - 9, box.x + 9), geometry.staffTop - 4) - 3;
      marks.push({ id: box.id, name, x: box.x, y });
      skyline.add({ left: box.x - 9, right: box.x + 9, top: y - OVER_MARK_HEIGHT, bottom: y });
    }
  }
  const chordNames = boxes.flatMap(({ id, headLeft }) => {
    const text = events.get(id)?.chord;
    return text ? [{ x: headLeft, right: headLeft + 8 * text.length, text }] : [];
  });
  // All chord names of a line stand on one line of type.
  const chordY = Math.min(
    ...chordNames.map(({ x, right }) => Math.min(skyline.top(x - 2, right), geometry.staffTop - 2) - 4),
  );
  for (const { x, right, text } of chordNames) {
    chords.push({ x, y: chordY, text });
    skyline.add({ left: x - 2, right, top: chordY - 12, bottom: chordY });
  }
  chords.push(...paceSigns(boxes, events, geometry, skyline));

  const reuses = line.bars.flatMap(({ reuses: text }, i) => {
    if (text === null) return [];
    const x = i === 0 ? geometry.musicX - 6 : geometry.bars[i]!.x + 6;
    const right = x + 6.5 * text.length;
    const y = Math.min(skyline.top(x - 2, right), geometry.staffTop - 6) - 5;
    skyline.add({ left: x - 2, right, top: y - 11, bottom: y + 2 });
    return [{ x, y, text }];
  });
  const endings = endingSigns(line, geometry, skyline);
  let stringBefore: string | null = null;
  const fingers = boxes.flatMap((box) => {
    const state = states.get(box.id);
    if (!state || state.continues) return [];
    const event = events.get(box.id);
    const finger = state.finger === null ? '×' : String(state.finger);
    const position = state.finger === null ? null : positionSign(state);
    const letter = event?.kind === 'note' ? noteName(event.pitch) : '';
    const string = state.place === stringBefore ? '' : state.place;
    stringBefore = state.place;
    return [{ id: box.id, x: box.x, finger, beside: state.beside, string, position, call: callOf(state), letter }];
  });
  return {
    bottom: skyline.bottom(0, geometry.width),
    curves: paths.join(''),
    hooks: hooks.toString(),
    bows,
    locks,
    fingers,
    endings,
    marks,
    chords,
    reuses,
  };
}

/** Paces of what is played freely, each over its note. */
function paceSigns(
  boxes: readonly NoteBox[],
  events: ReadonlyMap<string, NoteEvent | RestEvent>,
  { staffTop }: LineGeometry,
  skyline: Skyline,
): LineSigns['chords'] {
  return boxes.flatMap(({ id, headLeft: x }) => {
    const event = events.get(id);
    if (event?.kind !== 'note' || event.pace === undefined) return [];
    const text = `${Math.round(100 * event.pace)} %`;
    const right = x + 8 * text.length;
    const y = Math.min(skyline.top(x - 2, right), staffTop - 2) - 4;
    skyline.add({ left: x - 2, right, top: y - 12, bottom: y });
    return [{ x, y, text }];
  });
}

/**
 * All that the layout of a line's signs hangs on beside its notes: which share a stroke and how, locks, fingers. A turned
 * direction is not in it, so that a line whose strokes only turn keeps its layout.
 */
export function signsKey(
  geometry: LineGeometry,
  states: ReadonlyMap<string, NoteState>,
  { showsOther = false, inRow = false }: SignOptions = {},
): string {
  let key = inRow ? 'row;' : '';
  for (const { id } of geometry.notes) {
    const state = states.get(id);
    if (!state) key += '-';
    else
      key += `${state.continues ? '~' : ''}${state.inStroke}/${state.strokeNotes}${state.link[0]}${state.place}${positionSign(state) ?? ''}${state.finger ?? '×'}${state.beside}${state.lock ? (state.lockBroken ? '!' : '*') : ''}${state.passIndex}${showsOther && state.differs ? '+' : ''};`;
  }
  return key;
}

const POSITION_SIGNS: Readonly<Record<number, string>> = { 0.5: '½', 1: 'I', 2: 'II', 3: 'III', 4: 'IV', 5: 'V' };

/** The position to which the hand comes, before the finger with which it arrives there. */
function positionSign({ shifts, position }: NoteState): string | null {
  return shifts && position !== null ? (POSITION_SIGNS[position] ?? null) : null;
}

/** Marks that stand at the head, on the side away from the stem; the others stand over all. */
const HEAD_MARKS: ReadonlySet<ScoreMark> = new Set(['staccato', 'tenuto', 'accent']);
const HEAD_MARK_STEP = 8;
const OVER_MARK_HEIGHT = 12;

type LineEvents = ReadonlyMap<string, NoteEvent | RestEvent>;

/** Marks of a note; one that is held long has a fermata, one with a breath after it the sign for that. */
function marksOf(events: LineEvents, id: string): readonly ScoreMark[] {
  const event = events.get(id);
  if (event?.kind !== 'note') return [];
  const { marks = [], hold = 1, breath } = event;
  if (hold <= 1 && breath === undefined) return marks;
  return [
    ...marks,
    ...(hold > 1 && !marks.includes('fermata') ? (['fermata'] as const) : []),
    ...(breath === undefined ? [] : (['breath'] as const)),
  ];
}

/** Marks at the heads, from the head outward; `edges` tells slurs how far out they reach. */
function headMarks(
  boxes: readonly NoteBox[],
  events: LineEvents,
  skyline: Skyline,
): { marks: LineSigns['marks'][number][]; edges: ReadonlyMap<string, number> } {
  const marks: LineSigns['marks'][number][] = [];
  const edges = new Map<string, number>();
  for (const box of boxes) {
    let y = box.stemUp ? box.lowHeadY : box.headY;
    const out = box.stemUp ? 1 : -1;
    for (const name of marksOf(events, box.id)) {
      if (!HEAD_MARKS.has(name)) continue;
      y += out * (y === box.headY || y === box.lowHeadY ? HEAD_MARK_STEP + 2 : HEAD_MARK_STEP);
      marks.push({ id: box.id, name, x: box.x, y });
      skyline.add({ left: box.x - 6, right: box.x + 6, top: y - 4, bottom: y + 4 });
      edges.set(box.id, y + out * 4);
    }
  }
  return { marks, edges };
}

/** Strokes with several notes get a slur; ties join equal heads. A stroke cut by the line end runs to its edge. */
function curvesOf(
  boxes: readonly NoteBox[],
  states: ReadonlyMap<string, NoteState>,
  events: LineEvents,
  geometry: LineGeometry,
  edges: ReadonlyMap<string, number>,
): { curves: Curve[]; hookXs: Map<Curve, number[]> } {
  const curves: Curve[] = [];
  const hookXs = new Map<Curve, number[]>();
  let group: NoteBox[] = [];
  let fromBefore = false;
  const close = (toAfter: boolean) => {
    // A note and what is tied to it are one: the tie says so, and no slur is drawn for it.
    const own = group.filter(({ id }) => !states.get(id)?.continues).length;
    if (own > 1 || (own === 1 && (fromBefore || toAfter))) {
      const curve = slurCurve(group, fromBefore, toAfter, geometry, edges);
      curves.push(curve);
      const xs = group
        .filter(({ id }, i) => (i > 0 || fromBefore) && states.get(id)?.link === 'hook')
        .map(({ x }) => x);
      hookXs.set(curve, xs);
    }
    group = [];
    fromBefore = false;
  };
  for (const [i, box] of boxes.entries()) {
    const event = events.get(box.id);
    if (event?.kind === 'note' && event.tie) {
      const next = boxes[i + 1];
      curves.push(tieCurve(box, next ? next.headLeft : geometry.endX - 4));
    }
    const state = states.get(box.id);
    if (!state || state.continues) {
      if (state && group.length > 0) group.push(box);
      continue;
    }
    const follows = group.length > 0 && states.get(group[0]!.id)?.passIndex === state.passIndex;
    const joins = state.inStroke > 1 && (group.length === 0 ? i === 0 : follows);
    if (!joins) {
      close(false);
      group = [box];
    } else {
      if (group.length === 0) fromBefore = true;
      group.push(box);
    }
  }
  const lastState = group.length > 0 ? states.get(group[group.length - 1]!.id) : undefined;
  const goesOn =
    lastState !== undefined &&
    lastState.inStroke < lastState.strokeNotes &&
    boxes[boxes.length - 1] === group[group.length - 1];
  close(goesOn && !lastState.continues);
  return { curves, hookXs };
}

function slurCurve(
  group: readonly NoteBox[],
  fromBefore: boolean,
  toAfter: boolean,
  geometry: LineGeometry,
  edges: ReadonlyMap<string, number>,
): Curve {
  const above = !group.every(({ stemUp }) => stemUp);
  const endY = (box: NoteBox) => {
    const edge = edges.get(box.id);
    if (!above) return Math.max(box.lowHeadY + HEAD_GAP, (edge ?? 0) + 2);
    return box.stemUp ? box.stemTipY - 4 : Math.min(box.headY - HEAD_GAP, (edge ?? Infinity) - 2);
  };
  const first = group[0]!;
  const last = group[group.length - 1]!;
  const from = fromBefore
    ? { x: Math.max(geometry.musicX - 16, first.x - 22), y: endY(first) }
    : { x: above && first.stemUp ? first.headRight : first.x, y: endY(first) };
  const to = toAfter
    ? { x: Math.min(geometry.endX - 2, last.x + 26), y: endY(last) }
    : { x: above && last.stemUp ? last.headRight : last.x, y: endY(last) };
  const span = to.x - from.x;
  return { from, to, above, bulge: Math.min(14, 5 + span / 14) };
}

function tieCurve(box: NoteBox, toX: number): Curve {
  const above = !box.stemUp;
  const y = above ? box.headY - 6 : box.lowHeadY + 6;
  return { from: { x: box.headRight - 2, y }, to: { x: toX + 1, y }, above, bulge: 6 };
}

/** Height of a curve at x: a cubic whose inner points lie at a quarter and three quarters of its span. */
function curveY({ from, to, above, bulge }: Curve, x: number): number {
  const t = (x - from.x) / Math.max(1, to.x - from.x);
  const base = from.y + (to.y - from.y) * t;
  return base + (above ? -1 : 1) * bulge * (4 / 3) * 3 * t * (1 - t) * 0.75;
}

/** Raises a curve until it clears the ink between its ends. */
function clear(curve: Curve, skyline: Skyline): Curve {
  let { bulge, from, to } = curve;
  for (;;) {
    let depth = 0;
    for (let x = from.x + 7; x <= to.x - 7; x += 2) {
      const y = curveY({ ...curve, bulge, from, to }, x);
      const ink = curve.above ? skyline.top(x - 1, x + 1) - 3 : skyline.bottom(x - 1, x + 1) + 3;
      depth = Math.max(depth, curve.above ? y - ink : ink - y);
    }
    if (depth <= 0 || bulge >= MAX_BULGE) return { ...curve, bulge, from, to };
    // The ends move along so that a steep curve does not become a hairpin.
    bulge += Math.max(1.5, depth * 0.5);
    const shift = Math.min(depth, 2) * (curve.above ? -0.5 : 0.5);
    from = { ...from, y: from.y + shift };
    to = { ...to, y: to.y + shift };
  }
}

function curvePath({ from, to, above, bulge }: Curve): string {
  const sign = above ? -1 : 1;
  const span = to.x - from.x;
  const thickness = span > 24 ? 2.2 : 1.6;
  const [ax, bx] = [from.x + span * 0.25, from.x + span * 0.75];
  const lean = (x: number) => from.y + ((to.y - from.y) * (x - from.x)) / Math.max(1, span);
  const outer = (x: number) => lean(x) + sign * bulge * (4 / 3);
  const inner = (x: number) => lean(x) + sign * (bulge * (4 / 3) - thickness);
  const path = outline();
  path.moveTo(from.x, from.y);
  path.bezierCurveTo(ax, outer(ax), bx, outer(bx), to.x, to.y);
  path.bezierCurveTo(bx, inner(bx), ax, inner(ax), from.x, from.y);
  path.closePath();
  return path.toString();
}

function addCurve(curve: Curve, skyline: Skyline): void {
  for (let x = curve.from.x; x <= curve.to.x; x += 2) {
    const y = curveY(curve, x);
    skyline.add({ left: x, right: x + 2, top: y - 1.5, bottom: y + 1.5 });
  }
}

/** Brackets over bars of an ending; neighbours on a line stand at one height. */
function endingSigns(line: LineSpec, geometry: LineGeometry, skyline: Skyline): LineSigns['endings'] {
  const spans: { label: string; left: number; right: number; opens: boolean; closes: boolean }[] = [];
  for (const [i, { ending }] of line.bars.entries()) {
    if (!ending) continue;
    const { x, endX } = geometry.bars[i]!;
    const left = i === 0 ? Math.max(x, geometry.musicX - 14) : x;
    const open = spans[spans.length - 1];
    if (open && !ending.opens && i > 0) {
      open.right = endX;
      open.closes = ending.closes;
    } else {
      spans.push({
        label: ending.opens ? ending.label : '',
        left,
        right: endX,
        opens: ending.opens,
        closes: ending.closes,
      });
    }
  }
  if (spans.length === 0) return [];
  const y =
    Math.min(...spans.map(({ left, right }) => skyline.top(left, right)), geometry.staffTop - 10) - 5 - ENDING_HEIGHT;
  for (const { left, right } of spans) skyline.add({ left, right, top: y - 1, bottom: y + ENDING_HEIGHT });
  return spans.map(({ label, left, right, opens, closes }) => ({
    label,
    x: left + 6,
    y: y + 12,
    path: bracketPath({ left: left + 2, right: right - 3, y, opens, closes }),
  }));
}

interface Bracket {
  readonly left: number;
  readonly right: number;
  readonly y: number;
  readonly opens: boolean;
  readonly closes: boolean;
}

function bracketPath({ left, right, y, opens, closes }: Bracket): string {
  const path = outline();
  polyline(
    path,
    [left, opens ? y + ENDING_HEIGHT : y],
    [left, y],
    [right, y],
    ...(closes ? [[right, y + ENDING_HEIGHT] as const] : []),
  );
  return path.toString();
}
