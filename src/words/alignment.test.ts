import { agreementWords, keyShiftWords, likenessWords } from './alignment';
import { originWords } from './origin';

test('agreement is told with its counts, and what there is none of is not told', () => {
  expect(agreementWords({ same: 64, 'on-the-beat': 0, different: 0, alone: 0 })).toBe('They agree on all 64 beats.');
  expect(agreementWords({ same: 50, 'on-the-beat': 6, different: 4, alone: 1 })).toBe(
    'They agree on 50 of 61 beats, on 6 more only in the note on the beat (≈); 4 differ (≠), 1 stands in one of them only (+).',
  );
  expect(agreementWords({ same: 2, 'on-the-beat': 0, different: 0, alone: 2 })).toBe(
    'They agree on 2 of 4 beats; 2 stand in one of them only (+).',
  );
});

test('a distance between keys has its name and way', () => {
  expect(keyShiftWords(5)).toMatch(/^The first lies a fourth higher/);
  expect(keyShiftWords(-2)).toMatch(/^The first lies a tone lower/);
  expect(likenessWords(0.974, 0)).toBe('97 % alike');
  expect(likenessWords(1, -3)).toBe('100 % alike, a minor third lower');
});

test('where a version is from is told as far as it is known', () => {
  const version = {
    kind: 'setting',
    taughtBy: 'Wenna Tarr',
    learnedOn: '2025-11-08',
    note: 'slower',
    createdAt: '2026-02-03T10:00:00Z',
    revision: 1,
  } as const;
  expect(originWords(version)).toBe('another setting, taught by Wenna Tarr, 8 November 2025; slower');
  expect(originWords({ ...version, kind: 'plan', taughtBy: '', learnedOn: null, note: '' })).toBe(
    'another plan, kept 3 February 2026',
  );
});
