import { setLinks } from '#core/bowing';
import { midiOf, pitchName } from '#core/pitch';
import { reportTune } from '#core/report';
import { PLACES, type Tune, writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { part, seeded, tune } from '../testing/tunes';
import { countCues } from './cues';
import { handTwins } from './handTwins';
import { phraseIndex } from './phraseIndex';
import { flippingSpots, twinFigures } from './twins';

const twinsOf = (played: Tune) => handTwins(played, reportTune(played).fingers);

// D E F# G on the D string, and the same fingers on the A string: A B C# D.
const onTwoStrings = tune([part('A', 'D4 E4 F#4 G4 | d5:4 | A4 B4 C#5 D5 | g5:4')]);

test('the same fingers on the next string are a hand twin, a fifth higher where the strings are a fifth apart', () => {
  const [twin] = twinsOf(onTwoStrings);
  expect(twin!.length).toBe(4);
  expect(twin!.spots.map(({ string, semitones }) => [string, semitones])).toEqual([
    ['D', 0],
    ['A', 7],
  ]);
  expect(twin!.spots[1]!.notes.map(({ pitch }) => pitchName(pitch))).toEqual(['A4', 'B4', 'C#5', 'D5']);
});

test('in a cross-tuning the same hand is the same interval above the string as it is tuned', () => {
  const crossed: Tune = { ...onTwoStrings, tuning: parseTuning('G3 D4 G4 D5')! };
  const spots = twinsOf(crossed).flatMap((twin) => twin.spots.map(({ semitones }) => semitones));
  // A and B lie on the G string there: another hand than D and E on the D string.
  expect(spots).not.toContain(7);
  const fourths = tune([part('A', 'D4 E4 F#4 E4 | d5:4 | G4 A4 B4 A4 | g5:4')], {
    tuning: parseTuning('G3 D4 G4 D5')!,
  });
  expect(twinsOf(fourths)[0]!.spots.map(({ semitones }) => semitones)).toEqual([0, 5]);
});

test('over two strings the twin is the same tune only where both pairs are equally far apart', () => {
  // D string to A string and back; A string to E string and back.
  const line = 'D4 E4 A4 B4 | g5:4 | A4 B4 E5 F#5 | G3:4';
  expect(twinsOf(tune([part('A', line)]))[0]!.spots.map(({ semitones }) => semitones)).toEqual([0, 7]);
  const crossed = tune([part('A', 'D4 E4 A4 B4 | g5:4 | A4 B4 C#5 D#5 | D4:4')], {
    tuning: parseTuning('A3 D4 A4 C#5')!,
  });
  const twin = twinsOf(crossed).find(({ spots }) => spots.some(({ semitones }) => semitones === null));
  expect(twin).toBeDefined();
});

test('hand twins at random are those found by comparing every stretch with every other', () => {
  for (let seed = 1; seed <= 25; seed++) {
    const random = seeded(seed);
    const pitches = ['G3', 'A3', 'D4', 'E4', 'F#4', 'A4', 'B4', 'C#5', 'E5'];
    const line = Array.from({ length: 26 }, () => pitches[Math.floor(random() * pitches.length)]).join(' ');
    const played = tune([part('A', line)]);
    const { fingers } = reportTune(played);
    const notes = writtenNotes(played);
    const string = (i: number) => PLACES.indexOf(fingers.get(notes[i]!.id)!.place);
    const fret = (i: number) => midiOf(notes[i]!.pitch) - midiOf(played.tuning[string(i)]!);
    /** Longest common hand from two notes on. */
    const common = (a: number, b: number) => {
      let length = 0;
      while (
        b + length < notes.length &&
        fret(a + length) === fret(b + length) &&
        (length === 0 || string(a + length) - string(a + length - 1) === string(b + length) - string(b + length - 1))
      )
        length += 1;
      return length;
    };
    let longest = 0;
    for (let a = 0; a < notes.length; a++)
      for (let b = a + 1; b < notes.length; b++) if (string(a) !== string(b)) longest = Math.max(longest, common(a, b));
    const found = handTwins(played, fingers);
    const best = Math.max(0, ...found.map(({ length }) => length));
    expect({ seed, best }).toEqual({ seed, best: longest >= 4 ? longest : 0 });
  }
});

test('of two equal figures begun on different bows direction tells them apart', () => {
  const played = tune([part('A', 'D4 E4 F#4 G4 B4 | D4 E4 F#4 G4 A4')], { start: 'down' });
  const report = reportTune(played);
  const cues = countCues(twinFigures(played)[0]!, report.unrolled, report.figures.bowed, report.fingers);
  expect(cues.map((cue) => cue!.bow)).toEqual(['down', 'up']);
  expect(cues.every((cue) => cue!.second === null && cue!.isAlone)).toBe(true);
});

test('of three the first and the third begin alike: the note before tells them apart', () => {
  const played = tune([part('A', 'D4 E4 F#4 G4 B4 | D4 E4 F#4 G4 A4 | D4 E4 F#4 G4 B4')], { start: 'down' });
  const report = reportTune(played);
  const figure = twinFigures(played).find(({ spots }) => spots.length === 3)!;
  const cues = countCues(figure, report.unrolled, report.figures.bowed, report.fingers);
  expect(cues.map((cue) => cue!.bow)).toEqual(['down', 'up', 'down']);
  expect(cues[0]!.second).toEqual({ kind: 'note-before', value: 'the beginning' });
  expect(cues[2]!.second).toEqual({ kind: 'note-before', value: 'A4' });
  expect(cues[1]!.second).toBeNull();
});

test('where nothing tells two of them apart that is said', () => {
  const line = 'D4 E4 F#4 G4 A4 B4 A4 F#4';
  const played = tune([part('A', `${line} | ${line} | ${line} | ${line}`)], { start: 'down' });
  const report = reportTune(played);
  const notes = writtenNotes(played);
  // The last three bars: all begin on the down-bow, after the same note, on the same beat.
  const spots = [8, 16, 24].map((from) => notes.slice(from, from + 8));
  const figure = { length: 8, spots, isBowedAlike: true };
  const cues = countCues(figure, report.unrolled, report.figures.bowed, report.fingers);
  expect(cues.map((cue) => cue!.isAlone)).toEqual([false, false, false]);
});

test('a copy flips what follows exactly where it turns an odd number of times more or less', () => {
  const played = setLinks(
    tune([part('A', 'D4 E4 F#4 G4 B4 | D4 E4 F#4 G4 A4')], { form: ['A', 'A'] }),
    new Map([['A7', 'slur']]),
  );
  const figure = twinFigures(played)[0]!;
  expect(figure.isBowedAlike).toBe(false);
  expect(flippingSpots(figure, 0)).toEqual([1]);
  const both = setLinks(played, new Map([['A8', 'slur']]));
  expect(flippingSpots(twinFigures(both)[0]!, 0)).toEqual([]);
});

test('each phrase is told by its shortest beginning of its own', () => {
  const bars = (start: string) => `${start} F#4 G4 A4 B4 A4 G4 F#4 | D4:8 | E4:8 | F#4:8`;
  const played = tune([
    part('A', `${bars('D4')} | ${bars('E4')}`),
    part('B', `${bars('D4')} | A4:8 | A4:8 | A4:8 | D4:8`),
  ]);
  const phrases = phraseIndex(played);
  expect(phrases.map(({ part: name, from, to }) => [name, from, to])).toEqual([
    ['A', 1, 4],
    ['A', 5, 8],
    ['B', 1, 4],
    ['B', 5, 8],
  ]);
  expect(phrases[1]!.beginning.map(({ pitch }) => pitchName(pitch))).toEqual(['E4']);
  expect(phrases[3]!.beginning.map(({ pitch }) => pitchName(pitch))).toEqual(['A4']);
  expect(phrases.map(({ sameAs }) => sameAs)).toEqual([null, null, 0, null]);
  // A phrase that comes again is only known when it is over.
  expect(phrases[2]!.beginning).toHaveLength(11);
});
