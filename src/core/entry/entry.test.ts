import { formatFraction, fraction } from '#core/base';
import { fingerNote } from '#core/fingering';
import { type Key, midiOf, parsePitch, pitchName } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { parseTuning, STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { calledNote, parseCall } from './calls';
import { letteredPitch, parseLetter } from './letters';
import { chooseGesture, rhythmStep, scaleUnit, startRhythm } from './rhythm';

const D: Key = { letter: 'D', alter: 0, mode: 'major' };
const F: Key = { letter: 'F', alter: 0, mode: 'major' };
const pitch = (name: string) => parsePitch(name)!;
const at = (name: string, place: Place) => ({ pitch: pitch(name), place });
const called = (
  text: string,
  key = D,
  tuning = STANDARD_TUNING,
  before: ReturnType<typeof at> | null = null,
  bare?: 'nearest',
) => {
  const note = calledNote(parseCall(text)!, tuning, key, before, bare);
  return `${note.place} ${pitchName(note.pitch)}${note.inferred ? ' inferred' : ''}`;
};

describe('calls', () => {
  test.each([
    ['G:2', 'G B3'],
    ['D:0', 'D D4'],
    ['D:2', 'D F#4'],
    ['a:3', 'A D5'],
    ['E:1', 'E F#5'],
    ['D:2-', 'D F4'],
    ['A:3+', 'A D#5'],
    ['E:0+', 'E E#5'],
  ])('%s in D major is %s', (text, expected) => {
    expect(called(text)).toBe(expected);
  });

  test('the key in force gives the accidental of the letter under the finger', () => {
    expect(called('A:1', F)).toBe('A Bb4');
    expect(called('E:1', F)).toBe('E F5');
  });

  test('on a retuned string the same call gives what that tuning sounds, by its new letter', () => {
    const crossTuned = parseTuning('A3 E4 A4 E5')!;
    expect(called('G:2', D, crossTuned)).toBe('G C#4');
    expect(called('D:0', D, crossTuned)).toBe('D E4');
    expect(called('E:0', D, parseTuning('A3 E4 A4 C#5')!)).toBe('E C#5');
  });

  test('without a place it stays on the string named last', () => {
    expect(called('1', D, STANDARD_TUNING, at('G4', 'D'))).toBe('D E4 inferred');
    expect(called('0', D, STANDARD_TUNING, at('C#5', 'A'))).toBe('A A4 inferred');
    expect(called('3', D, STANDARD_TUNING, at('A4', 'A'))).toBe('A D5 inferred');
  });

  test('by the other school the hand stays near: the string on which the finger is nearest in pitch', () => {
    expect(called('1', D, STANDARD_TUNING, at('G4', 'D'), 'nearest')).toBe('D E4 inferred');
    expect(called('0', D, STANDARD_TUNING, at('C#5', 'A'), 'nearest')).toBe('E E5 inferred');
    expect(called('3', D, STANDARD_TUNING, at('A4', 'A'), 'nearest')).toBe('D G4 inferred');
    expect(called('2')).toBe('D F#4 inferred');
  });

  test.each(['', 'X:1', 'D:5', 'D2', 'D:2+-', 'D:', ':2', 'D:2+++', '7', 'D: 2'])('%j is no call', (text) => {
    expect(parseCall(text)).toBeNull();
  });

  test('a called note is fingered back to the string and finger of its call, in every tuning', () => {
    let called = 0;
    for (const { tuning } of TUNINGS)
      for (const place of PLACES)
        for (const finger of [0, 1, 2, 3]) {
          const { pitch: sounding } = calledNote({ place, finger, shift: 0 }, tuning, D, null);
          if (midiOf(sounding) < midiOf(tuning[PLACES.indexOf(place)]!)) continue;
          const back = fingerNote(
            { kind: 'note', id: 'n', duration: fraction(1, 8), link: 'start', pitch: sounding, place },
            tuning,
          );
          // One semitone up with the open string's own letter counts as a first finger.
          if (back.finger !== finger) expect(finger).toBe(0);
          else called += 1;
        }
    expect(called).toBeGreaterThan(100);
  });
});

describe('letters', () => {
  const lettered = (text: string, before: string | null, key = D) =>
    pitchName(letteredPitch(parseLetter(text)!, key, before === null ? null : pitch(before)));

  test('in a tuning a letter stays in first position, unless the tune is out there already or nothing else is asked for', () => {
    const near = (text: string, before: string) =>
      pitchName(letteredPitch(parseLetter(text)!, D, pitch(before), STANDARD_TUNING));
    expect(near('d', 'B5')).toBe('D5');
    expect(near("d'", 'B5')).toBe('D7');
    expect(near('e', 'D6')).toBe('E6');
    expect(near('f', 'G3')).toBe('F#4');
    expect(near('b', 'A5')).toBe('B5');
  });

  test.each([
    ['a', null, 'A4'],
    ['d', 'A4', 'D5'],
    ['e', 'A4', 'E4'],
    ['d', 'B4', 'D5'],
    ['f', 'D5', 'F#5'],
    ['c', 'A4', 'C#5'],
    ['g', 'D4', 'G4'],
    ['g', 'C#5', 'G4'],
    ["d'", 'D4', 'D5'],
    ['d,', 'D4', 'D3'],
    ['fn', 'E4', 'F4'],
    ['bb', 'A4', 'Bb4'],
    ['b', 'A4', 'B4'],
    ['g##', 'A4', 'G##4'],
  ])('%s after %s is %s', (text, before, expected) => {
    expect(lettered(text, before)).toBe(expected);
  });

  test('the nearest octave is never more than a fourth away, whatever comes before', () => {
    for (const letter of 'abcdefg')
      for (const before of ['G3', 'D4', 'F#4', 'B4', 'C#5', 'E5', 'B5']) {
        const steps = Math.abs(
          'CDEFGAB'.indexOf(lettered(letter, before)[0]!) +
            7 * Number(lettered(letter, before).slice(-1)) -
            ('CDEFGAB'.indexOf(before[0]!) + 7 * Number(before.slice(-1))),
        );
        expect(steps).toBeLessThanOrEqual(3);
      }
  });

  test.each(['h', 'a###', "a''''", 'ab#', '', 'aa'])('%j is no letter', (text) => {
    expect(parseLetter(text)).toBeNull();
  });
});

describe('rhythm', () => {
  const eighth = startRhythm(fraction(1, 8));
  const play = (rhythm: typeof eighth, notes: number) => {
    let at = rhythm;
    return Array.from({ length: notes }, () => {
      const step = rhythmStep(at);
      at = step.next;
      return `${formatFraction(step.duration)} ${step.link}`;
    });
  };

  test('a pair is two notes in a stroke, three are three, held is one as long as a pair', () => {
    expect(play(chooseGesture(eighth, 'pair'), 3)).toEqual(['1/8 change', '1/8 slur', '1/8 change']);
    expect(play(chooseGesture(eighth, 'three'), 4)).toEqual(['1/8 change', '1/8 slur', '1/8 slur', '1/8 change']);
    expect(play(chooseGesture(eighth, 'held'), 2)).toEqual(['1/4 change', '1/4 change']);
  });

  test('a triplet of eighths lasts a quarter in all, and then notes are plain again', () => {
    const triplet = { ...eighth, tuplet: { notes: 3, inTimeOf: 2, filled: 0 } };
    expect(play(triplet, 4)).toEqual(['1/12 change', '1/12 change', '1/12 change', '1/8 change']);
    expect(rhythmStep(triplet).tuplet).toEqual({ notes: 3, inTimeOf: 2, first: true });
    expect(rhythmStep(rhythmStep(triplet).next).tuplet).toEqual({ notes: 3, inTimeOf: 2 });
  });

  test('a dot is for one note; a rest takes its length and ends the stroke', () => {
    expect(play({ ...eighth, dotted: true }, 2)).toEqual(['3/16 change', '1/8 change']);
    const half = rhythmStep(chooseGesture(eighth, 'pair')).next;
    expect(rhythmStep(rhythmStep(half, 'rest').next).link).toBe('change');
  });

  test('longer and shorter stop at a breve and a sixty-fourth', () => {
    let rhythm = eighth;
    for (let k = 0; k < 20; k++) rhythm = scaleUnit(rhythm, 'longer');
    expect(formatFraction(rhythm.unit)).toBe('2');
    for (let k = 0; k < 20; k++) rhythm = scaleUnit(rhythm, 'shorter');
    expect(formatFraction(rhythm.unit)).toBe('1/64');
  });
});
