import type { Instrument } from '#core/instrument';
import type { Finding } from '#core/report';
import type { Schools } from '#core/schools';
import type { LimitKey } from '#core/tempo';

interface SchoolWords<K extends keyof Schools> {
  readonly title: string;
  readonly choices: Readonly<Record<Schools[K], { readonly name: string; readonly means: string }>>;
}

/** How each school is named, and which figures follow it. */
export const SCHOOL_WORDS: { readonly [K in keyof Schools]: SchoolWords<K> } = {
  turn: {
    title: 'A crossing at a bow change',
    choices: {
      merge: { name: 'merged into the turn', means: 'it has half of both notes together' },
      stop: { name: 'stop, turn, bow on', means: 'it has half the note before; ceilings fall' },
    },
  },
  skips: {
    title: 'A crossing over a string',
    choices: {
      'on-string': { name: 'on the string', means: 'what is swept over may sound, and is told' },
      'off-string': { name: 'off the string', means: 'the bow is lifted, which needs no less than a retake' },
    },
  },
  arm: {
    title: 'The bow’s angle',
    choices: {
      early: {
        name: 'ready before the crossing',
        means: 'the bow already lies at the edge nearest the next string: little is left to turn at the crossing',
      },
      late: { name: 'at the crossing', means: 'the bow stays where it is and turns as the string changes' },
      middle: {
        name: 'from the wrist',
        means:
          'the elbow stays still; the lane runs through the strings’ middles, and each crossing turns the whole way',
      },
    },
  },
  ovals: {
    title: 'Crossings at a bow change',
    choices: {
      'no-matter': { name: 'either way round', means: 'nothing is said of them' },
      'lower-down': { name: 'lower string on the down-bow', means: 'six or more the other way in a row are told' },
      'upper-down': { name: 'upper string on the down-bow', means: 'six or more the other way in a row are told' },
    },
  },
  guide: {
    title: 'A shift is led',
    choices: {
      'lowest-finger': { name: 'by the lowest finger of the new position', means: 'its note is the guide note' },
      'travelling-finger': { name: 'by the finger that was down', means: 'where it arrives is the guide note' },
    },
  },
  fingers: {
    title: 'A finger that may stay down',
    choices: {
      hold: { name: 'stays as long as it may', means: 'the line of each finger runs to where it is wanted elsewhere' },
      lift: {
        name: 'lifts where it strains or a string must ring',
        means: 'the line ends where the span grows by 8 mm or an open neighbour sounds',
      },
    },
  },
  bareFinger: {
    title: 'A finger called without its string',
    choices: {
      'same-string': { name: 'stays on the string named last', means: 'the string stays until another is named' },
      nearest: {
        name: 'goes where the hand is nearest',
        means: 'the string whose note lies nearest to the one before',
      },
    },
  },
  pulse: {
    title: 'A pulse',
    choices: {
      speed: { name: 'by a quicker bow', means: 'the note takes 1.35 times its hair' },
      weight: { name: 'by weight', means: 'the note takes no more hair' },
    },
  },
  weightAt: {
    title: 'A stroke has its weight',
    choices: {
      start: { name: 'at its beginning', means: 'it is heard to begin louder than it ends' },
      middle: { name: 'in its middle', means: 'it is heard to grow and to fade' },
    },
  },
  learning: {
    title: 'A passage is learned',
    choices: {
      'one-direction': { name: 'in one direction', means: 'loops that flip are given a retake' },
      'both-directions': {
        name: 'in both directions',
        means: 'a part that flips is a note and no problem; so are loops',
      },
    },
  },
  downbeat: {
    title: 'Bars begin',
    choices: {
      down: { name: 'on the down-bow', means: 'proposed bowings keep it where they can' },
      free: { name: 'as they come', means: 'proposed bowings do not mind' },
    },
  },
  bowAmount: {
    title: 'A tune is learned',
    choices: {
      'short-strokes': { name: 'with short strokes from the first day', means: 'the bow goes slower, not further' },
      'whole-bow': { name: 'with the whole bow first', means: 'less of it at each step of tempo' },
    },
  },
};

export const INSTRUMENT_WORDS: Readonly<
  Record<keyof Instrument, { readonly name: string; readonly unit: string; readonly why: string }>
