import { normalOf, seeded } from '#core/base';
import { reportTune } from '#core/report';
import { heardAt, heardTake } from '../testing/heardTake';
import { part, tune } from '../testing/tunes';
import { paceOf } from './scene';
import { takeFigures } from './takeFigures';

const UNKNOWN = { biteMs: null, lowTones: [] };
/** At 120 half notes a minute an eighth lasts an eighth of a second. */
const BPM = 120;
const LINE = 'D4 E4 F#4 G4 A4 B4 A4 G4';
const report = reportTune(tune([part('A', [LINE, LINE, LINE, LINE].join(' | '))]), { bpm: BPM });
const ones = (count: number) => Array.from({ length: count }, () => 1);
const figuresOf = (taken: ReturnType<typeof heardTake>) =>
  takeFigures(taken.heard, BPM, paceOf(taken.heard.notes), UNKNOWN);

test('played as planned it is at the tempo of the plan, without drift, and steady', () => {
  const { tempo, notes, heardNotes } = figuresOf(heardTake(report));
  expect(tempo.bpm).toBeCloseTo(BPM, 9);
  expect(tempo.driftPercentPerMinute).toBeCloseTo(0, 9);
  expect(tempo.steadinessMs).toBe(0);
  expect([notes, heardNotes]).toEqual([32, 32]);
});

test('a tenth slower is a tempo by so much lower, and a tempo that falls evenly has its drift', () => {
  expect(figuresOf(heardTake(report, () => ({ slower: 1.1 }))).tempo.bpm).toBeCloseTo(BPM / 1.1, 6);
  // Each minute 12 % slower, as a logarithm.
  const drifting = heardTake(report, ({ at }) => ({ slower: Math.exp((0.12 * (at + 1)) / 60) }));
  expect(figuresOf(drifting).tempo.driftPercentPerMinute).toBeCloseTo(-12, 6);
});

test('unevenness is told as a standard deviation that a few strays do not move', () => {
  const uneven = heardTake(report, (_, i) => ({ offMs: i === 7 ? 300 : 10 * ((i % 3) - 1) }));
  expect(figuresOf(uneven).tempo.steadinessMs).toBeCloseTo(14.826, 2);
});

test('lilt is told for each place in the beat, against the beat itself', () => {
  const swung = heardTake(report, ({ beatShare }) => ({ offMs: 5 + (beatShare > 0.7 ? 30 : 0) }));
  const { lilt } = figuresOf(swung);
  expect(lilt.map(({ position }) => position)).toEqual(
    [0, 0.25, 0.5, 0.75].map((at) => expect.closeTo(at, 6) as number),
  );
  expect(lilt.map(({ offMs }) => offMs)).toEqual([0, 0, 0, 30]);
  expect(lilt[0]!.count).toBe(8);
});

test('off the beat against on it is a difference of levels', () => {
  const loud = heardTake(report, ({ beatShare }) => ({ level: beatShare < 0.02 ? -18 : -22.5 }));
  expect(figuresOf(loud).offbeatDecibels).toBeCloseTo(-4.5, 9);
});

test('what was not heard counts for nothing but the number of notes', () => {
  const half = heardTake(report, (_, i) => (i % 2 ? { heard: false, level: 0, offMs: 500 } : {}));
  const figures = figuresOf(half);
  expect([figures.notes, figures.heardNotes]).toEqual([32, 16]);
  expect(figures.tempo.steadinessMs).toBe(0);
  const nothing = figuresOf(heardTake(report, () => ({ heard: false })));
  expect(nothing.tempo).toEqual({ bpm: null, driftPercentPerMinute: null, driftUncertainty: null, steadinessMs: null });
  expect(nothing.fingers).toEqual([]);
});

