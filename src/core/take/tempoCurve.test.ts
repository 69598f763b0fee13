import { normalOf, seeded } from '#core/base';
import { lineThrough, slopeUncertainty, tempoCurve } from './tempoCurve';

test('a line through points on it is it, whatever they weigh', () => {
  const points = [0, 1, 4, 9].map((x) => ({ x, y: 3 - 0.5 * x, weight: 1 + x }));
  expect(lineThrough(points)).toEqual({ at0: expect.closeTo(3, 9), slope: expect.closeTo(-0.5, 9) });
  expect(slopeUncertainty(points)).toBeCloseTo(0, 6);
});

test('of one place, or of two points, the slope is not known', () => {
  expect(slopeUncertainty([{ x: 1, y: 1 }])).toBe(Infinity);
  expect(slopeUncertainty([1, 2].map((x) => ({ x, y: x * x })))).toBe(Infinity);
  expect(slopeUncertainty([1, 2, 3].map((y) => ({ x: 7, y })))).toBe(Infinity);
});

test('of five points it is Student’s t of three times the standard error, to a twentieth', () => {
  const points = [2.1, 3.9, 6.2, 7.7, 10.4].map((y, i) => ({ x: i + 1, y }));
  // Slope 2.04, residuals 0.12, -0.12, 0.14, -0.4, 0.26: Σ² = 0.276, Σ(x − x̄)² = 10.
  expect(slopeUncertainty(points)).toBeCloseTo(1.638 * Math.sqrt(0.276 / 3 / 10), 2);
});

test.each([5, 12, 60])('of %i scattered points, eight in ten intervals hold the true slope', (count) => {
  const normal = normalOf(seeded(3));
  const TIMES = 600;
  let held = 0;
  for (let time = 0; time < TIMES; time++) {
    const points = Array.from({ length: count }, (_, i) => ({ x: i / count, y: 2 * (i / count) + normal() }));
    if (Math.abs(lineThrough(points).slope - 2) <= slopeUncertainty(points)) held += 1;
  }
  expect(held / TIMES).toBeGreaterThan(0.75);
  expect(held / TIMES).toBeLessThan(0.86);
});

test('the player’s own time does not run through a stop', () => {
  const notes = Array.from({ length: 24 }, (_, i) => ({
    at: i / 4,
    onset: i / 4 + (i < 12 ? 0 : 5),
    run: i < 12 ? 0 : 1,
  }));
  for (const [i, { slower, own }] of tempoCurve(notes).entries()) {
    expect(slower).toBeCloseTo(1, 9);
    expect(own).toBeCloseTo(notes[i]!.onset, 9);
  }
  expect(tempoCurve(notes.slice(0, 3))[0]).toEqual({ slower: NaN, own: NaN });
});
