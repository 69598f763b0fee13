import { fraction } from '#core/base';
import { type Meter, unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { type Lilt, liltFault, liltLeft, liltShift } from './lilt';
import { dottedRatio, LILTS } from './lilts';
import { noteTimes, secondsAt, timing } from './noteTimes';

const of = (name: string) => LILTS.find((lilt) => lilt.name === name)!;
const HALF = fraction(1, 2);

describe('a template', () => {
  test.each(LILTS)('$name can be used: no note grows as the tempo rises', (lilt) => {
    expect(liltFault(lilt)).toBeNull();
    for (const shares of [lilt.simple, lilt.compound])
      for (const share of shares ?? []) {
        const length = (bpm: number) =>
          (60 / bpm) * (1 / shares!.length + (share - 1 / shares!.length) * liltLeft(lilt, bpm));
        for (let bpm = 20; bpm < 500; bpm += 0.5) expect(length(bpm + 0.5)).toBeLessThan(length(bpm));
      }
  });

  test('that lets a note grow is refused with the tempos between which it does', () => {
    const lumpy: Lilt = { name: 'lumpy', simple: [0.8, 0.2], compound: null, fullTo: 100, flattening: 1 };
    const fault = liltFault(lumpy);
    expect(fault).toMatchObject({ code: 'grows', beat: 'simple', position: 2, from: 100 });
    const length = (bpm: number) => (60 / bpm) * (0.5 - 0.3 * liltLeft(lumpy, bpm));
    const { from, to } = fault as { from: number; to: number };
    expect(length(from + 0.01)).toBeGreaterThan(length(from));
    expect(length(to - 0.01)).toBeGreaterThan(length(to - 0.02));
    expect(length(to + 0.02)).toBeLessThan(length(to + 0.01));
    expect(to).toBeCloseTo(120, 9);
  });

  test.each([
    ['shares that do not sum to the beat', { simple: [0.5, 0.4] }],
    ['a note without a share', { simple: [1, 0] }],
    ['a single note', { simple: [1] }],
    ['seven notes to a beat', { simple: Array(7).fill(1 / 7) as number[] }],
  ])('with %s is refused', (_name, more) => {
    expect(liltFault({ ...of('straight'), ...more })).toEqual({ code: 'shares', beat: 'simple' });
  });

  test('whose curve is none is refused', () => {
    expect(liltFault({ ...of('easy'), flattening: 0 })).toEqual({ code: 'curve' });
    expect(liltFault({ ...of('easy'), fullTo: Number.NaN })).toEqual({ code: 'curve' });
  });
});

test('the shift is none at the ends of a beat and what the shares say between', () => {
  expect(liltShift([0.6, 0.4], 0)).toBe(0);
  expect(liltShift([0.6, 0.4], 0.5)).toBeCloseTo(0.1, 12);
  expect(liltShift([0.6, 0.4], 0.25)).toBeCloseTo(0.05, 12);
  expect(liltShift([0.6, 0.4], 1)).toBeCloseTo(0, 12);
  expect(liltShift([0.4, 0.3, 0.3], 2 / 3)).toBeCloseTo(0.7 - 2 / 3, 12);
});

describe('notes under a lilt', () => {
  const seconds = (line: string, name: string, bpm: number, meter: Meter = { num: 4, den: 4 }, beat = HALF) =>
    timing(noteTimes(unroll(tune([part('A', line)], { meter })), beat, of(name)), bpm);

  test('eighths of a reel at 50 half notes a minute are 0.62 and 0.38 of a quarter', () => {
    const { durations } = seconds('D4 E4 F#4 G4 A4 B4 C#5 D5', 'dotted', 50);
    for (const [i, duration] of durations.entries()) expect(duration).toBeCloseTo(0.6 * (i % 2 ? 0.38 : 0.62), 12);
  });

  test('beyond the tempo to which it is full the lilt flattens by its power', () => {
    const { durations } = seconds('D4 E4 F#4 G4 A4 B4 C#5 D5', 'dotted', 120);
    expect(durations[0]).toBeCloseTo(0.25 * (0.5 + 0.12 * 0.5 ** 0.8), 12);
  });

  test.each(LILTS)('$name: the notes of each beat sum to the beat, whatever they are', ({ name }) => {
    for (const bpm of [40, 109, 200]) {
      const quarter = 30 / bpm;
      const { durations, onsets } = seconds('D4:2 E4 F#4 | G4:0.5 A4:0.5 B4 C#5:1.5 D5:0.5 E5:2 D5:2', name, bpm);
      const sum = (from: number, to: number) => durations.slice(from, to).reduce((total, one) => total + one, 0);
      expect(sum(1, 3)).toBeCloseTo(quarter, 12);
      expect(sum(3, 6)).toBeCloseTo(quarter, 12);
      expect(sum(6, 8)).toBeCloseTo(quarter, 12);
      for (let i = 0; i + 1 < onsets.length; i++) expect(onsets[i]! + durations[i]!).toBeCloseTo(onsets[i + 1]!, 12);
    }
  });

  test('beats of a jig are dotted quarters', () => {
    const { durations } = seconds('D4 E4 F#4 G4 A4 B4', 'dotted', 60, { num: 6, den: 8 }, fraction(3, 8));
    expect(durations.map((duration) => Math.round(1000 * duration))).toEqual([440, 230, 330, 440, 230, 330]);
  });

  test('a pickup counts its beats back from the bar line, and a rest has its own share', () => {
    const { durations, rests } = seconds('E4 | D4 z E4 F#4 G4:4 | D4:8', 'dotted', 50);
    expect(durations[0]).toBeCloseTo(0.6 * 0.38, 12);
    expect(durations[1]).toBeCloseTo(0.6 * 0.62, 12);
    expect(rests[2]).toBeCloseTo(0.6 * 0.38, 12);
    expect(durations[2]).toBeCloseTo(0.6 * 0.62, 12);
  });

  test.each(LILTS)('$name: time begins with a pickup, and ends where the tune does, at every tempo', ({ name }) => {
    for (const bpm of [40, 109, 200])
      for (const line of ['E4 | D4:2 E4 F#4 G4:4 | D4:2 E4 F#4 G4:2 A4', 'E4 | D4 E4 F#4 G4 A4:4 | D4:8']) {
        const t = tune([part('A', line)]);
        const unrolled = unroll(t);
        const times = noteTimes(unrolled, HALF, of(name));
        const { onsets, durations, total } = timing(times, bpm);
        expect(onsets[0]).toBe(0);
        expect(onsets[onsets.length - 1]! + durations[durations.length - 1]!).toBeCloseTo(total, 12);
        expect(durations.reduce((sum, one) => sum + one, 0)).toBeCloseTo(total, 12);
        const at = secondsAt(times, unrolled, bpm);
        for (const [i, { onset }] of unrolled.notes.entries())
          expect(at(onset.n / onset.d)).toBeCloseTo(onsets[i]!, 12);
        expect(at(times.total)).toBeCloseTo(total, 12);
        // Last bar and pickup make a bar: taken up again, each beat is as long as any.
        if (line.endsWith('A4')) expect(total).toBeCloseTo(2 * (120 / bpm), 12);
      }
  });

  test('a waltz in 3/8 counts eighths, whose notes are no jig', () => {
    const { durations } = seconds('D4 E4 F#4', 'dotted', 100, { num: 3, den: 8 }, fraction(1, 8));
    expect(durations[0]).not.toBeCloseTo(0.44 * 1.8, 3);
    expect(durations.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1.8, 12);
  });

  test('a last part of a bar that is no whole beat stays even', () => {
    const { durations } = seconds('D4 E4 F#4 G4 A4', 'dotted', 50, { num: 5, den: 8 });
    expect(durations[4]).toBeCloseTo(0.3, 12);
  });
});

describe('a dotted pair', () => {
  const seconds = (line: string, ratio: number, lilt = 'straight') => {
    const unrolled = unroll(tune([part('A', line)]));
    return timing(noteTimes(unrolled, HALF, of(lilt), ratio), 60);
  };

  test('is played at the ratio of the dance, a snap the other way round, and fills its quarter', () => {
    const { durations, onsets, total } = seconds('D4:1.5 E4:0.5 F#4:0.5 G4:1.5 A4:4', 1.8);
    expect(durations[0]! / durations[1]!).toBeCloseTo(1.8, 12);
    expect(durations[3]! / durations[2]!).toBeCloseTo(1.8, 12);
    expect(onsets[2]).toBeCloseTo(0.5, 12);
    expect(total).toBeCloseTo(2, 12);
  });

  test('that fills no quarter of the bar, or is parted by a rest, stays as it is written', () => {
    const { durations } = seconds('D4 E4:1.5 F#4:0.5 G4 D4:1.5 z:0.5 A4:0.5 B4 A4:0.5', 1.8);
    expect(durations[1]! / durations[2]!).toBeCloseTo(3, 12);
    // An eighth lasts 0.25 s.
    expect(durations[4]!).toBeCloseTo(1.5 * 0.25, 12);
  });

  test('keeps its ratio under a lilt, while the even notes beside it have theirs', () => {
    const { durations } = seconds('D4:1.5 E4:0.5 F#4 G4 A4:4', 1.8, 'dotted');
    expect(durations[0]! / durations[1]!).toBeCloseTo(1.8, 12);
    expect(durations[2]! / durations[3]!).toBeCloseTo(0.62 / 0.38, 9);
  });

  test('is softer in hornpipes and schottisches, and as written elsewhere', () => {
    // The player's own go before.
    expect(dottedRatio('hornpipe', { hornpipe: 2.4 })).toBe(2.4);
    expect(dottedRatio('strathspey', { hornpipe: 2.4 })).toBe(3);
    expect([dottedRatio('hornpipe'), dottedRatio('schottische'), dottedRatio('strathspey'), dottedRatio(null)]).toEqual(
      [1.8, 1.8, 3, 3],
    );
  });
});
