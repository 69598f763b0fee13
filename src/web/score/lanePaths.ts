import type { NoteState } from '#core/noteStates';
import { dot, outlines, polyline } from '../ui/paths';
import type { LineGeometry } from './geometry';

/** Heights of the lanes under a staff, from the top of the first one. */
export const LANES = {
  bow: { height: 54, gap: 6 },
  arm: { height: 48, gap: 5 },
  room: { height: 20, gap: 2 },
} as const;
export type LaneName = keyof typeof LANES;

/** Hair shown in the bow lane: the working window takes the middle, what lies outside is drawn smaller. */
export interface HairScale {
  readonly hairCm: number;
  readonly windowLowCm: number;
  readonly windowHighCm: number;
}

const WINDOW_SHARE = 0.62;

/** Height of a place on the hair, frog above, in a lane of a given height; clamped at frog and tip. */
export function hairY(cm: number, { hairCm, windowLowCm, windowHighCm }: HairScale, height: number): number {
  const edge = ((1 - WINDOW_SHARE) / 2) * height;
  const at = Math.min(hairCm, Math.max(0, cm));
  if (at < windowLowCm) return edge * (at / windowLowCm);
  if (at > windowHighCm) return height - edge * ((hairCm - at) / (hairCm - windowHighCm));
  return edge + ((at - windowLowCm) / (windowHighCm - windowLowCm)) * (height - 2 * edge);
}

/** The place on the hair at a height of the lane: the inverse of `hairY`. */
export function hairAt(y: number, { hairCm, windowLowCm, windowHighCm }: HairScale, height: number): number {
  const edge = ((1 - WINDOW_SHARE) / 2) * height;
  const at = Math.min(height, Math.max(0, y));
  if (at < edge) return (windowLowCm * at) / edge;
  if (at > height - edge) return hairCm - ((height - at) / edge) * (hairCm - windowHighCm);
  return windowLowCm + ((at - edge) / (height - 2 * edge)) * (windowHighCm - windowLowCm);
}

export interface BowLane {
  readonly strokes: string;
  readonly outOfHair: string;
  readonly downHeads: string;
  readonly upHeads: string;
  readonly ticks: string;
  /** Where a pulse swells the line. */
  readonly pulses: string;
  readonly ends: readonly StrokeEnd[];
}

/** The end of a stroke, by which it can be pulled longer or shorter. */
export interface StrokeEnd {
  readonly head: string;
  readonly x: number;
  readonly y: number;
}

const HEAD_RADIUS = 3.4;

/** A bowed triplet over its stroke, from where the stroke begins. */
const TEETH = [0, 1, 2, 3, 4, 5, 6].map((i) => [2 * i, i % 2 === 0 ? -7 : -11] as const);

/** The end of each note's stretch: the next note or rest on the line, else the end of its last bar. */
export function noteEnds(geometry: LineGeometry): Map<string, number> {
  const starts = [...geometry.notes, ...geometry.rests].sort((a, b) => a.x - b.x);
  const ends = new Map<string, number>();
  for (const [i, { id }] of starts.entries()) ends.set(id, starts[i + 1]?.x ?? geometry.endX - 6);
  return ends;
}

/** Strokes as lines from note to note, heads at their beginnings, ticks and gaps at notes that share one. */
export function bowLane(geometry: LineGeometry, states: ReadonlyMap<string, NoteState>, scale: HairScale): BowLane {
  const ends = noteEnds(geometry);
  const { height } = LANES.bow;
  const [strokes, outOfHair, downHeads, upHeads, ticks, pulses] = outlines(6);
  const strokeEnds: StrokeEnd[] = [];
  for (const { id, x } of geometry.notes) {
    const state = states.get(id);
    if (!state) continue;
    const end = ends.get(id)!;
    // A tied head further along shows nothing of its own; its share belongs to the note it continues.
    const span = tiedSpan(geometry, states, id, ends);
    if (state.continues) continue;
    const y = hairY(state.bowStartCm, scale, height);
    const endY = hairY(state.bowEndCm, scale, height);
    const isHooked = state.link === 'hook' && state.inStroke > 1;
    const startX = isHooked ? x + 3 : x;
    const endX = span ?? end;
    if (state.pulses) {
      const [midX, midY] = [(startX + endX) / 2, (y + endY) / 2];
      pulses.moveTo(startX, y);
      pulses.quadraticCurveTo(midX, midY - 7, endX, endY);
      pulses.quadraticCurveTo(midX, midY + 7, startX, y);
      pulses.closePath();
    }
    // A bowed triplet: three tiny teeth where the three strokes are drawn.
    if (state.marks.includes('bowed-triplet'))
      polyline(ticks, ...TEETH.map(([dx, dy]) => [startX + dx, y + dy] as const));
    if (state.inStroke === state.strokeNotes) strokeEnds.push({ head: state.strokeHead, x: endX, y: endY });
    polyline(state.outOfHair ? outOfHair : strokes, [startX, y], [endX, endY]);
    if (state.inStroke === 1) dot(state.bow === 'down' ? downHeads : upHeads, x, y, HEAD_RADIUS);
    else if (!isHooked) polyline(ticks, [x, y - 4], [x, y + 4]);
  }
  return {
    strokes: strokes.toString(),
    outOfHair: outOfHair.toString(),
    downHeads: downHeads.toString(),
    upHeads: upHeads.toString(),
    ticks: ticks.toString(),
    pulses: pulses.toString(),
    ends: strokeEnds,
  };
}

