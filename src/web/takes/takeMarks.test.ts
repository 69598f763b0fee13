import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import type { KeptTake } from './keptTakes';
import { noteAt, takeMarks } from './takeMarks';
import { mattersMost, type TakeResult } from './takeResult';

const report = reportTune(tune([part('A', 'D4 E4 F#4 G4 | A4:4')], { form: ['A', 'A'] }));

const finding = (code: TakeResult['findings'][number]['code'], index: number, figure: number, threshold: number) =>
  ({
    code,
    notes: [index],
    loop: 0,
    seconds: index,
    figure,
    unit: 'ms',
    uncertainty: 1,
    threshold,
    drill: null,
  }) as const;

const take = {
  result: {
    notes: Array.from({ length: 10 }, (_, index) => ({
      index,
      loop: 0,
      heard: index !== 2,
      onset: index / 2,
      end: (index + 1) / 2,
      offMs: index === 1 ? 50 : 0,
      cents: 3,
      uncertainty: 1,
      level: index === 0 ? -10 : -25,
      curve: [[0.5, 3]],
    })),
    findings: [finding('sharp', 6, 30, 15)],
  },
} as unknown as KeptTake;

test('a take is drawn under the notes of the pass in view: late by its share, soft against the loudest, told where it is told', () => {
  const first = takeMarks(report, take, { A: 1 });
  const [one, two, three] = report.unrolled.notes.map(({ note }) => first.get(note.id)!);
  expect(one).toMatchObject({ heard: true, off: 0, level: 1, isTold: false });
  expect(two!.off).toBeCloseTo(0.1, 6);
  expect(two!.level).toBeCloseTo(0.5, 6);
  expect(three!.heard).toBe(false);
  const second = takeMarks(report, take, { A: 2 });
  expect(second.get(report.unrolled.notes[6]!.note.id)!.isTold).toBe(true);
  expect(first.get(report.unrolled.notes[6]!.note.id)!.isTold).toBe(false);
});

test('while it is heard the mark is on the note that sounds, and stays on the last that was heard', () => {
  expect(noteAt(take, -1)).toBeNull();
  expect(noteAt(take, 0.75)).toEqual({ index: 1, share: 0.5 });
  expect(noteAt(take, 1.2)).toEqual({ index: 1, share: 1 });
});

test('what matters most is the order of notes before their tune, and what is far beyond its threshold before what is near', () => {
  expect(mattersMost([])).toBeNull();
  expect(mattersMost([finding('sharp', 1, 30, 15), finding('left-out', 2, 1, 1)])!.code).toBe('left-out');
  expect(mattersMost([finding('sharp', 1, 16, 15), finding('flat', 2, 40, 15)])!.code).toBe('flat');
});
