import { dot, outline, outlines, polyline } from './paths';

test('a path is drawn from place to place, to a hundredth of a pixel', () => {
  const path = outline();
  polyline(path, [1 / 3, 2], [5, 2.005]);
  expect(String(path)).toBe('M0.33,2L5,2.01');
});

test('a dot is a whole circle about its middle', () => {
  const path = outline();
  dot(path, 10, 4, 3);
  expect(String(path)).toBe('M13,4A3,3,0,1,1,7,4A3,3,0,1,1,13,4Z');
});

test('outlines that are drawn at once know nothing of each other', () => {
  const [one, other] = outlines(2);
  dot(one, 0, 0, 1);
  expect(String(other)).toBe('');
});
