import { setBowLengths } from '#core/bowing';
import { reportTune } from '#core/report';
import { DEFAULT_SCHOOLS } from '#core/schools';
import { note, part, tune } from '../testing/tunes';
import { accentLength, accentSpeed, pulseDecibels, pulseLength, pulseSpeed, reachOf, strokeRatio } from './reach';
import { nominalLength } from './travel';

/** Mean of a function over 0 … 1 by the midpoint rule. */
function mean(f: (share: number) => number, steps = 20_000): number {
  let sum = 0;
  for (let i = 0; i < steps; i++) sum += f((i + 0.5) / steps);
  return sum / steps;
}

test('a pulse of 1.45 to 1.95 stands 3.2 to 5.8 dB out and takes 1.23 to 1.48 times the hair', () => {
  expect(pulseDecibels(1.45)).toBeCloseTo(3.2, 1);
  expect(pulseDecibels(1.95)).toBeCloseTo(5.8, 1);
  expect(pulseLength(1.45)).toBeCloseTo(1.225, 9);
  expect(pulseLength(1.95)).toBeCloseTo(1.475, 9);
});

test('a pulse comes back: it begins and ends at even speed and peaks in the middle', () => {
  expect(pulseSpeed(0)).toBeCloseTo(1, 12);
  expect(pulseSpeed(1)).toBeCloseTo(1, 12);
  expect(pulseSpeed(0.5, 1.8)).toBeCloseTo(1.8, 12);
  expect(pulseSpeed(0.25, 1.8)).toBeCloseTo(1.4, 12);
});

test('the lengths of pulses and accents are the means of their speeds', () => {
  for (const peak of [1.2, 1.7, 1.95]) {
    expect(mean((share) => pulseSpeed(share, peak))).toBeCloseTo(pulseLength(peak), 6);
    expect(mean((share) => accentSpeed(share, peak))).toBeCloseTo(accentLength(peak), 4);
  }
  expect(accentSpeed(0)).toBeCloseTo(1.7, 12);
  expect(accentSpeed(0.5)).toBe(1);
});

const plain = tune([part('A', 'D4:2 E4 F#4 G4:4')], { start: 'down' });
const withNote = (id: string, more: Partial<ReturnType<typeof note>>) => ({
  ...plain,
  parts: plain.parts.map((item) => ({
    ...item,
    events: item.events.map((event) => (event.id === id && event.kind === 'note' ? { ...event, ...more } : event)),
  })),
});

test('a pulsed note takes more of the bow by speed, and no more by weight', () => {
  const pulsed = withNote('A4', { marks: ['pulse'] });
  const length = (report: ReturnType<typeof reportTune>) => {
    const { bowStartCm, bowEndCm } = report.figures.travel[3]!;
    return Math.abs(bowEndCm - bowStartCm);
  };
  const even = length(reportTune(plain));
  expect(length(reportTune(pulsed)) / even).toBeCloseTo(pulseLength(), 9);
  expect(length(reportTune(pulsed, { schools: { ...DEFAULT_SCHOOLS, pulse: 'weight' } })) / even).toBeCloseTo(1, 12);
});

test('a wished length makes the stroke so many times its own, and goes when it is taken back', () => {
  const wished = setBowLengths(plain, new Map([['A2', 1.5]]));
  const { travel } = reportTune(wished).figures;
  const { durations } = reportTune(wished).timing;
  expect(Math.abs(travel[1]!.bowEndCm - travel[1]!.bowStartCm)).toBeCloseTo(1.5 * nominalLength(durations[1]!, 45), 9);
  expect(setBowLengths(wished, new Map([['A2', null]]))).toEqual(plain);
});

test('without marks and wishes nothing is asked beyond even speed', () => {
  const { unrolled } = reportTune(plain);
  expect(reachOf(unrolled.notes, 'speed')).toBeNull();
  expect(strokeRatio(null, [0.2, 0.3], 0, 2)).toBe(1);
});

test('within a slur the pulsed note takes its share of the stroke by its own speed', () => {
  const slurred = {
    ...plain,
    parts: [part('A', '(D4:2 E4:2) G4:4')].map((item) => ({
      ...item,
      events: item.events.map((event) =>
        event.id === 'A2' && event.kind === 'note' ? { ...event, marks: ['pulse' as const] } : event,
      ),
    })),
  };
  const { travel } = reportTune(slurred).figures;
  const lengths = travel.slice(0, 2).map(({ bowStartCm, bowEndCm }) => Math.abs(bowEndCm - bowStartCm));
  expect(lengths[1]! / lengths[0]!).toBeCloseTo(pulseLength(), 9);
  expect(travel[0]!.bowEndCm).toBeCloseTo(travel[1]!.bowStartCm, 12);
});
