import { transposeByOctaves, transposeToKey } from '#core/editing';
import { type Tune, writtenNotes } from '#core/tune';
import { parseTuning, STANDARD_TUNING } from '#core/tuning';
import { inventedTune } from '../testing/books';
import { part, seeded, tune } from '../testing/tunes';
import {
  firstNotes,
  MAX_COMPARED,
  melodyLikeness,
  melodyLines,
  melodyPrint,
  MIN_SHARED,
  PRINT_SIZE,
  readFirstNotes,
  SAME_TUNE,
  sharedOf,
  wholeLine,
} from '.';

const line = (value: Tune) => wholeLine(melodyLines(value));
const ids = (value: Tune) => new Set(writtenNotes(value).map(({ id }) => id));

describe('the melody on its grid', () => {
  test('long notes fill their places, rests let the note before sound on, graces and inner triplet notes are left out', () => {
    const plain = tune([part('A', 'D4:2 E4 F#4 z:2 A4:2')]);
    expect(melodyLines(plain)).toEqual([{ part: 'A', pitches: [62, 62, 64, 66, 66, 66, 69, 69] }]);
    const triplet = tune([part('A', 'D4:0.5 E4:0.5 F#4 G4:6')]);
    expect(line(triplet).slice(0, 3)).toEqual([62, 66, 67]);
  });

  test('in 2/4 the running notes are sixteenths', () => {
    const polka = tune([part('A', 'D4 E4 F#4 A4')], { meter: { num: 2, den: 4 } });
    expect(line(polka)).toEqual([62, 62, 64, 64, 66, 66, 69, 69]);
  });

  test('a part without notes has no line, and of endings the first is taken', () => {
    expect(melodyLines(tune([part('A', 'z:8'), part('B', 'D4:8')])).map(({ part: name }) => name)).toEqual(['B']);
  });
});

describe('prints', () => {
  test('do not know key or octave', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const value = inventedTune(seed);
      const moved = transposeByOctaves(transposeToKey(value, { letter: 'F', alter: 0 }), ids(value), 1);
      expect(melodyPrint(line(moved))).toEqual(melodyPrint(line(value)));
    }
  });

  test('share about the share of runs that the lines share', () => {
    const random = seeded(11);
    const runs = (pitches: readonly number[]) => {
      const intervals = pitches.slice(1).map((pitch, i) => pitch - pitches[i]!);
      return new Set(intervals.slice(5).map((_, i) => intervals.slice(i, i + 6).join()));
    };
    let worst = 0;
    for (let round = 0; round < 40; round++) {
      const one = Array.from({ length: 160 }, () => 60 + Math.floor(random() * 12));
      const other = one.map((pitch) => (random() < 0.04 ? 60 + Math.floor(random() * 12) : pitch));
      const [a, b] = [runs(one), runs(other)];
      const both = [...a].filter((run) => b.has(run)).length;
      const resemblance = both / (a.size + b.size - both);
      // Of the k smallest hashes of both together, those in both.
      const [p, q] = [melodyPrint(one), melodyPrint(other)];
      const smallest = [...new Set([...p, ...q])].sort((x, y) => x - y).slice(0, PRINT_SIZE);
      const estimate = smallest.filter((hash) => p.includes(hash) && q.includes(hash)).length / PRINT_SIZE;
      worst = Math.max(worst, Math.abs(estimate - resemblance));
    }
    // Four standard deviations of a share of 24.
    expect(worst).toBeLessThan(4 * Math.sqrt(0.25 / PRINT_SIZE));
    expect(worst).toBeGreaterThan(0);
  });

  test('tell settings of one tune from other tunes', () => {
    const random = seeded(5);
    let found = 0;
    let strangers = 0;
    for (let seed = 100; seed < 160; seed++) {
      const pitches = line(inventedTune(seed));
      const setting = pitches.map((pitch) => (random() < 0.06 ? pitch + 2 : pitch));
      if (sharedOf(melodyPrint(pitches), melodyPrint(setting)) >= MIN_SHARED) found += 1;
      if (sharedOf(melodyPrint(pitches), melodyPrint(line(inventedTune(seed + 500)))) >= MIN_SHARED) strangers += 1;
    }
    expect(found).toBeGreaterThanOrEqual(57);
    expect(strangers).toBeLessThanOrEqual(2);
  });

  test('long notes alone leave no print', () => {
    expect(melodyPrint(Array<number>(64).fill(62))).toEqual([]);
    expect(melodyPrint([])).toEqual([]);
  });
});

