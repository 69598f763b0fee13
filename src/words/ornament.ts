import type { Words } from '#contract/settings';
import type { Obstacle, Ornament, RuleSpot } from '#core/ornaments';

const NAMES: Readonly<Record<Ornament, string>> = {
  'bowed-triplet': 'bowed triplet',
  cut: 'cut',
  roll: 'roll',
  flick: 'flick',
  'passing-triplet': 'passing triplet',
  'brushed-run': 'brushed run',
  'pressed-in': 'pressed-in start',
  slide: 'slide',
  snap: 'snap',
  staccato: 'staccato',
  vibrato: 'late vibrato',
  'vibrato-growing': 'vibrato slow to fast',
  pulse: 'pulse',
  'closing-swell': 'closing swell',
  fade: 'fading end',
};

/** An ornament as the player's school calls it: labels only, no figure follows them. */
export function ornamentName(ornament: Ornament, { cut, flick }: Pick<Words, 'cut' | 'flick'>): string {
  if (ornament === 'flick') return flick;
  if (cut === 'bowed-triplet') {
    if (ornament === 'bowed-triplet') return 'cut';
    if (ornament === 'cut') return 'quick grace';
  }
  return NAMES[ornament];
}

/** What stands in an ornament's way, and what may be done instead. */
export function obstacleWords(obstacle: Obstacle, ornament: Ornament): string {
  switch (obstacle) {
    case 'open-string':
      if (ornament === 'roll')
        return 'nothing lies below an open string: two cuts instead, or the pitch stopped on the next lower string';
      return 'an open string cannot be moved: stop the pitch on the next lower string';
    case 'no-finger-above':
      return 'no finger is left above the fourth';
    case 'too-short':
      return 'the note is too short for it at this tempo';
    case 'no-room':
      return 'no room from a semitone away: press it in instead';
    case 'not-up-bow':
      return 'the stroke is no up-bow on every pass: change the bowing first';
    case 'neighbour-does-not-fit':
      return 'no neighbour string agrees with both notes of it';
    case 'not-at-phrase-end':
      return 'it closes on a note of a beat or more that ends a phrase, and the next note is not';
    case 'not-before-longer':
      return 'it stands before a longer note';
    case 'kept-from-hand':
      return 'it asks for a finger your hand leaves out';
    case 'in-slur':
      return 'it is three strokes of its own: the slur must be split for it';
    case 'not-into-strong':
      return 'it runs into a strong note, and the next is none';
  }
}

export const RULE_SPOT_WORDS: Readonly<Record<RuleSpot, string>> = {
  'dotted-quarters': 'each dotted quarter on the beat',
  'on-beat': 'each note on the beat',
  offbeat: 'each note off the beat',
  'long-notes': 'each quarter or longer',
  'phrase-ends': 'the end of each phrase',
};
