import { bowNotes, setLinks } from '#core/bowing';
import { FULL_SIZE } from '#core/instrument';
import { type Link, unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { nominalLength, rawTravel } from './travel';

function travel(line: string, seconds: number[], links: [string, Link][] = []) {
  const { notes } = unroll(setLinks(tune([part('A', line)]), new Map(links)));
  return rawTravel(bowNotes(notes, 'down'), seconds, 45, FULL_SIZE);
}

test('a short stroke is speed times time, a long one saturates at 45 cm', () => {
  expect(nominalLength(0.01, 45)).toBeCloseTo(0.45, 2);
  expect(nominalLength(0.137615, 45)).toBeCloseTo(45 * (1 - Math.exp(-0.137615)), 12);
  expect(nominalLength(60, 45)).toBeCloseTo(45, 9);
});

test('the first stroke is centred on the sweet spot and a down-bow moves toward the tip', () => {
  const [first] = travel('D4', [0.2]);
  expect((first!.bowStartCm + first!.bowEndCm) / 2).toBeCloseTo(26.46, 9);
  expect(first!.bowEndCm).toBeGreaterThan(first!.bowStartCm);
});

test('each stroke begins where the one before ended, and notes share theirs by time', () => {
  const path = travel('D4 E4 F#4', [0.2, 0.1, 0.3], [['A3', 'slur']]);
  expect(path[1]!.bowStartCm).toBe(path[0]!.bowEndCm);
  expect(path[2]!.bowStartCm).toBe(path[1]!.bowEndCm);
  const share = (path[1]!.bowEndCm - path[1]!.bowStartCm) / (path[2]!.bowEndCm - path[1]!.bowStartCm);
  expect(share).toBeCloseTo(0.25, 9);
  expect(Math.abs(path[2]!.bowEndCm - path[1]!.bowStartCm)).toBeCloseTo(nominalLength(0.4, 45), 9);
});

test('after a retake the stroke is centred anew', () => {
  const path = travel('D4 E4 F#4', [0.5, 0.1, 0.2], [['A3', 'retake']]);
  expect((path[2]!.bowStartCm + path[2]!.bowEndCm) / 2).toBeCloseTo(FULL_SIZE.sweetSpotCm, 9);
});

test('the pair-first shuffle is home after two cycles, long and short leave the hair in the end', () => {
  const shuffle = travel('(D4 E4) F#4 G4 (A4 B4) C#5 D5', Array(8).fill(0.137) as number[]);
  expect(shuffle[7]!.bowEndCm).toBeCloseTo(shuffle[0]!.bowStartCm, 9);
  const lame = travel(
    Array(40).fill('D4').join(' '),
    Array.from({ length: 40 }, (_, i) => (i % 2 === 0 ? 0.3 : 0.1)),
  );
  expect(lame[0]!.bowEndCm).toBeLessThan(FULL_SIZE.hairCm);
  expect(lame[39]!.bowEndCm).toBeGreaterThan(FULL_SIZE.hairCm);
});