test('a finger that creeps up by 6 cents in the take has its slope and its place', () => {
  const creeping = heardTake(report, ({ midi, at }) => ({ cents: midi === 66 ? (60 * at) / 60 : 0 }));
  const [finger, ...others] = figuresOf(creeping).fingers.filter(({ centsPerMinute }) => Math.abs(centsPerMinute) > 1);
  expect(others).toEqual([]);
  // F sharp on the D string: four semitones above it.
  expect(finger).toMatchObject({ place: 1, semitones: 4, count: 4 });
  expect(finger!.centsPerMinute).toBeCloseTo(60, 6);
});

test('long notes that come out at four fifths are the factor, where the plan names no holds', () => {
  const long = reportTune(tune([part('A', 'D4 E4 F#4 G4 A4:4 | D4 E4 F#4 G4 A4:4 | D4 E4 F#4 G4 A4:4')]), { bpm: BPM });
  let late = 0;
  const taken = heardAt(long, ({ at, seconds }) => {
    const onset = at + 1 - late;
    if (seconds > 0.4) late += 0.2 * seconds;
    return onset;
  });
  const { holdFactor } = takeFigures(taken.heard, BPM, ones(15), UNKNOWN);
  expect(holdFactor).toBeCloseTo(0.8, 6);
});

test('where the plan names holds the factor is theirs alone, however many long notes are as planned', () => {
  const plain = tune([part('A', 'D4:4 E4:4 | F#4:4 G4:4 | A4:4 B4:4 | A4:4 G4:4')]);
  const parts = plain.parts.map((one) => ({
    ...one,
    events: one.events.map((event) =>
      event.kind === 'note' && ['A3', 'A6'].includes(event.id) ? { ...event, hold: 1.5 } : event,
    ),
  }));
  const air = reportTune({ ...plain, parts }, { bpm: BPM });
  let late = 0;
  const taken = heardAt(air, ({ at, seconds, isHeld }) => {
    const onset = at + 1 - late;
    if (isHeld) late += 0.3 * seconds;
    return onset;
  });
  expect(taken.expected.notes.filter(({ isHeld }) => isHeld)).toHaveLength(2);
  expect(takeFigures(taken.heard, BPM, ones(8), UNKNOWN).holdFactor).toBeCloseTo(0.7, 6);
});

test('rests that come out at half have the factor of silences', () => {
  const rests = reportTune(tune([part('A', 'D4:2 z:2 E4:2 z:2 | F#4:2 z:2 G4:2 z:2')]), { bpm: BPM });
  let early = 0;
  const taken = heardAt(rests, ({ at, restBefore }) => {
    early += restBefore / 2;
    return at + 1 - early;
  });
  expect(takeFigures(taken.heard, BPM, ones(4), UNKNOWN).silenceFactor).toBeCloseTo(0.5, 6);
});

test('the pace about a note is the middle of the lengths around it, without its own', () => {
  const taken = heardAt(report, ({ at }, i) => 1 + 1.2 * at + (i > 16 ? 0.5 : 0));
  const pace = paceOf(taken.heard.notes);
  expect(pace[16]).toBeCloseTo(1.2, 6);
  expect(pace.every((value) => Math.abs(value - 1.2) < 1e-6)).toBe(true);
});

test('a take that does not drift has a drift within its margin, nearly always; a real one is outside of it', () => {
  const driftOf = (seed: number, perMinute: number) => {
    const normal = normalOf(seeded(seed));
    let wander = 0;
    const taken = heardTake(report, ({ at }) => {
      wander = 0.8 * wander + 0.004 * normal();
      return { slower: Math.exp((perMinute / 100) * (at / 60) + wander) };
    });
    const { driftPercentPerMinute, driftUncertainty } = figuresOf(taken).tempo;
    return Math.abs(driftPercentPerMinute! / driftUncertainty!);
  };
  const seeds = Array.from({ length: 60 }, (_, i) => i + 1);
  expect(seeds.filter((seed) => driftOf(seed, 0) > 2).length).toBeLessThanOrEqual(2);
  expect(seeds.filter((seed) => driftOf(seed, 200) > 2).length).toBeGreaterThan(55);
});
