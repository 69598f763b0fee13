import { reportTune } from '#core/report';
import { barSumFaults, writtenNotes } from '#core/tune';
import { inventedTune } from '../testing/books';
import { part, tune } from '../testing/tunes';
import { beginCell, cellNow } from './cell';
import { cellTune } from './cellTune';
import { practicePlan } from './practicePlan';
import { beginRun, hurt, putTogether, type Run, runRepeated, stopped } from './run';
import type { LadderWish } from './tempoLadder';

const report = reportTune(tune([part('A', 'D4 (F#4 A4) D5 (E5 D5 C#5) A4 | B4 A4 F#4:2 D4:4')], { form: ['A'] }));
const WISH: LadderWish = { wishBpm: 100, startBpm: 60, stepPercent: 5, cleanInARow: 2, capMinutes: 60, known: null };
const scene = { report, at: 3 };
const played = (run: Run, repetitions: string) =>
  [...repetitions].reduce((own, one) => runRepeated(own, one === 'c', 0.2, scene), run);
const BEGUN = beginRun({ first: 0, last: 7 }, WISH);

test('two misses at the first tempo take the stretch apart, and put together again the ladder goes on', () => {
  const apart = played(BEGUN, 'mm');
  expect(apart.cell).not.toBeNull();
  expect(cellNow(apart.cell!)).toMatchObject({ restBeats: 2, stretch: { first: 1, last: 3 } });
  let run = apart;
  for (let i = 0; i < 60 && run.cell; i++) run = played(run, 'c');
  expect(run.cell).toBeNull();
  expect(run.ladder.bpm).toBe(apart.ladder.bpm);
  expect(run.ladder.minutes).toBeCloseTo(apart.ladder.minutes, 9);
  expect(run.cellMinutes).toBeGreaterThan(0);
});

test('two misses higher up are a step back and no cell', () => {
  const run = played(BEGUN, 'ccccmm');
  expect(run.cell).toBeNull();
  expect(run.ladder.bpm).toBeCloseTo(60 * 1.05, 9);
});

test('while something hurts nothing counts, and then it goes on from where it was', () => {
  const run = hurt(played(BEGUN, 'cc'), true);
  expect(played(run, 'cccccc')).toEqual(run);
  const again = hurt(run, false);
  expect(played(again, 'cc').ladder.bpm).toBeGreaterThan(again.ladder.bpm);
});

test('a cell can be left, and a run stopped', () => {
  const run = putTogether(played(BEGUN, 'mm'));
  expect(run.cell).toBeNull();
  expect(stopped(run).ladder.ended).toBe('stopped');
});

test('a cell as a tune adds up, is bowed as the tune, and keeps its tempo', () => {
  for (const seed of [1, 2, 3, 4, 5, 6]) {
    const own = reportTune(inventedTune(seed));
    for (const bite of practicePlan(own).bites.slice(0, 4)) {
      if (bite.last === bite.first) continue;
      const cell = beginCell(own, bite.tightest?.index ?? bite.first + 1, bite);
      for (const stretch of cell.stretches)
        for (const restBeats of [2, 0.25, 0]) {
          const small = cellTune(own, stretch, { at: cell.at, restBeats, bpm: 80 });
          const after = reportTune(small);
          const count = stretch.last - stretch.first + 1;
          expect(barSumFaults(small)).toEqual([]);
          expect(writtenNotes(small)).toHaveLength(count);
          expect(after.figures.bowed.map(({ bow }) => bow)).toEqual(
            own.figures.bowed.slice(stretch.first, stretch.last + 1).map(({ bow }) => bow),
          );
          const secondsPerWhole = (length: typeof own, bpm: number) =>
            60 / bpm / (length.settings.beat.n / length.settings.beat.d);
          expect(secondsPerWhole(after, after.settings.bpm)).toBeCloseTo(secondsPerWhole(own, 80), 9);
        }
    }
  }
});

test('while a finger is kept out for pain the ladder stays, even when it is taken up again', () => {
  const begun = hurt(BEGUN, false, true);
  expect(played(begun, 'cccccc').ladder.bpm).toBe(begun.ladder.bpm);
  expect(hurt(hurt(begun, true, true), false, true).ladder.isHeld).toBe(true);
  expect(hurt(hurt(begun, true), false).ladder.isHeld).toBe(false);
});
