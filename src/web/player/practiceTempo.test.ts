import { PRACTICE, practiceStep, readPractice, writePractice } from './practiceTempo';

beforeEach(() => localStorage.clear());

test('steps are of five percent, from what lies between to the next one, and end at the bounds', () => {
  expect(practiceStep(100, -1)).toBe(95);
  expect(practiceStep(72, -1)).toBe(70);
  expect(practiceStep(72, 1)).toBe(75);
  expect(practiceStep(PRACTICE.min, -1)).toBe(PRACTICE.min);
  expect(practiceStep(PRACTICE.max, 3)).toBe(PRACTICE.max);
});

test('each tune has its own, and none has the whole tempo', () => {
  writePractice('a', 70);
  writePractice('b', 85);
  expect([readPractice('a'), readPractice('b'), readPractice('c')]).toEqual([70, 85, 100]);
  writePractice('a', 100);
  expect(readPractice('a')).toBe(100);
});

test('what is no percentage is not believed', () => {
  localStorage.setItem('morrin.practice', '[["a",900]]');
  expect(readPractice('a')).toBe(100);
  localStorage.setItem('morrin.practice', 'no');
  expect(readPractice('a')).toBe(100);
});
