import type { Words } from '#contract/settings';
import { ARPEGGIO, type DrillCause, type DrillKind, type StageCode, type Way } from '#core/drills';
import type { TuneReport } from '#core/report';
import { patternWords } from './pattern';
import { counted } from './plural';
import { countWords, spotWords } from './spot';
import { eventName } from './standing';

/** What each drill is called, and what it is for. */
export const DRILL_NAMES: Readonly<Record<DrillKind, { readonly name: string; readonly about: string }>> = {
  pattern: { name: 'Bowing pattern', about: 'The pattern by itself, until the arm knows it.' },
  'jig-accent': { name: 'Jig accent', about: 'The first of each three leans, whichever way the bow goes.' },
  'turn-in-silence': { name: 'Turn in silence', about: 'The arm turns while the bow stands, slower than it strokes.' },
  'skipped-string': { name: 'Skipped string', about: 'Over a string without touching it.' },
  'early-arm': { name: 'Early arm', about: 'Where the bow lies before it crosses.' },
  'pair-plane': { name: 'Two strings, one plane', about: 'The bow stays on both while the fingers move.' },
  'no-bump': { name: 'No bump', about: 'Fingers come and go beside a string that sounds.' },
  'doubling-approach': { name: 'Unison doubling', about: 'A lower finger slides into the pitch of the open string.' },
  'one-finger-across': { name: 'One finger across', about: 'One finger stops two strings.' },
  'stretch-pair': { name: 'Stretch', about: 'The same two fingers, from the easiest string to the hardest.' },
  elbow: { name: 'Elbow', about: 'The arm swings from the lowest string to the highest.' },
  shift: { name: 'Shift', about: 'Through the guide note, then straight.' },
  'falling-run': { name: 'Falling run', about: 'Fingers are set together, then lifted one by one.' },
  hop: { name: 'Hop', about: 'One finger from string to string, light and in time.' },
  'finger-before-bow': { name: 'Finger before bow', about: 'The finger is down before the bow moves.' },
  'bowed-triplet': { name: 'Bowed triplet', about: 'Three short strokes from the hand.' },
  pulse: { name: 'Pulse', about: 'Slow, fast, slow: the return belongs to it.' },
  flick: { name: 'Flick', about: 'A finger brushes the string and is gone.' },
  'closing-swell': { name: 'Closing swell', about: 'The up-bow swells, takes in the neighbour, and both end it.' },
  'bow-amount': { name: 'Bow amount', about: 'How much bow a note gets, from whole to dance length.' },
  'start-place': { name: 'Start place', about: 'Where on the bow the passage begins.' },
  staccato: { name: 'Staccato', about: 'Short notes with clean gaps.' },
  fade: { name: 'Fade', about: 'Lighter, slower, toward the fingerboard.' },
  vibrato: { name: 'Vibrato', about: 'None, slow and wide, quick, and growing within a note.' },
  'tone-match': { name: 'Tone match', about: 'Each note of the key against its own tone.' },
};

/** What is done in each stage. */
export const STAGE_WORDS: Readonly<Record<StageCode, string>> = {
  'open-string': 'On one open string.',
  'other-start': 'The same, begun on the up-bow.',
  scale: 'On one octave of the scale.',
  'scale-two': 'On two octaves.',
  'key-figure': 'On the chord of the key.',
  'in-the-tune': 'In the tune.',
  'bar-a-note': 'One bow for every bar.',
  'stroke-a-note': 'A stroke for every note, leaning on the first of three.',
  'stroke-a-note-up': 'The same from the up-bow.',
  'compare-angles': 'Without sound: lay the bow on string after string and feel how far the arm turns.',
  'stop-1': 'Stroke, stop for a beat, turn slowly without sound, stroke.',
  'stop-half': 'The stop is half a beat.',
  'stop-quarter': 'The stop is a quarter of a beat.',
  'no-stop': 'No stop.',
  'with-fingers': 'With the fingers of the tune.',
  'off-string': 'Off the string: stroke, lift over, stroke.',
  'roll-over': 'On the string: stroke, stop, roll over, stroke.',
  'on-string': 'The two strokes without a stop.',
  'near-edge': 'The bow lies at the edge near the next string. Listen and compare.',
  middle: 'The bow lies in the middle of its string.',
  'far-edge': 'The bow lies at the far edge.',
  'pair-short': 'Short bows on both strings.',
  'pair-long': 'Long bows on both strings.',
  'pair-to-pair': 'From pair to pair.',
  'upper-fingers': 'Fingers on the upper string above the drone.',
  'lower-fingers': 'Fingers on the lower string below the drone.',
  'bow-upper-alone': 'Bow the upper string alone; fingers come and go on the lower one. Nothing may change.',
  'bow-lower-alone': 'Bow the lower string alone; fingers come and go on the upper one. Nothing may change.',
  'slide-from': 'Slide from the lower finger into the unison.',
  'both-pitches': 'Both pitches, one after the other and together.',
  'across-short': 'Plucked, a little at a time: longer by the day.',
  'string-by-string': 'The two fingers on this string, other fingers lifted first.',
  swing: 'Without sound: swing from the lowest string to the highest and back.',
  'by-guide-note': 'Through the guide note.',
  direct: 'Straight to the note.',
  'audible-slide': 'With a slide that is heard, in time.',
  'set-then-lift': 'Set the fingers together, then lift them one by one.',
  pluck: 'Plucked: a late finger is heard at once.',
  bow: 'Bowed.',
  'light-hop': 'Accent, change over, two light strokes, land on the finger’s side.',
  'press-release': 'Press, prime, let go on three.',
  'from-up-bow': 'From the up-bow.',
  'both-bows': 'From both bows by turns.',
  'swell-slow': 'Slow, fast, slow over a whole bow.',
  'swell-return': 'Shorter: count the return as part of it.',
  'swell-offbeat': 'On the offbeats.',
  'touch-hold': 'Touch the string and hold: hear the tone of a light touch.',
  'tap-open': 'Tap and lift over the open string.',
  'over-fingers': 'Over each stopped finger.',
  'swell-up': 'The up-bow swell alone.',
  'grab-neighbour': 'The swell takes in the neighbour string.',
  'two-string-end': 'And both strings end it.',
  'whole-bow': 'The whole bow for each note.',
  'half-bow': 'Half of the bow.',
  'dance-bow': 'As short as at the dance.',
  'from-its-place': 'Set the bow at the place planned, and begin there.',
  gaps: 'Short notes; the gap is as long as the note.',
  lighter: 'One long note: lighter, slower, toward the fingerboard until it is gone.',
  'no-vibrato': 'A long note without vibrato.',
  'slow-wide': 'Slow and wide.',
  quick: 'Quick.',
  ramp: 'From none to quick within one note.',
  'own-tone': 'Each note against its own tone: play, listen, play.',
};

