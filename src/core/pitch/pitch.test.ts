import { alterInKey, keyFifths, keyName } from './key';
import { LETTERS, midiOf, parsePitch, pitchName } from './pitch';

test('open strings of the fiddle have their MIDI numbers', () => {
  expect(['G3', 'D4', 'A4', 'E5'].map((name) => midiOf(parsePitch(name)!))).toEqual([55, 62, 69, 76]);
});

test('every pitch name reads back', () => {
  for (const letter of LETTERS)
    for (const sign of ['bb', 'b', '', '#', '##'])
      for (const octave of [2, 4, 6]) {
        const name = `${letter}${sign}${octave}`;
        expect(pitchName(parsePitch(name)!)).toBe(name);
      }
  expect(parsePitch('H4')).toBeNull();
});

test.each([
  ['D', 0, 'major', ['F#', 'C#']],
  ['B', -1, 'major', ['Bb', 'Eb']],
  ['D', 0, 'dorian', []],
  ['A', 0, 'mixolydian', ['F#', 'C#']],
  ['E', 0, 'minor', ['F#']],
  ['G', 0, 'dorian', ['Bb']],
  ['F', 1, 'major', ['F#', 'C#', 'G#', 'D#', 'A#', 'E#']],
  ['C', 1, 'major', ['F#', 'C#', 'G#', 'D#', 'A#', 'E#', 'B#']],
  ['A', -1, 'minor', ['Bb', 'Eb', 'Ab', 'Db', 'Gb', 'Cb', 'Fb']],
] as const)('the signature of %s (%i) %s alters just its letters', (letter, alter, mode, expected) => {
  const key = { letter, alter, mode };
  const altered = LETTERS.flatMap((name) => {
    const by = alterInKey(key, name);
    return by === 0 ? [] : [`${name}${by === 1 ? '#' : 'b'}`];
  });
  expect(altered.sort()).toEqual([...expected].sort());
  expect(Math.abs(keyFifths(key))).toBe(expected.length);
});

test('accidentals written beside the key win over its signature', () => {
  const key = { letter: 'D', alter: 0, mode: 'major', extra: [{ letter: 'C', alter: 0 }] } as const;
  expect(alterInKey(key, 'C')).toBe(0);
  expect(alterInKey(key, 'F')).toBe(1);
  expect(keyName({ letter: 'B', alter: -1, mode: 'major' })).toBe('Bb major');
});
