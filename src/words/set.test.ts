import { parsePitch } from '#core/pitch';
import type { HandOver } from '#core/sets';
import { handOverWords, lengthWords, setWords } from './set';

const PLAIN: HandOver = { bow: { way: 'on', last: 'up', first: 'down' }, retuned: [], pace: 1.04, isSameKey: false };

test('a bow that goes on is said to, and one that does not is lifted', () => {
  expect(handOverWords(PLAIN)).toEqual(['The bow goes straight on: up, then down.']);
  expect(handOverWords({ ...PLAIN, bow: { way: 'lift', last: 'down', first: 'down' } })).toEqual([
    'Lift the bow: the last stroke and the next are both down-bows.',
  ]);
  expect(handOverWords({ ...PLAIN, bow: null })).toEqual([]);
});

test('strings are named by place and by both pitches, tempo by what is felt, the key where it stays', () => {
  const words = handOverWords({
    ...PLAIN,
    retuned: [
      { place: 'G', from: parsePitch('G3')!, to: parsePitch('A3')! },
      { place: 'E', from: parsePitch('E5')!, to: parsePitch('C#5')! },
    ],
    pace: 0.8,
    isSameKey: true,
  });
  expect(words.slice(1)).toEqual([
    'Retune the G string from G to A and the E string from E to C♯.',
    'Slower: 20 % fewer beats a minute.',
    'Same key.',
  ]);
});

test.each([
  [0.4, '0 s'],
  [50, '50 s'],
  [60, '1 min'],
  [259.6, '4 min 20 s'],
])('%d seconds are %s', (seconds, words) => {
  expect(lengthWords(seconds)).toBe(words);
});

test('the whole set is told in a sentence, by the tunes before which something is in the way', () => {
  const lift: HandOver = { ...PLAIN, bow: { way: 'lift', last: 'up', first: 'up' } };
  const retuned: HandOver = {
    ...PLAIN,
    retuned: [{ place: 'G', from: parsePitch('G3')!, to: parsePitch('A3')! }],
  };
  expect(setWords([])).toBe('One tune by itself.');
  expect(setWords([PLAIN, PLAIN])).toBe('It plays straight through: the bow goes on from tune to tune.');
  expect(setWords([lift, PLAIN, lift])).toBe('The bow is lifted before tunes 2 and 4.');
  expect(setWords([PLAIN, retuned])).toBe('You have to retune before tune 3.');
});