> = {
  stringLengthMm: { name: 'String length', unit: 'mm', why: 'nut to bridge' },
  bridgeRadiusMm: { name: 'Bridge radius', unit: 'mm', why: 'flatter bridges have larger ones' },
  stringSpacingMm: { name: 'String spacing', unit: 'mm', why: 'between neighbours at the bridge' },
  marginDegrees: { name: 'Margin', unit: '°', why: 'kept from a neighbour string' },
  hairCm: { name: 'Usable hair', unit: 'cm', why: 'frog to tip' },
  sweetSpotCm: { name: 'Sweet spot', unit: 'cm', why: 'from the frog, where dance strokes live' },
  windowHalfCm: { name: 'Working window', unit: 'cm', why: 'to either side of the sweet spot' },
};

export const LIMIT_WORDS: Readonly<Record<LimitKey, { readonly name: string; readonly unit: string }>> = {
  strokeMs: { name: 'Shortest stroke', unit: 'ms' },
  tripletStrokeMs: { name: 'Shortest stroke of a bowed triplet', unit: 'ms' },
  crossingMs: { name: 'Crossing', unit: 'ms' },
  crossingMsPerDegree: { name: 'Crossing, for each degree', unit: 'ms/°' },
  skipMs: { name: 'Crossing, for each string between', unit: 'ms' },
  slurCrossingMs: { name: 'Crossing in a slur', unit: 'ms' },
  slurCrossingMsPerDegree: { name: 'Crossing in a slur, for each degree', unit: 'ms/°' },
  slurSkipMs: { name: 'Crossing in a slur, for each string between', unit: 'ms' },
  hopMs: { name: 'Same finger to another place on another string', unit: 'ms' },
  barreMs: { name: 'One finger laid across two strings', unit: 'ms' },
  shiftMs: { name: 'Shift', unit: 'ms' },
  shiftMsPerMm: { name: 'Shift, for each mm', unit: 'ms/mm' },
  retakeMs: { name: 'Retake', unit: 'ms' },
  cutMs: { name: 'Cut', unit: 'ms' },
  flickMs: { name: 'Flick', unit: 'ms' },
  shortRollMs: { name: 'Short roll', unit: 'ms' },
  longRollMs: { name: 'Long roll', unit: 'ms' },
  pulseMs: { name: 'Pulse', unit: 'ms' },
  graceMs: { name: 'Each grace note', unit: 'ms' },
  slideMs: { name: 'Slide', unit: 'ms' },
  slowestBowCmPerSecond: { name: 'Slowest comfortable bow', unit: 'cm/s' },
};

/** Findings in a word or two, by code. */
export const FINDING_NAMES: Readonly<Record<Finding['code'], string>> = {
  'part-flips': 'a part that flips',
  'lock-contradicted': 'a lock that is contradicted',
  'bar-short': 'a bar too short',
  'bar-long': 'a bar too long',
  'join-does-not-add-up': 'bars that do not add up from one time through to the next',
  'tune-flips-again': 'flips when begun again',
  'slur-skips-string': 'a slur over a string',
  'crossing-too-fast': 'a crossing without time',
  'stroke-too-fast': 'a stroke too short',
  'runs-out-of-hair': 'hair that runs out',
  'bars-begin-up': 'bars on the up-bow',
  'bowed-unlike': 'a figure bowed two ways',
  'window-left': 'strokes outside the window',
  jerk: 'a jerk',
  'skip-may-sound': 'a skip that may sound',
  'hop-too-fast': 'a hop without time',
  'shift-too-fast': 'a shift without time',
  'retake-too-fast': 'a retake without time',
  'ornament-too-fast': 'an ornament without time',
  'out-of-reach': 'a note out of reach',
  'stops-out-of-reach': 'a chord out of reach',
  'finger-misfits': 'a finger that does not fit',
  'ornament-misfits': 'an ornament that does not fit',
  'drone-grates': 'a drone that grates',
  'hand-forbids': 'a finger your hand leaves out',
  'extended-fourth': 'a stretched fourth finger',
  'string-inferred': 'a string that was guessed',
  'reverse-crossings': 'reverse crossings',
  'one-plane': 'one plane for two strings',
};
