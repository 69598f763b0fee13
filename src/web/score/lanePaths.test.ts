import { hairAt, hairY } from './lanePaths';

const scale = { hairCm: 63, windowLowCm: 17, windowHighCm: 36 };

test('a height of the bow lane is the place on the hair that is drawn there', () => {
  for (let cm = 0; cm <= 63; cm += 0.5) expect(hairAt(hairY(cm, scale, 54), scale, 54)).toBeCloseTo(cm, 9);
});

test('above the lane is the frog, below it the tip', () => {
  expect(hairAt(-20, scale, 54)).toBe(0);
  expect(hairAt(80, scale, 54)).toBe(63);
});

test('the working window takes the middle of the lane', () => {
  const inWindow = hairY(36, scale, 54) - hairY(17, scale, 54);
  expect(inWindow / 54).toBeGreaterThan(19 / 63);
});
