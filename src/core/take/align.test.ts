import { hertzOf } from '#core/pitch';
import { reportTune } from '#core/report';
import { cases } from '../testing/share';
import { part, seeded, tune } from '../testing/tunes';
import { Alignment, type Visit } from './align';
import { expectedOf } from './expected';
import { Scores } from './scores';
import { emptySpectrum, HOP_SECONDS, LONG_WINDOW, type Spectrum, templateOf } from './spectra';

const report = reportTune(
  tune([
    part('A', 'D4 E4 F#4 G4 A4 B4 A4 G4 | F#4 A4 B4 c#5 d5 c#5 B4 A4 | G4 B4 A4 F#4 G4 E4 F#4 D4'),
    part('B', 'd5 e5 f#5 e5 d5 c#5 B4 A4 | B4 c#5 d5 B4 A4 F#4 E4 D4'),
  ]),
  { bpm: 90 },
);
const expected = expectedOf(report);
const { notes } = expected;
const framesOf = (note: number) => Math.round(notes[note]!.seconds / HOP_SECONDS);
const SILENCE = 'silence';

/** What sounds for so many frames: a note of the plan, a pitch that is not in it, or nothing. */
interface Sound {
  readonly of: number | { readonly hertz: number } | typeof SILENCE;
  readonly frames: number;
}
const asPlanned = (from: number, to: number, slower = 1): Sound[] =>
  Array.from({ length: to - from }, (_, k) => ({ of: from + k, frames: Math.round(slower * framesOf(from + k)) }));

const spectra = new Map<number, Spectrum>();
function spectrumOf(hertz: number): Spectrum {
  if (!spectra.has(hertz)) spectra.set(hertz, templateOf([hertz], LONG_WINDOW));
  return spectra.get(hertz)!;
}

/** The way that is found through sounds that are as clear as they can be, each heard to begin. */
function follow(sounds: readonly Sound[], until = Infinity) {
  const scores = new Scores(expected);
  const alignment = new Alignment(notes, scores);
  let t = 0;
  for (const { of, frames } of sounds) {
    const hertz = of === SILENCE ? null : typeof of === 'number' ? notes[of]!.hertz : of.hertz;
    for (let k = 0; k < frames && t < until; k++, t++) {
      alignment.advance(t, k === 0 && hertz !== null ? 0.25 : 0.005);
      scores.push(hertz === null ? emptySpectrum() : spectrumOf(hertz), hertz === null ? 0.75 : 0);
    }
  }
  return {
    isOver: alignment.isOver(t),
    visits: () => {
      alignment.advance(t, 0);
      return alignment.finish(t);
    },
  };
}
const visitsOf = (sounds: readonly Sound[]) => follow(sounds).visits();
const order = (visits: readonly Visit[]) => visits.map(({ note }) => note);
/** The truth: where each note of the plan began. */
function begun(sounds: readonly Sound[]) {
  let t = 0;
  return sounds.flatMap(({ of, frames }) => {
    const from = t;
    t += frames;
    return typeof of === 'number' ? [{ note: of, from }] : [];
  });
}
const ALL = asPlanned(0, notes.length);
const BEFORE: Sound = { of: SILENCE, frames: 60 };

test.each([0.75, 1, 1.3])('played %d times as slow as planned, each note is where it began', (slower) => {
  const sounds = [BEFORE, ...asPlanned(0, notes.length, slower), BEFORE];
  const visits = visitsOf(sounds);
  for (const [i, { note, from }] of begun(sounds).entries()) {
    expect(visits[i]!.note).toBe(note);
    expect(Math.abs(visits[i]!.from - from)).toBeLessThanOrEqual(1);
  }
  expect(visits.every(({ isJump, leftOut }) => !isJump && leftOut === 0)).toBe(true);
});

test('a tempo that falls by a fifth and one that rises by a fifth are followed', () => {
  for (const change of [0.2, -0.2]) {
    const sounds = ALL.map((sound, i) => ({ ...sound, frames: Math.round(sound.frames * (1 + (change * i) / 40)) }));
    expect(order(visitsOf(sounds))).toEqual(ALL.map(({ of }) => of));
  }
});

