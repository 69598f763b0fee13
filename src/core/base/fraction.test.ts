import fc from 'fast-check';
import {
  add,
  compare,
  divide,
  floorQuotient,
  formatFraction,
  fraction,
  multiply,
  nearestFraction,
  parseFraction,
  subtract,
  toNumber,
} from './fraction';

const fractions = fc
  .tuple(fc.integer({ min: -400, max: 400 }), fc.integer({ min: 1, max: 96 }))
  .map(([n, d]) => fraction(n, d));

test('a fraction is kept in lowest terms with a positive denominator', () => {
  expect(fraction(6, -8)).toEqual({ n: -3, d: 4 });
  expect(fraction(0, 5)).toEqual({ n: 0, d: 1 });
});

test('three triplet eighths make exactly a quarter', () => {
  const third = fraction(1, 12);
  expect(add(add(third, third), third)).toEqual(fraction(1, 4));
});

test('sums and products agree with floating point and undo each other', () => {
  fc.assert(
    fc.property(fractions, fractions, (a, b) => {
      expect(toNumber(add(a, b))).toBeCloseTo(toNumber(a) + toNumber(b), 9);
      expect(subtract(add(a, b), b)).toEqual(a);
      if (b.n !== 0) expect(divide(multiply(a, b), b)).toEqual(a);
      expect(Math.sign(compare(a, b))).toBe(Math.sign(a.n * b.d - b.n * a.d));
    }),
    { seed: 7 },
  );
});

test('a written fraction reads back', () => {
  fc.assert(
    fc.property(fractions, (a) => {
      expect(parseFraction(formatFraction(a))).toEqual(a);
    }),
    { seed: 8 },
  );
  expect(parseFraction('three')).toBeNull();
});

test('lengths handed out as floating point come back exactly', () => {
  for (const exact of [fraction(3, 16), fraction(1, 24), fraction(7, 32), fraction(5, 12), fraction(2)])
    expect(nearestFraction(toNumber(exact))).toEqual(exact);
});

test('the whole number of times a beat goes into a length rounds down', () => {
  expect(floorQuotient(fraction(7, 8), fraction(1, 4))).toBe(3);
});

test('a zero denominator is refused with what was got', () => {
  expect(() => fraction(1, 0)).toThrow('1/0');
});
