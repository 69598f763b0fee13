import { reportTune } from '#core/report';
import { heardTake } from '../testing/heardTake';
import { sceneOf } from '../testing/takeScene';
import { part, tune } from '../testing/tunes';
import type { Heard } from './heard';
import { orderFindings } from './orderFindings';
import { pitchFindings } from './pitchFindings';

const report = reportTune(
  tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 G4 | F#4 E4 D4 E4 F#4 G4 A4 F#4'), part('B', 'A4 B4 c#5 d5 c#5 B4 A4 G4')], {
    form: ['A', 'A', 'B'],
  }),
  { bpm: 120 },
);
const { expected, heard: plain } = heardTake(report);
const told = (heard: Heard) =>
  orderFindings(sceneOf({ expected, heard })).map(({ code, notes, figure }) => [code, notes[0], figure]);

/** Only so many notes were come to. */
const until = (count: number): Heard =>
  heardTake(report, (_, i) => (i < count ? {} : { visit: null, heard: false })).heard;

test('in order nothing is told', () => {
  expect(told(plain)).toEqual([]);
});

test('a note passed over on the way is left out, where it should have been', () => {
  expect(told({ ...plain, leftOut: [9] })).toEqual([['left-out', 9, 1]]);
});

test('what sounded instead of it, at the end of the note before or at the beginning of the next, makes it a wrong note', () => {
  const stray = (at: number, midi: number, from: number) =>
    heardTake(report, (note, i) => {
      const begins = note.at + 1 + from;
      return i === at ? { strays: [{ midi, from: begins, to: begins + 0.1 }], end: note.at + 1 + 0.25 } : {};
    }).heard;
  // Note 9 is E4, 64: a tone higher.
  expect(told({ ...stray(8, 66, 0.13), leftOut: [9] })).toEqual([['wrong-note', 9, 200]]);
  expect(told({ ...stray(10, 61, 0), leftOut: [9] })).toEqual([['wrong-note', 9, 300]]);
});

test('going back a few notes is a new start, with all that was played again; the first is where it went wrong', () => {
  const { notes } = orderFindings(sceneOf({ expected, heard: { ...plain, jumps: [{ from: 12, to: 9, at: 4 }] } }))[0]!;
  expect(notes).toEqual([12, 11, 10, 9]);
  expect(told({ ...plain, jumps: [{ from: 12, to: 9, at: 4 }] })).toEqual([['started-again', 12, 4]]);
});

test('going on a few notes later leaves them out, a whole pass later is another pass', () => {
  expect(told({ ...plain, jumps: [{ from: 4, to: 8, at: 4 }] })).toEqual([['left-out', 5, 3]]);
  expect(told({ ...plain, jumps: [{ from: 15, to: 32, at: 4 }] })).toEqual([['wrong-pass', 16, 16]]);
});

test('to go on with the next note after a stop is nothing', () => {
  expect(told({ ...plain, jumps: [{ from: 4, to: 5, at: 4 }] })).toEqual([]);
});

test('who ends where a pass ends has left the rest of the passes; who ends within one has only stopped', () => {
  expect(told(until(32))).toEqual([['wrong-pass', 32, 8]]);
  expect(told(until(29))).toEqual([]);
});

test('a note in whose time nothing sounds is left out; a soft one is not', () => {
  const at = (level: number, more = {}) =>
    told(heardTake(report, (_, i) => (i === 10 ? { level, ...more } : {})).heard);
  expect(at(-40, { heard: false })).toEqual([['left-out', 10, 1]]);
  expect(at(-30)).toEqual([]);
  // Without a beginning of its own it only rings on.
  expect(at(-30, { onsetUncertaintyMs: 25 })).toEqual([['left-out', 10, 1]]);
  expect(at(-38)).toEqual([['left-out', 10, 1]]);
});

test('another pitch within a note is one too many, but not what belongs to its neighbours or is a moment', () => {
  const within = (midi: number, from: number, to: number) =>
    told(
      heardTake(report, ({ at }, i) => (i === 10 ? { strays: [{ midi, from: at + 1 + from, to: at + 1 + to }] } : {}))
        .heard,
    );
  expect(within(71, 0.06, 0.12)).toEqual([['added-note', 10, expect.closeTo(60, 6)]]);
  expect(within(71, 0.06, 0.09)).toEqual([]);
  // E4 before it and E4 after it.
  expect(within(64, 0, 0.06)).toEqual([]);
  expect(within(64, 0.06, 0.125)).toEqual([]);
});

test('a pitch off by more than its threshold and its uncertainty is told by its side', () => {
  const off = (cents: number, centsUncertainty = 1) =>
    pitchFindings(sceneOf(heardTake(report, (_, i) => (i === 3 ? { cents, centsUncertainty } : {})))).map(
      ({ code, figure }) => [code, figure],
    );
  expect(off(20)).toEqual([['sharp', 20]]);
  expect(off(-20)).toEqual([['flat', 20]]);
  expect(off(14)).toEqual([]);
  // 16 ± 4 may well be 15 or less.
  expect(off(16, 4)).toEqual([]);
  expect(off(40, 25)).toEqual([]);
});
