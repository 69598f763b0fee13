import { FULL_SIZE } from '#core/instrument';
import { type Key, midiOf, pitchName } from '#core/pitch';
import { PLACES, unroll } from '#core/tune';
import { parseTuning, TUNINGS } from '#core/tuning';
import { part, tune } from '../testing/tunes';
import { awkwardSpots } from './awkward';
import { chordFigure, DEGREES, openStrings } from './chords';
import { modeCheck } from './mode';
import { rangeOf, scaleOnString } from './scale';

const STANDARD = parseTuning('G3 D4 A4 E5')!;
const key = (letter: Key['letter'], mode: Key['mode'] = 'major', alter = 0): Key => ({ letter, alter, mode });
const scaleOf = (k: Key, tuning = STANDARD) => PLACES.flatMap((place) => scaleOnString(k, place, tuning, FULL_SIZE));
const calls = (k: Key, place: (typeof PLACES)[number]) =>
  scaleOnString(k, place, STANDARD, FULL_SIZE).map(
    ({ finger, lean, pitch }) => `${finger}${{ low: '-', plain: '', high: '+' }[lean]} ${pitchName(pitch)}`,
  );

test('D major: the second finger is plain on D and low on E, the third high on G', () => {
  expect(calls(key('D'), 'D')).toEqual(['0 D4', '1 E4', '2 F#4', '3 G4', '4 A4']);
  expect(calls(key('D'), 'E')).toEqual(['0 E5', '1 F#5', '2- G5', '3 A5', '4 B5']);
  expect(calls(key('D'), 'G')).toEqual(['0 G3', '1 A3', '2 B3', '3+ C#4', '4 D4']);
});

test('places in millimetres are those of the nut distance, and grow toward the bridge', () => {
  for (const { tuning } of TUNINGS)
    for (const k of [key('D'), key('G'), key('B', 'major', -1), key('A', 'minor'), key('D', 'dorian')])
      for (const place of PLACES) {
        const stops = scaleOnString(k, place, tuning, FULL_SIZE);
        for (const [i, { mm, semitones, pitch }] of stops.entries()) {
          expect(mm).toBeCloseTo(328 * (1 - 2 ** (-semitones / 12)), 9);
          expect(midiOf(pitch)).toBe(midiOf(tuning[PLACES.indexOf(place)]!) + semitones);
          if (i > 0) expect(mm).toBeGreaterThan(stops[i - 1]!.mm);
        }
      }
});

test('the range goes from the lowest note of the key to the highest in first position', () => {
  const range = rangeOf(scaleOf(key('B', 'major', -1)))!;
  expect([pitchName(range.lowest.pitch), pitchName(range.highest.pitch)]).toEqual(['G3', 'C6']);
  expect(range.highest.extension).toBe('high');
});

test('B flat has low first fingers and no open A or E of its own but A', () => {
  const spots = awkwardSpots(scaleOf(key('B', 'major', -1)), 328);
  const named = spots.map((spot) =>
    'stop' in spot
      ? `${spot.kind} ${pitchName(spot.stop.pitch)}`
      : spot.kind === 'open-foreign'
        ? `${spot.kind} ${spot.place}`
        : spot.kind,
  );
  expect(named).toContain('low-first Bb4');
  expect(named).toContain('low-first Eb4');
  expect(named).toContain('open-foreign E');
  expect(named).not.toContain('open-foreign A');
});

test('a finger that wants two places on neighbour strings is told with how far they are apart', () => {
  const split = awkwardSpots(scaleOf(key('D')), 328).find(
    (spot) => spot.kind === 'split-finger' && spot.lower.place === 'A',
  );
  // The second finger: C sharp on A, G natural on E.
  expect(split).toMatchObject({ lower: { finger: 2, semitones: 4 }, upper: { finger: 2, semitones: 3 } });
  expect((split as { apartMm: number }).apartMm).toBeCloseTo(328 * (2 ** (-3 / 12) - 2 ** (-4 / 12)), 9);
});

test('the chords of D are D, G and A, of D dorian Dm, G and Am', () => {
  const names = (k: Key) => DEGREES.map((degree) => chordFigure(k, degree, scaleOf(k)).name);
  expect(names(key('D'))).toEqual(['D', 'G', 'A']);
  expect(names(key('D', 'dorian'))).toEqual(['Dm', 'G', 'Am']);
  expect(names(key('B', 'major', -1))).toEqual(['Bb', 'Eb', 'F']);
  expect(names(key('E', 'minor'))).toEqual(['Em', 'Am', 'Bm']);
});

test('pairs of a chord lie on neighbour strings, within the chord and under one hand', () => {
  for (const { tuning } of TUNINGS)
    for (const degree of DEGREES) {
      const figure = chordFigure(key('A'), degree, scaleOf(key('A'), tuning));
      const tones = new Set(figure.stops.map(({ pitch }) => midiOf(pitch) % 12));
      for (const { lower, upper, isBarre, spanMm } of figure.pairs) {
        expect(PLACES.indexOf(upper.place) - PLACES.indexOf(lower.place)).toBe(1);
        expect(tones.has(midiOf(lower.pitch) % 12) && tones.has(midiOf(upper.pitch) % 12)).toBe(true);
        if (isBarre) expect([lower.finger, lower.semitones]).toEqual([upper.finger, upper.semitones]);
        else if (lower.finger > 0 && upper.finger > 0) expect(spanMm).toBeCloseTo(Math.abs(lower.mm - upper.mm), 9);
      }
    }
});

test('open strings are root, third or fifth of the key, or no part of it', () => {
  expect(openStrings(key('D'), STANDARD).map(({ role }) => role)).toEqual(['other', 'root', 'fifth', 'other']);
  expect(openStrings(key('A'), parseTuning('A3 E4 A4 C#5')!).map(({ role }) => role)).toEqual([
    'root',
    'fifth',
    'root',
    'third',
  ]);
  expect(openStrings(key('B', 'major', -1), STANDARD)[3]!.role).toBeNull();
});

describe('the mode', () => {
  const check = (line: string, k: Key) => modeCheck(k, unroll(tune([part('A', line)], { key: k })));

  test('a tune stated in D major that uses C natural throughout is mixolydian', () => {
    const found = check('D4 E4 F#4 G4 A4 B4 C5 D5', key('D'));
    expect(found.better).toBe('mixolydian');
    expect(found.outside.map(({ pitch }) => pitchName(pitch))).toEqual(['C5']);
    expect(found.stated).toBeCloseTo(7 / 8, 9);
  });

  test('a tune that agrees is left in peace, also where a few notes are outside', () => {
    expect(check('D4 E4 F#4 G4 A4 B4 C#5 D5', key('D')).better).toBeNull();
    expect(check('D4 F#4 A4 D5', key('D'))).toMatchObject({ better: null, stated: 1, outside: [] });
  });

  test('without notes nothing is said against the key', () => {
    expect(modeCheck(key('G'), unroll(tune([part('A', 'z:8')]))).stated).toBe(1);
  });
});
