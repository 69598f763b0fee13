import { writtenBars } from '#core/tune';
import { part, randomTune, tune } from '../testing/tunes';
import { applyPattern } from './applyPattern';
import { setLinks } from './gestures';
import { findPattern, PATTERNS } from './patterns';
import { recognisePatterns } from './recognise';

const EIGHT = 'D4 E4 F#4 G4 A4 B4 C#5 D5';
const fourBars = tune([part('A', `${EIGHT} | ${EIGHT} | ${EIGHT} | ${EIGHT}`)]);
const runs = (t: typeof fourBars) => recognisePatterns(t).map(({ pattern, from, to }) => `${from}-${to} ${pattern}`);

test('every pattern of the library is found again on running notes of its meter', () => {
  for (const pattern of PATTERNS) {
    const bar = Array.from({ length: (pattern.meter.num * 8) / pattern.meter.den }, (_, i) => (i % 2 ? 'E4' : 'D4'));
    const plain = tune([part('A', [bar, bar, bar].map((notes) => notes.join(' ')).join(' | '))], {
      meter: pattern.meter,
    });
    const [run, ...others] = recognisePatterns(applyPattern(plain, pattern));
    expect([pattern.name, run!.pattern, others]).toEqual([pattern.name, pattern.name, []]);
  }
});

test('bars are named one by one: where a slur is split the pattern ends and goes on after it', () => {
  const shuffle = applyPattern(fourBars, findPattern('pair-first-shuffle')!);
  expect(runs(shuffle)).toEqual(['1-4 pair-first-shuffle']);
  expect(runs(setLinks(shuffle, new Map([['A18', 'change']])))).toEqual([
    '1-2 pair-first-shuffle',
    '3-3 null',
    '4-4 pair-first-shuffle',
  ]);
});

test('a bar that several patterns fit takes the one of its neighbours', () => {
  const halves = tune([part('A', `${EIGHT} | D4:2 E4:2 F#4:2 G4:2 | ${EIGHT}`)]);
  expect(runs(applyPattern(halves, findPattern('pairs')!))).toEqual(['1-3 pairs']);
  expect(runs(halves)).toEqual(['1-3 saw']);
});

test('links of single passes and bars of one note follow none; each bar of any tune is in one run', () => {
  expect(runs(setLinks(fourBars, new Map([['A4', 'slur']]), 2))).toEqual(['1-1 null', '2-4 saw']);
  expect(runs(tune([part('A', 'D4:8')]))).toEqual(['1-1 null']);
  for (let seed = 1; seed <= 40; seed++) {
    const t = randomTune(seed);
    const named = recognisePatterns(t).flatMap(({ barIds }) => barIds);
    expect(named).toEqual([...writtenBars(t).values()].flatMap((bars) => bars.map(({ event }) => event.id)));
  }
});
