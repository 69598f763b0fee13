import { reportTune } from '#core/report';
import { heardAt, heardTake } from '../testing/heardTake';
import { sceneOf } from '../testing/takeScene';
import { part, tune } from '../testing/tunes';
import type { ExpectedNote } from './expected';
import { timeFindings } from './timeFindings';

/** A bar lasts 1.2 s. */
const reel = reportTune(
  tune(
    [
      part('A', 'D4 E4 F#4 G4 A4 B4 A4 G4 | F#4 E4 D4 E4 F#4 G4 A4 F#4'),
      part('B', 'A4 B4 c#5 d5 c#5 B4 A4 G4 | F#4 G4 A4 B4 A4 G4 F#4 E4'),
    ],
    { form: ['A', 'A', 'B', 'B'] },
  ),
  { bpm: 100 },
);
/** A crotchet's rest before the sixth note, and one before the ninth, which is on another string. */
const rests = reportTune(
  tune([part('A', 'D4:2 E4 F#4 G4 z:2 F#4 E4 D4 | D4 z:2 A4:2 B4 A4 G4 F#4 E4 D4 E4 F#4 G4 A4 B4')]),
  { bpm: 100 },
);
const AFTER_REST = 4;
const OTHER_STRING = 8;
/** Every third note is a minim. */
const holds = reportTune(tune([part('A', 'D4 E4 F#4:4 G4 A4 B4:4 | A4 G4 F#4:4 E4 D4 A4:4')]), { bpm: 100 });

type When = (note: ExpectedNote, i: number) => number;
const told = (report: typeof reel, when: When) =>
  timeFindings(sceneOf(heardAt(report, when))).map(({ code, notes, figure }) => [code, notes[0], Math.round(figure)]);

test('as planned, and a fifth slower or quicker throughout, nothing is told', () => {
  for (const report of [reel, rests, holds])
    for (const slower of [1, 1.2, 0.8]) expect(told(report, ({ at }) => 1 + slower * at)).toEqual([]);
});

test('who comes in late after a rest is told by how much, whether what follows is late too or not', () => {
  const late =
    (ms: number): When =>
    ({ at }, i) =>
      1 + at + (i === AFTER_REST ? ms / 1000 : 0);
  expect(told(rests, late(90))).toEqual([['late-entry', AFTER_REST, 90]]);
  expect(told(rests, ({ at }, i) => 1 + at + (i >= AFTER_REST ? 0.09 : 0))).toEqual([['late-entry', AFTER_REST, 90]]);
  // 60 ms is the threshold, and a beginning is not known to the millisecond.
  expect(told(rests, late(60))).toEqual([]);
});

test('late is measured against the player’s own pace', () => {
  expect(told(rests, ({ at }, i) => 1 + 1.25 * at + (i === AFTER_REST ? 0.09 : 0))).toEqual([
    ['late-entry', AFTER_REST, 90],
  ]);
});

test('a silence that is cut short is told by its share; with a change of string in it, it is a rushed turn', () => {
  const { expected } = heardTake(rests);
  const short =
    (at: number, share: number): When =>
    (note, i) =>
      1 + note.at - (i >= at ? share * expected.notes[at]!.restBefore : 0);
  expect(expected.notes[AFTER_REST]!.place).toBe(expected.notes[AFTER_REST - 1]!.place);
  expect(told(rests, short(AFTER_REST, 0.5))).toEqual([['silence-cut-short', AFTER_REST, 50]]);
  expect(expected.notes[OTHER_STRING]!.place).not.toBe(expected.notes[OTHER_STRING - 1]!.place);
  expect(told(rests, short(OTHER_STRING, 0.5))).toEqual([['rushed-turn', OTHER_STRING, 50]]);
  expect(told(rests, short(AFTER_REST, 0.2))).toEqual([]);
});

test('a long note that is cut short by a fifth is told, by a twentieth not', () => {
  const third = 2;
  const seconds = heardTake(holds).expected.notes[third]!.seconds;
  const cut =
    (share: number): When =>
    ({ at }, i) =>
      1 + at - (i > third ? share * seconds : 0);
  expect(told(holds, cut(0.25))).toEqual([['hold-cut-short', third, 25]]);
  expect(told(holds, cut(0.05))).toEqual([]);
});

test('two bars quicker than the others are rushed, and their notes are named', () => {
  const { expected } = heardTake(reel);
  const [from, to] = [expected.notes[24]!.at, expected.notes[40]!.at];
  const bent =
    (slower: number): When =>
    ({ at }) =>
      1 + Math.min(at, from) + slower * Math.max(0, Math.min(at, to) - from) + Math.max(0, at - to);
  const [rushed, ...more] = timeFindings(sceneOf(heardAt(reel, bent(0.86))));
  expect([rushed!.code, more]).toEqual(['rushing', []]);
  // 14 % less time is 16 % quicker.
  expect(Math.abs(rushed!.figure - 100 * (1 / 0.86 - 1))).toBeLessThan(rushed!.uncertainty + 1);
  expect(Math.abs(rushed!.notes[0]! - 24)).toBeLessThanOrEqual(1);
  expect(Math.abs(rushed!.notes.length - 16)).toBeLessThanOrEqual(2);
  expect(timeFindings(sceneOf(heardAt(reel, bent(1.14)))).map(({ code }) => code)).toEqual(['dragging']);
  expect(timeFindings(sceneOf(heardAt(reel, bent(0.98))))).toEqual([]);
});

test('what was not heard is not judged', () => {
  const { expected, heard } = heardAt(rests, ({ at }, i) => 1 + at + (i === AFTER_REST ? 0.09 : 0));
  const notes = heard.notes.map((one, i) => (i === AFTER_REST ? { ...one, heard: false } : one));
  expect(timeFindings(sceneOf({ expected, heard: { ...heard, notes } }))).toEqual([]);
});
