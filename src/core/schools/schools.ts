/**
 * Where teachers differ in how something is done: each choice changes figures or suggestions, never only a word.
 */
export interface Schools {
  /** A crossing at a bow change is merged into the turn, or the bow stops, turns silently and goes on. */
  readonly turn: 'merge' | 'stop';
  /** A crossing over a string stays on the strings, which may sound, or leaves them. */
  readonly skips: 'on-string' | 'off-string';
  /**
   * When the arm turns to another string: ahead, so that the bow lies at the edge nearest the next string before the crossing;
   * at the crossing itself; or the wrist turns about a still elbow, through the strings' middles.
   */
  readonly arm: 'early' | 'late' | 'middle';
  /** Crossings at a bow change are liked with the lower string drawn down, with the upper one, or as they come. */
  readonly ovals: 'no-matter' | 'lower-down' | 'upper-down';
  /** What leads the hand to a new position: its lowest finger there, or the finger that was down. */
  readonly guide: 'lowest-finger' | 'travelling-finger';
  /** Fingers stay down as long as they may, or lift where they strain the hand or a neighbour string must ring. */
  readonly fingers: 'hold' | 'lift';
  /** A finger called without its string stays on the string named last, or goes where the hand is nearest. */
  readonly bareFinger: 'same-string' | 'nearest';
  /** A pulse is made by drawing quicker, or by weight at even speed. */
  readonly pulse: 'speed' | 'weight';
  /** A stroke has its weight at its beginning, or in its middle. */
  readonly weightAt: 'start' | 'middle';
  /** A passage is learned in one direction, or in both. */
  readonly learning: 'one-direction' | 'both-directions';
  /** Bars are wanted on the down-bow, or as they come. */
  readonly downbeat: 'down' | 'free';
  /** A tune is learned with the whole bow first, or with short strokes from the first day. */
  readonly bowAmount: 'whole-bow' | 'short-strokes';
}

/** All choices by name, the usual one first. */
export const SCHOOL_CHOICES = {
  turn: ['merge', 'stop'],
  skips: ['on-string', 'off-string'],
  arm: ['early', 'late', 'middle'],
  ovals: ['no-matter', 'lower-down', 'upper-down'],
  guide: ['lowest-finger', 'travelling-finger'],
  fingers: ['hold', 'lift'],
  bareFinger: ['same-string', 'nearest'],
  pulse: ['speed', 'weight'],
  weightAt: ['start', 'middle'],
  learning: ['one-direction', 'both-directions'],
  downbeat: ['down', 'free'],
  bowAmount: ['short-strokes', 'whole-bow'],
} as const satisfies { readonly [K in keyof Schools]: readonly Schools[K][] };

export const SCHOOL_NAMES = Object.keys(SCHOOL_CHOICES) as (keyof Schools)[];

/** What is done where nothing else is chosen. */
export const DEFAULT_SCHOOLS: Schools = {
  turn: 'merge',
  skips: 'on-string',
  arm: 'early',
  ovals: 'no-matter',
  guide: 'lowest-finger',
  fingers: 'hold',
  bareFinger: 'same-string',
  pulse: 'speed',
  weightAt: 'start',
  learning: 'one-direction',
  downbeat: 'down',
  bowAmount: 'short-strokes',
};
