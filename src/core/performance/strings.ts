import type { Seconds } from '#core/base';
import type { Accent, Contact, PitchMove, SoundPlan, Swell, Touch, Vibrato } from '#core/sound';
import { type NoteMark, PLACES } from '#core/tune';
import { hertzAt, pitchGesture } from './gestures';
import type { Layer } from './layers';
import type { PlayedPlan } from './soundingTime';
import { noteEnd, soundingSeconds } from './soundingTime';

/** What is heard of pulses, accents and closing swells; how long a flick, at the onset of its note, and how long a finger presses in. Guesses. */
export const PULSE_DECIBELS = 5;
const ACCENT_DECIBELS = 3.5;
const CLOSING_DECIBELS = 4;
/** What is left of a fade at its end, beside what weight and contact take of it. */
const FADE_DECIBELS = -10;
/** Share of a closing swell's first note after which the bow takes in the neighbour string. A guess. */
const SWELL_TAKES_IN = 0.5;
const FLICK_SECONDS = 0.022;
const PRESS = { max: 0.09, share: 0.4 } as const;
const VIBRATO = { after: 0.12, rate: 5.6, cents: 28, grow: 0.3 } as const;
/** A rolled chord: its lower strings first. */
const ROLLED = { max: 0.09, share: 0.3 } as const;

type Played = Pick<SoundPlan, 'contacts' | 'pitches' | 'vibrato' | 'swells' | 'accents' | 'touches'>;

/** What bow and fingers do on the notes of a span. */
export function played(
  report: PlayedPlan,
  layers: ReadonlySet<Layer>,
  first: number,
  end: number,
  at: (index: number) => Seconds,
): Played {
  const { unrolled, fingers, settings, tune } = report;
  const strings = () => PLACES.map((): never[] => []);
  const contacts: Contact[][] = strings();
  const pitches: PitchMove[][] = strings();
  const vibrato: Vibrato[][] = strings();
  const touches: Touch[][] = strings();
  const swells: Swell[] = [];
  const accents: Accent[] = [];
  const hasColour = layers.has('colour');
  for (let i = first; i < end; i++) {
    const unrolledNote = unrolled.notes[i]!;
    const { note } = unrolledNote;
    const fingering = fingers.get(note.id);
    const begin = at(i);
    const seconds = noteEnd(report, i, end, at) - begin;
    // What no string reaches is sounded on the highest string all the same.
    const place = fingering?.reachable ? PLACES.indexOf(fingering.place) : 3;
    const marks: readonly NoteMark[] = (hasColour && note.marks) || [];
    const until = begin + soundingSeconds(seconds, marks);
    if (layers.has('melody')) touch(contacts[place]!, { from: begin, to: until, role: 'melody' });
    const gesture = pitchGesture(
      hasColour ? unrolledNote : { ...unrolledNote, note: { ...note, graceNotes: [] } },
      seconds,
      tune.key,
      unrolled.notes[i + 1],
      marks,
    );
    for (const { after, hertz, glide } of gesture) pitches[place]!.push({ at: begin + after, hertz, glide });
    if (layers.has('drones')) soundSecond(report, i, { begin, until, seconds, place }, contacts, pitches);
    if (marks.includes('vibrato') || marks.includes('vibrato-growing'))
      vibrato[place]!.push({
        from: begin + VIBRATO.after,
        to: begin + seconds,
        rate: VIBRATO.rate,
        cents: VIBRATO.cents,
        grow: marks.includes('vibrato-growing') ? seconds - VIBRATO.after : VIBRATO.grow,
      });
    if (marks.includes('flick'))
      touches[place]!.push({ kind: 'flick', from: begin, to: begin + Math.min(FLICK_SECONDS, 0.3 * seconds) });
    if (marks.includes('pressed-in'))
      touches[place]!.push({ kind: 'press', from: begin, to: begin + Math.min(PRESS.max, PRESS.share * seconds) });
    const swell = swellOf(layers.has('bowing') ? (note.marks ?? []) : marks, begin, seconds, settings.schools.pulse);
    if (swell) swells.push(swell);
    if (marks.includes('accent')) accents.push({ at: begin, decibels: ACCENT_DECIBELS });
  }
  return { contacts, pitches, vibrato, swells, accents, touches };
}

/** A note that follows on the same string keeps the bow on it: one touch. */
function touch(list: Contact[], next: Contact): void {
  const last = list[list.length - 1];
  if (last && last.role === next.role && next.from - last.to < 1e-6) list[list.length - 1] = { ...last, to: next.to };
  else list.push(next);
}

/** The other strings of a double stop or a chord, and an open string that sounds along. */
function soundSecond(
  { unrolled, fingers, tune }: PlayedPlan,
  index: number,
  { begin, until, seconds, place }: { begin: Seconds; until: Seconds; seconds: Seconds; place: number },
  contacts: Contact[][],
  pitches: PitchMove[][],
): void {
  const { note } = unrolled.notes[index]!;
  const stops = fingers.get(note.id)?.stops ?? [];
  const rolled = Math.min(ROLLED.max, ROLLED.share * seconds);
  for (const [i, stop] of stops.entries()) {
    const pitch = note.stops?.[i];
    if (!stop || !pitch) continue;
    const string = PLACES.indexOf(stop.place);
    if (string === place) continue;
    pitches[string]!.push({ at: begin, hertz: hertzAt(pitch), glide: 0 });
    // The bow lies on two strings: lower ones of a chord are left again at once.
    touch(contacts[string]!, { from: begin, to: i === 0 ? until : begin + rolled, role: 'second' });
  }
  if (!note.drone || (note.drone === 'upper' && stops[0])) return;
  const string = place + (note.drone === 'upper' ? 1 : -1);
  const open = tune.tuning[string];
  if (!open) return;
  // The swell takes the neighbour in on its way.
  const from = note.marks?.includes('closing-swell') ? begin + SWELL_TAKES_IN * seconds : begin;
  pitches[string]!.push({ at: from, hertz: hertzAt(open), glide: 0 });
  touch(contacts[string]!, { from, to: until, role: 'second' });
}

function swellOf(
  marks: readonly NoteMark[],
  from: Seconds,
  seconds: Seconds,
  pulse: PlayedPlan['settings']['schools']['pulse'],
): Swell | null {
  const to = from + seconds;
  if (marks.includes('pulse')) return { from, to, decibels: PULSE_DECIBELS, by: pulse, returns: true };
  if (marks.includes('fade')) return { from, to, decibels: FADE_DECIBELS, by: 'fade', returns: false };
  if (marks.includes('closing-swell')) return { from, to, decibels: CLOSING_DECIBELS, by: 'speed', returns: false };
  return null;
}
