import { minutesWords } from './log';

test.each([
  [0.3, 'under a minute'],
  [1.2, '1 minute'],
  [34.4, '34 minutes'],
  [120, '2 h'],
  [125, '2 h 5 min'],
])('%d minutes are told as %s', (minutes, words) => expect(minutesWords(minutes)).toBe(words));
