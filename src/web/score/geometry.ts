/** Top staff line in the drawing; what stands above is cut to need by the line's view. */
export const STAFF_TOP = 90;
export const STAFF_SPACE = 10;

/** Where a written note stands on its line, in CSS pixels from the line's left and top edge. */
export interface NoteBox {
  readonly id: string;
  /** Middle of the notehead: the x that lanes and signs share. */
  readonly x: number;
  /** The melody's notehead, and the lowest of a chord. */
  readonly headY: number;
  readonly lowHeadY: number;
  readonly headLeft: number;
  readonly headRight: number;
  readonly stemUp: boolean;
  readonly hasStem: boolean;
  readonly stemTipY: number;
  readonly barIndex: number;
  /** Sits between other notes of a beam or at its ends. */
  readonly beamed: boolean;
}

/** Ink that signs must not touch. */
export interface Obstacle {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** A tuplet's number, by the baseline of its middle, and its bracket's path where it has one. */
export interface TupletSign {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly bracket: string | null;
}

export interface BarBox {
  readonly id: string;
  readonly x: number;
  readonly endX: number;
  /** Where the bar's music begins, past clef, key and repeat sign. */
  readonly contentX: number;
}

/** A line as it was engraved. */
export interface LineGeometry {
  readonly width: number;
  readonly staffTop: number;
  readonly staffBottom: number;
  readonly notes: readonly NoteBox[];
  readonly rests: readonly { readonly id: string; readonly x: number }[];
  readonly bars: readonly BarBox[];
  readonly tuplets: readonly TupletSign[];
  readonly obstacles: readonly Obstacle[];
  /** x of the first note or rest. */
  readonly musicX: number;
  /** Where the last bar ends: a short last line does not reach the edge. */
  readonly endX: number;
}