/** Where a note's sound ends on this line when further heads are tied to it. */
function tiedSpan(
  geometry: LineGeometry,
  states: ReadonlyMap<string, NoteState>,
  id: string,
  ends: ReadonlyMap<string, number>,
): number | null {
  const at = geometry.notes.findIndex((note) => note.id === id);
  let end: number | null = null;
  for (let i = at + 1; i < geometry.notes.length; i++) {
    const next = states.get(geometry.notes[i]!.id);
    if (!next?.continues || next.index !== states.get(id)?.index) break;
    end = ends.get(next.id) ?? null;
  }
  return end;
}

export interface ArmLane {
  readonly path: string;
  readonly pairs: string;
  readonly skips: readonly { readonly x: number; readonly y: number; readonly inSlur: boolean }[];
}

/** Height of an angle in the arm lane: the lowest string's band at the bottom. */
export function angleY(angle: number, neighbourAngle: number, height: number): number {
  return height / 2 - (angle / (4 * neighbourAngle)) * height;
}

/** The arm's path as level stretches joined at crossings; double stops thickened; skips marked on the band swept over. */
export function armLane(
  geometry: LineGeometry,
  states: ReadonlyMap<string, NoteState>,
  neighbourAngle: number,
): ArmLane {
  const ends = noteEnds(geometry);
  const { height } = LANES.arm;
  const [path, pairs] = outlines(2);
  const skips: { x: number; y: number; inSlur: boolean }[] = [];
  let before: { y: number } | null = null;
  for (const { id, x } of geometry.notes) {
    const state = states.get(id);
    if (!state || state.angle === null) {
      before = null;
      continue;
    }
    const y = angleY(state.angle, neighbourAngle, height);
    const end = ends.get(id)!;
    const turn = Math.min(8, (end - x) * 0.4);
    if (before) path.lineTo(x, y);
    else path.moveTo(x, y);
    path.lineTo(end - turn, y);
    if (state.isPair) polyline(pairs, [x, y], [end - turn, y]);
    if (state.skips > 0 && before && !state.continues)
      skips.push({ x: x - 4, y: (before.y + y) / 2, inSlur: state.crossesInSlur });
    before = { y };
  }
  return { path: path.toString(), pairs: pairs.toString(), skips };
}

export interface RoomLane {
  readonly easy: string;
  readonly tight: string;
  readonly broken: string;
  /** Under the bars: a long tick for each beat, a short one for each offbeat. */
  readonly beats: string;
  readonly offbeats: string;
}

/** Depth of the ticks under the bars. */
export const BEAT_DEPTH = 6;

/** Headroom below this is tight. */
const TIGHT = 1.15;

/** Room to spare as bars: full height at twice the time needed or more, none where the time does not do. */
export function roomLane(geometry: LineGeometry, states: ReadonlyMap<string, NoteState>): RoomLane {
  const ends = noteEnds(geometry);
  const height = LANES.room.height - BEAT_DEPTH;
  const [easy, tight, broken, beats, offbeats] = outlines(5);
  const nextX = nextNotes(geometry, states);
  for (const { id, x } of geometry.notes) {
    const state = states.get(id);
    if (!state || state.continues) continue;
    for (const { isBeat, share } of state.beats) {
      const at = x + share * (nextX.get(id)! - x);
      const depth = isBeat ? BEAT_DEPTH - 1 : (BEAT_DEPTH - 1) / 2;
      polyline(isBeat ? beats : offbeats, [at, height + 1], [at, height + 1 + depth]);
    }
    const width = Math.max(3, ends.get(id)! - x - 2);
    const room = state.headroom === null ? 1 : Math.min(1, Math.max(0, state.headroom - 1));
    const barHeight = room * (height - 2);
    const isBroken = state.headroom !== null && state.headroom < 1;
    const isTight = state.headroom !== null && state.headroom < TIGHT;
    const tall = isBroken ? 3 : Math.max(2, barHeight);
    (isBroken ? broken : isTight ? tight : easy).rect(x - 3, height - tall, width, tall);
  }
  return {
    easy: easy.toString(),
    tight: tight.toString(),
    broken: broken.toString(),
    beats: beats.toString(),
    offbeats: offbeats.toString(),
  };
}

/** Where the next note that is struck stands, or the line's end. */
function nextNotes(geometry: LineGeometry, states: ReadonlyMap<string, NoteState>): Map<string, number> {
  const next = new Map<string, number>();
  let x = geometry.endX - 6;
  for (let i = geometry.notes.length - 1; i >= 0; i--) {
    const { id, x: own } = geometry.notes[i]!;
    if (states.get(id)?.continues) continue;
    next.set(id, x);
    x = own;
  }
  return next;
}
