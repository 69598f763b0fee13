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
        return 'nothing lies below an open string: use two cuts, or stop the note on the next lower string';
      return 'an open string cannot be moved: stop the note on the next lower string';
    case 'no-finger-above':
      return 'there is no finger above the fourth';
    case 'too-short':
      return 'the note is too short for it at this tempo';
    case 'no-room':
      return 'there is no room to slide from a semitone away: press it in instead';
    case 'not-up-bow':
      return 'the stroke is not an up-bow every time: change the bowing first';
    case 'neighbour-does-not-fit':
      return 'no neighbouring string goes with both of its notes';
    case 'not-at-phrase-end':
      return 'it needs a phrase to end on a note of a beat or more, and here none does';
    case 'not-before-longer':
      return 'it wants a longer note after it';
    case 'kept-from-hand':
      return 'it needs a finger your hand leaves out';
    case 'in-slur':
      return 'it is three strokes by itself: split the slur first';
    case 'not-into-strong':
      return 'it should lead into a strong beat, and the next note is not one';
  }
}

export const RULE_SPOT_WORDS: Readonly<Record<RuleSpot, string>> = {
  'dotted-quarters': 'each dotted quarter on the beat',
  'on-beat': 'each note on the beat',
  offbeat: 'each note off the beat',
  'long-notes': 'each quarter or longer',
  'phrase-ends': 'the end of each phrase',
};
