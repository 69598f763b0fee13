import type { NoteState } from '#core/noteStates';
import type { NoteEvent, NoteMark } from '#core/tune';
import { STANDARD_TUNING, type Tuning } from '#core/tuning';
import { spokenPitch } from './pitch';
import { positionWords } from './position';
import { barWords, capitalised, countWords } from './spot';
import { spokenString } from './strings';

const FINGERS = ['open', 'first finger', 'second finger', 'third finger', 'fourth finger'];

/** `Bar 3, the “and” of 2: E, D string, first finger, up-bow, slurred with the next`. */
export function spokenNote(
  note: NoteEvent,
  state: NoteState | undefined,
  bar: number,
  tuning: Tuning = STANDARD_TUNING,
): string {
  const inBar = capitalised(barWords({ bar, ending: state?.ending ?? null }));
  const pitches = [note.pitch, ...(note.stops ?? [])].map(spokenPitch).join(' with ');
  if (!state) return `${inBar}: ${pitches}, not played in this form`;
  const where = `${inBar}, ${countWords(state)}`;
  const hand =
    state.reachable && state.finger !== null
      ? `${spokenString(state.place, tuning)}, ${FINGERS[state.finger]}${positionSpoken(state)}`
      : 'out of reach';
  if (state.continues) return `${where}: ${pitches}, tied`;
  const link = linkWords(state);
  return [
    `${where}: ${pitches}`,
    hand,
    `${state.bow}-bow`,
    ...(state.drone ? [`with the open ${spokenString(state.drone, tuning)}`] : []),
    ...(link ? [link] : []),
    ...(state.joinsNext ? ['slurred with the next'] : []),
    ...state.marks.flatMap((mark) => MARK_SPOKEN[mark] ?? []),
    ...freeWords(note),
    ...(state.lock ? [state.lockBroken ? `locked ${state.lock}-bow, but it comes out the other way` : 'locked'] : []),
    ...(state.differs ? ['bowed the other way another time through'] : []),
  ].join(', ');
}

/** `held 1.5 times its length`, `then a breath`, `pace 80 percent`. */
function freeWords({ hold, breath, pace }: NoteEvent): string[] {
  return [
    ...(hold === undefined ? [] : [`held ${Number(hold.toFixed(2))} times its length`]),
    ...(breath === undefined ? [] : ['then a breath']),
    ...(pace === undefined ? [] : [`pace ${Math.round(100 * pace)} percent`]),
  ];
}

function positionSpoken({ position, finger }: NoteState): string {
  return position === null || position === 1 || finger === 0 ? '' : ` in ${positionWords(position)} position`;
}

/** Marks as they are said after a note. */
const MARK_SPOKEN: Partial<Record<NoteMark, string>> = {
  pulse: 'pulsed',
  'bowed-triplet': 'with a bowed triplet',
  cut: 'with a cut',
  roll: 'with a roll',
  flick: 'with a flick',
  'passing-triplet': 'with a passing triplet',
  'brushed-run': 'with a brushed run',
  'pressed-in': 'pressed in',
  slide: 'with a slide',
  snap: 'snapped',
  staccato: 'staccato',
  accent: 'accented',
  vibrato: 'with late vibrato',
  'vibrato-growing': 'with vibrato slow to fast',
  'closing-swell': 'with a closing swell',
  fade: 'fading away',
  'inferred-string': 'on a string that was guessed',
  barre: 'one finger across both strings',
  fermata: 'held',
};

function linkWords({ link }: NoteState): string | null {
  if (link === 'slur') return 'slurred to the one before';
  if (link === 'hook') return 'hooked';
  if (link === 'retake') return 'retaken';
  return null;
}

/** `A:1`, the call of a note: place and finger; `-` and `+` where the finger is lowered or raised is left to the letter. */
export function callOf(state: NoteState): string {
  return state.finger === null ? '–' : `${state.place}:${state.finger}`;
}
