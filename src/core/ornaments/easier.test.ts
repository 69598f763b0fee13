import { setLinks } from '#core/bowing';
import { type Tune, unroll, writtenNotes } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { easierVersions } from './easier';

test('an easier version takes layers off one after the other, drones last, and leaves nothing that was not there', () => {
  const bare = tune([part('A', 'B4:3 A4 F#4:3 E4')]);
  const full: Tune = {
    ...bare,
    parts: [
      {
        name: 'A',
        events: bare.parts[0]!.events.map((event) =>
          event.kind === 'note'
            ? { ...event, marks: ['roll', 'cut', 'pulse', 'slide', 'accent'] as const, drone: 'lower' as const }
            : event,
        ),
      },
    ],
  };
  const steps = easierVersions(full);
  expect(steps.map(({ off, notes }) => `${off} ${notes}`)).toEqual([
    'rolls and triplets 4',
    'cuts and flicks 4',
    'swells, pulses and fades 4',
    'slides and vibrato 4',
    'drones 4',
  ]);
  // What is no ornament stays.
  const last = steps[steps.length - 1]!.tune;
  expect(writtenNotes(last).every(({ marks, drone }) => marks?.join() === 'accent' && !drone)).toBe(true);
  expect(easierVersions(bare)).toEqual([]);
});

const offs = (of: Tune) => easierVersions(of).map(({ off, notes }) => `${off} ${notes}`);
const melody = (of: Tune) =>
  writtenNotes(of).map(({ pitch, duration }) => `${pitch.letter}${duration.n}/${duration.d}`);

test('long slurs become pairs, and pairs stay', () => {
  const t = tune([part('A', 'D4 E5 F#4 G5 A4 B5 A4 G5')]);
  const slurred = setLinks(
    t,
    new Map([
      ['A2', 'slur'],
      ['A3', 'slur'],
      ['A4', 'slur'],
      ['A5', 'slur'],
    ]),
  );
  const [step, ...more] = easierVersions(slurred);
  expect([step!.off, step!.notes, more]).toEqual(['long slurs', 2, []]);
  expect(writtenNotes(step!.tune).map(({ link }) => link)).toEqual([
    'start',
    'slur',
    'change',
    'slur',
    'change',
    'change',
    'change',
    'change',
  ]);
  expect(
    offs(
      setLinks(
        t,
        new Map([
          ['A2', 'slur'],
          ['A4', 'slur'],
        ]),
      ),
    ),
  ).toEqual([]);
});

test('what only leads by step off the beat is left out, and the note before is held', () => {
  const t = tune([part('A', 'D4 E4 F#4 A4 G4 F#4 E4 E4')]);
  const [step] = easierVersions(t);
  expect([step!.off, step!.notes]).toEqual(['passing notes', 2]);
  expect(melody(step!.tune)).toEqual(['D1/4', 'F1/8', 'A1/8', 'G1/4', 'E1/8', 'E1/8']);
  // A marked note, a turn back and a leap are melody.
  expect(offs(tune([part('A', 'D4 E4 D4 A4 G4 A4 E4 E4')]))).toEqual([]);
});

test('a version without passing notes lasts as long as the tune, bar by bar', () => {
  const t = tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5 | D5 C#5 B4 A4 G4 F#4 E4 D4')], { form: ['A', 'A'] });
  const { tune: thin } = easierVersions(t).at(-1)!;
  expect(unroll(thin).duration).toEqual(unroll(t).duration);
  expect(unroll(thin).bars.map(({ duration }) => duration)).toEqual(unroll(t).bars.map(({ duration }) => duration));
});
