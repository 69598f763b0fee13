import { opposite } from '#core/bowing';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { inventedTune } from '../testing/books';
import { part, tune } from '../testing/tunes';
import { bowThrough, handOver } from './index';

/** Eight strokes a time: it comes round. Seven: every second time begins the other way. */
const EVEN = tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5')], { form: ['A'] });
const ODD = tune([part('A', '(D4 E4) F#4 G4 A4 B4 C#5 D5')], { form: ['A'] });
const through = (own: Tune, times: number) => bowThrough(reportTune(own), times);

test('a tune of eight strokes ends on an up-bow every time, one of seven by turns', () => {
  expect([1, 2, 3].map((times) => through(EVEN, times).last)).toEqual(['up', 'up', 'up']);
  expect([1, 2, 3].map((times) => through(ODD, times).last)).toEqual(['down', 'up', 'down']);
  expect(through(ODD, 3).times.map(({ figures }) => figures.start.direction)).toEqual(['down', 'up', 'down']);
});

test('what is counted time by time is what the whole gives when it is written out', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const own = inventedTune(seed);
    // Passes that are bowed in ways of their own are counted on when the form is written out; the tune begun again is not.
    if (own.parts.some(({ events }) => events.some((event) => event.kind === 'note' && event.linkOnPass))) continue;
    for (const times of [1, 2, 3]) {
      const whole = reportTune({ ...own, form: Array.from({ length: times }, () => own.form).flat() });
      const { first, last, seconds } = through(own, times);
      expect([seed, times, first, last]).toEqual([
        seed,
        times,
        whole.figures.bowed[0]!.bow,
        whole.figures.bowed.at(-1)!.bow,
      ]);
      expect(seconds).toBeCloseTo(whole.timing.total, 6);
    }
  }
});

test('the bow goes on by itself where the last stroke and the first differ, and is lifted where they are alike', () => {
  const again = tune([part('A', 'D4:2 D4:2')], { form: ['A'] });
  expect(handOver(through(EVEN, 1), through(again, 1)).bow).toEqual({ way: 'on', last: 'up', first: 'down' });
  expect(handOver(through(ODD, 1), through(again, 1)).bow).toEqual({ way: 'lift', last: 'down', first: 'down' });
  const up = { ...again, start: opposite('down') };
  expect(handOver(through(ODD, 1), through(up, 1)).bow!.way).toBe('on');
});

test('strings, pace and key are told apart', () => {
  const cross: Tune = { ...EVEN, tuning: parseTuning('A3 E4 A4 E5')!, tempoBpm: 120 };
  const plain: Tune = { ...EVEN, tempoBpm: 100, key: { letter: 'G', alter: 0, mode: 'major' } };
  const { retuned, pace, isSameKey } = handOver(through(plain, 1), through(cross, 1));
  expect(retuned.map(({ place }) => place)).toEqual(['G', 'D']);
  expect(pace).toBeCloseTo(1.2);
  expect(isSameKey).toBe(false);
  expect(handOver(through(plain, 1), through(plain, 2))).toMatchObject({ retuned: [], pace: 1, isSameKey: true });
});

test('a tune without notes hands nothing over', () => {
  const empty = tune([part('A', 'z:8')], { form: ['A'] });
  expect(handOver(through(empty, 2), through(EVEN, 1)).bow).toBeNull();
});