describe('likeness', () => {
  /** The best alignment by trying all of them. */
  function bruteForce(one: readonly number[], other: readonly number[], semitones: number): number {
    if (one.length === 0) return -0.5 * other.length;
    if (other.length === 0) return -0.5 * one.length;
    const agrees = (((one[0]! - other[0]! - semitones) % 12) + 12) % 12 === 0;
    return Math.max(
      (agrees ? 1 : -0.5) + bruteForce(one.slice(1), other.slice(1), semitones),
      -0.5 + bruteForce(one.slice(1), other, semitones),
      -0.5 + bruteForce(one, other.slice(1), semitones),
    );
  }

  test('is the best of all ways to lay one along the other', () => {
    const random = seeded(3);
    const few = () => Array.from({ length: 1 + Math.floor(random() * 6) }, () => 60 + Math.floor(random() * 4));
    for (let round = 0; round < 60; round++) {
      const [one, other] = [few(), few()];
      const { share, semitones } = melodyLikeness(one, other);
      const mean = (one.length + other.length) / 2;
      expect(share).toBeCloseTo(Math.max(0, bruteForce(one, other, semitones)) / mean, 9);
    }
  });

  test('is 1 in another key and octave, and tells how far it was moved', () => {
    const value = inventedTune(8);
    const moved = line(value).map((pitch) => pitch + 5);
    expect(melodyLikeness(moved, line(value))).toEqual({ share: 1, semitones: 5 });
    expect(melodyLikeness(line(value), moved)).toEqual({ share: 1, semitones: -5 });
    expect(
      melodyLikeness(
        line(value),
        line(value).map((pitch) => pitch - 12),
      ),
    ).toEqual({ share: 1, semitones: 0 });
  });

  test('of two tunes that have nothing to do with each other stays far below that of settings', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const share = melodyLikeness(line(inventedTune(seed)), line(inventedTune(seed + 300))).share;
      expect(share).toBeLessThan(SAME_TUNE - 0.15);
    }
  });

  test('of endless lines is that of their beginnings', () => {
    const random = seeded(17);
    const endless = Array.from({ length: 50_000 }, () => 60 + Math.floor(random() * 12));
    const begins = endless.slice(0, MAX_COMPARED).map((pitch, i) => (i % 7 === 0 ? pitch + 1 : pitch));
    expect(melodyLikeness(endless, [...begins, ...endless])).toEqual(
      melodyLikeness(endless.slice(0, MAX_COMPARED), begins),
    );
  });

  test('of nothing is nothing', () => {
    expect(melodyLikeness([], [60])).toEqual({ share: 0, semitones: 0 });
  });
});

describe('first notes', () => {
  const steps = (text: string, tuning = STANDARD_TUNING) => {
    const read = readFirstNotes(text, tuning);
    return read.ok ? read.steps : read;
  };

  test('are steps without octave or accidental, from the start and from the first full bar', () => {
    expect(firstNotes(tune([part('A', 'D4 F#4 A4 D5 B4 A4 F#4 D4 | E4:8')]))).toEqual({
      fromStart: '22356551',
      fromBar: '22356551',
    });
    const withPickup = tune([part('A', 'A4 | D5 F#5 A5 D5 B4 A4 F#4 D4')]);
    expect(firstNotes(withPickup).fromStart.startsWith('322')).toBe(true);
    expect(firstNotes(withPickup).fromBar.startsWith('22')).toBe(true);
  });

  test('a tune of very short parts is played through as far as its beginning reaches', () => {
    const value = tune([part('A', 'D4'), part('B', 'E4 F#4')], { form: ['A', 'B', 'A', 'B', 'B', 'A', 'A', 'B'] });
    // D E F D E F E F D D E F
    expect(firstNotes(value).fromStart).toBe('11511615011');
  });

  test('letters, close together or apart, and calls say the same', () => {
    expect(steps('d f# a d')).toBe('223');
    expect(steps('dfad')).toBe('223');
    expect(steps('D:0 D:2 A:0 A:3')).toBe('223');
    expect(steps('D:0 2 A:0 A:3')).toBe('223');
    expect(steps('g b d g')).toBe('223');
    expect(steps('')).toBe('');
  });

  test('calls are those of the tuning they are said in', () => {
    const crossed = parseTuning('A3 E4 A4 E5')!;
    expect(steps('G:0 D:0')).toBe('4');
    expect(steps('G:0 D:0', crossed)).toBe('4');
    expect(steps('D:0 A:0')).toBe('4');
    expect(steps('D:0 A:0', crossed)).toBe('3');
  });

  test('what cannot be read is told with its place', () => {
    expect(readFirstNotes('d f# h a', STANDARD_TUNING)).toEqual({ ok: false, column: 6, found: 'h' });
  });

  test('a tune is found by its beginning in every key', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const value = inventedTune(seed);
      const moved = transposeToKey(value, { letter: 'G', alter: 0 });
      expect(firstNotes(moved)).toEqual(firstNotes(value));
    }
  });
});