test('one note left out, and two, are so, and the next has its own time', () => {
  for (const gone of [1, 2]) {
    const visits = visitsOf([...asPlanned(0, 12), ...asPlanned(12 + gone, notes.length)]);
    expect(order(visits)).toEqual([...ALL.keys()].filter((i) => i < 12 || i >= 12 + gone));
    expect(visits[12]).toMatchObject({ note: 12 + gone, leftOut: gone, isJump: false });
  }
});

test('who stops, waits and begins again a bar before is found there, with the time of waiting', () => {
  const sounds = [...asPlanned(0, 21), { of: SILENCE, frames: 90 } as const, ...asPlanned(16, notes.length)];
  const visits = visitsOf(sounds);
  expect(order(visits)).toEqual([...Array(21).keys(), ...[...ALL.keys()].slice(16)]);
  expect(visits.filter(({ isJump }) => isJump).map(({ note }) => note)).toEqual([16]);
  expect(Math.abs(visits[21]!.from - visits[20]!.to - 90)).toBeLessThanOrEqual(6);
});

test('a note that is not in the plan is added, not taken for one of the plan', () => {
  const visits = visitsOf([
    ...asPlanned(0, 10),
    { of: { hertz: hertzOf(84, 440) }, frames: framesOf(0) },
    ...asPlanned(10, notes.length),
  ]);
  expect(order(visits)).toEqual([...[...ALL.keys()].slice(0, 10), null, ...[...ALL.keys()].slice(10)]);
});

test('another pitch in a note’s place keeps the place', () => {
  const sounds = ALL.map((sound, i) => (i === 9 ? { ...sound, of: { hertz: hertzOf(72, 440) } } : sound));
  expect(order(visitsOf(sounds))).toEqual([...ALL.keys()]);
});

test('of silence there is no way', () => {
  expect(visitsOf([{ of: SILENCE, frames: 300 }]).filter(({ note }) => note !== null).length).toBeLessThanOrEqual(1);
});

test('it is over when the last note has had its time, and not within it', () => {
  const total = ALL.reduce((sum, { frames }) => sum + frames, 0);
  const last = ALL[ALL.length - 1]!;
  const ringing = [...ALL, { of: last.of, frames: 30 }, BEFORE];
  expect(follow(ringing, total - Math.round(last.frames / 2)).isOver).toBe(false);
  expect(follow(ringing, total + 12).isOver).toBe(true);
});

/** Wanders through the plan as players do: on, and now and then with a note left out, or back to a beginning of a bar. */
function wandering(seed: number): Sound[] {
  const random = seeded(seed);
  const slower = 0.85 + 0.4 * random();
  const sounds: Sound[] = [BEFORE];
  let restarts = 0;
  for (let i = 0; i < notes.length; i++) {
    sounds.push({ of: i, frames: Math.max(6, Math.round(framesOf(i) * slower * (0.92 + 0.16 * random()))) });
    const chance = random();
    if (chance < 0.03 && i < notes.length - 3) i += 1;
    else if (chance > 0.97 && i > 9 && restarts++ < 2) {
      sounds.push({ of: SILENCE, frames: 40 + Math.round(60 * random()) });
      i = 8 * Math.floor(i / 8) - 1;
    }
  }
  return sounds;
}

test('of seeded ways through the plan at least 97 of 100 notes are found where they were', () => {
  let [right, all] = [0, 0];
  for (let seed = 1; seed <= cases(24); seed++) {
    const sounds = wandering(seed);
    const visits = visitsOf(sounds);
    const truth = begun(sounds);
    all += truth.length;
    right += truth.filter(({ note, from }) =>
      visits.some((visit) => visit.note === note && Math.abs(visit.from - from) <= 3),
    ).length;
  }
  expect(right / all).toBeGreaterThanOrEqual(0.97);
});