export const WAY_WORDS: Readonly<Record<Way, string>> = {
  silent: 'without sound',
  plucked: 'plucked',
  'held-low': 'held low like a guitar',
  bowed: 'bowed',
};

/** What a cause is told with. */
interface Told {
  readonly figure: number;
  readonly name: string;
  /** ` at bar 2 of A, beat 1`; empty where it has no place. */
  readonly here: string;
  readonly isMarked: boolean;
}

const heldWords = ({ figure, here, isMarked }: Told) =>
  isMarked ? `${counted(figure, 'note')} marked like this, the first${here}.` : `The note${here} lasts ${figure} s.`;

/** Why each is called for, where it is more than so many notes of a kind. */
const CAUSES: Partial<Record<DrillKind, (told: Told) => string>> = {
  pattern: ({ figure, name }) => `${counted(figure, 'bar')} in a row follow ${name.replace(/-/g, ' ')}.`,
  'jig-accent': () => 'The tune goes in threes.',
  elbow: ({ figure }) => `It uses ${figure} strings.`,
  'stretch-pair': ({ figure, here }) => `The widest reach is ${figure} mm,${here}.`,
  'falling-run': ({ figure, here }) => `A run falls${here}: ${counted(figure, 'finger')} can be set together.`,
  'finger-before-bow': ({ figure, here }) => `The finger has least time${here}: ${figure} ms.`,
  'bow-amount': ({ figure, here }) => `The longest stroke takes ${figure} cm,${here}.`,
  'start-place': ({ figure }) => `The first stroke begins ${figure} cm from the frog.`,
  'tone-match': ({ figure }) => `${counted(figure, 'awkward spot')} in this key and tuning.`,
  'doubling-approach': ({ name, here }) => `The open ${name} can be doubled${here}.`,
  fade: heldWords,
  vibrato: heldWords,
};

/** Why a drill is called for, with its place and figure. */
export function causeWords(cause: DrillCause, kind: DrillKind, report: TuneReport): string {
  const { by, event, note, at: index, figure = 0, name = '' } = cause;
  if (by === 'chosen') return 'You chose it.';
  const { notes } = report.unrolled;
  const at = index === undefined ? notes.find((played) => played.note.id === note) : notes[index];
  const here = at ? ` at ${spotWords(at)}, ${countWords(at)}` : '';
  if (by === 'event' && event !== undefined) {
    const crossing = at ? (report.figures.arm.crossings[at.index] ?? null) : null;
    return `The tightest ${eventName(event, crossing).replace(/^an? /, '')} is${here}: ${figure} ms at the tempo wanted.`;
  }
  const own = CAUSES[kind];
  if (own) return own({ figure, name, here, isMarked: by === 'mark' });
  return here === '' ? 'The tune asks for it.' : `${counted(figure, 'note')}, the first${here}.`;
}

/** A technique as the book has it: a drill's kind, or a bowing as `pattern:pairs`. */
export function techniqueWords(technique: string, words: Words): string {
  if (technique === ARPEGGIO) return 'Arpeggio';
  if (technique in DRILL_NAMES) return DRILL_NAMES[technique as DrillKind].name;
  return technique.startsWith('pattern:') ? patternWords(technique.slice('pattern:'.length), words) : technique;
}
