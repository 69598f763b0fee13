/** What a player wants of a bowing. */
export interface StyleWishes {
  /** How closely one way of bowing a bar is kept to, 0 … 1. */
  readonly shuffle: number;
  /** 0 wants every note its own stroke, 1 as many in a stroke as may be, 0.5 does not mind. */
  readonly smooth: number;
  /** Bars begin on a down-bow, or as they come. */
  readonly downbeat: 'down' | 'free';
  /** Strokes may run on over a beat, or end before it. */
  readonly acrossBeat: 'free' | 'avoid';
  /** A slur may take in another string. */
  readonly slurAcrossStrings: boolean;
  /** How much of the present plan is to stay, 0 … 1. */
  readonly likeness: number;
}

export const DEFAULT_WISHES: StyleWishes = {
  shuffle: 0.4,
  smooth: 0.5,
  downbeat: 'down',
  acrossBeat: 'free',
  slurAcrossStrings: true,
  likeness: 0.3,
};

/** The terms of the objective, in the order in which they are told. */
export const COST_TERMS = [
  'idiom',
  'strokes',
  'template',
  'templateSwitch',
  'unlikeBars',
  'likeness',
  'upBow',
  'tuplet',
  'acrossBeat',
  'slurCrossing',
  'reverse',
  'tempo',
  'hook',
  'retake',
  'hair',
  'lock',
] as const;
export type CostTerm = (typeof COST_TERMS)[number];

/** Weights of the terms in points; guesses that set one nuisance against another. */
export const COST_WEIGHTS = {
  /** A note that begins a stroke where it is to share one, or the other way round. */
  strokes: 1,
  /** A note that does not begin or share a stroke as the template would; half of it for a hook instead of a slur. */
  template: 3,
  /** A bar that follows another template than the one before it, but where a phrase begins; times how closely one is kept to. */
  templateSwitch: 5,
  /** A bar bowed otherwise than the bar before it with the same notes. */
  unlikeBars: 1.5,
  /** A note with another link than now. */
  likeness: 1,
  /** A place of the bar on an up-bow, times what the dance says of the place; half of it where no stroke begins there. */
  upBow: 0.8,
  /** A tuplet that is not whole: a stroke that begins within it. */
  tuplet: 4,
  /** A beat that falls within a stroke, where that is to be avoided. */
  acrossBeat: 0.6,
  /** A crossing within a slur, and each string that it sweeps over. */
  slurCrossing: 0.3,
  slurSkip: 1.5,
  /** A crossing within a slur where none is wanted. */
  slurCrossingUnwanted: 3,
  reverse: 0.25,
  /** An event that has no room at the tempo, for each time its needed time is lacking. */
  tempo: 4,
  /** A hook over a rest or on one pitch; a stop of the bow between two notes that could be slurred. */
  hook: 0.5,
  hookWithoutCause: 1.5,
  retake: 2,
  /** A stroke longer or shorter than by itself, per its own length squared; away from the sweet spot, per (10 cm)². */
  hairStretch: 1,
  hairStray: 0.05,
  /** Hair that is lacking, per (10 cm)². */
  hairLacking: 10,
  /** A chain that does not end about the sweet spot, so that the next begins with a jump, per (10 cm)². */
  hairOpen: 0.05,
  /** A locked direction contradicted: more than everything else together in a tune of any length. */
  lock: 1000,
} as const;

/** Points are counted in millionths, as whole numbers: sums are exact, and so are ties. */
export const MILLIONTHS = 1e6;

/** Notes that one stroke may carry in a proposed bowing. */
export const MAX_IN_STROKE = 8;
/** Width of a cell of the bow in which positions are told apart, unless another is asked for. */
export const DEFAULT_CELL_CM = 4.5;
