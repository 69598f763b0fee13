import { dueWords } from './upkeep';

test.each([
  [
    { what: 'string-hours', place: 'A', hours: 250.2, after: 200 },
    'The A string has 250 hours: it may sound dull and be false.',
  ],
  [
    { what: 'string-age', place: 'D', months: 13.8, after: 12 },
    'The D string is 13 months old: no more than a tone up with it.',
  ],
  [{ what: 'rosin', hours: 4.25, after: 4 }, '4.3 hours since the last rosin: a few strokes of it.'],
  [
    { what: 'gap', mm: 6.2, usual: [8, 8.5], bpm: 112 },
    'The hair gap is 6.2 mm; at about 112 you play with 8 to 8.5: turn the screw.',
  ],
  [{ what: 'gap', mm: 7, usual: [9, 9], bpm: null }, 'The hair gap is 7 mm; you had 9: turn the screw.'],
] as const)('what is due is told with its figures', (due, words) => expect(dueWords(due)).toBe(words));
