import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { beginCell, type Cell, CELL_RESTS, cellAround, cellNow, cellRepeated } from './cell';

const report = reportTune(tune([part('A', 'D4 (F#4 A4) D5 (E5 D5 C#5) A4 | B4 A4 F#4:2 D4:4')], { form: ['A'] }));
const BITE = { first: 0, last: 7 };
const played = (cell: Cell, repetitions: string) =>
  [...repetitions].reduce((own, one) => cellRepeated(own, one === 'c', 2), cell);

test('a cell is the stroke before and the stroke of the step, whole', () => {
  expect(cellAround(report, 3, BITE)).toEqual({ first: 1, last: 3 });
  expect(cellAround(report, 4, BITE)).toEqual({ first: 3, last: 6 });
  // Inside a slur: the stroke and the one that follows.
  expect(cellAround(report, 2, BITE)).toEqual({ first: 1, last: 3 });
  expect(cellAround(report, 1, { first: 0, last: 2 })).toEqual({ first: 0, last: 2 });
});

test('rests shrink after clean sets, then it grows stroke by stroke to the bite and the join', () => {
  let cell = beginCell(report, 3, BITE);
  const rests = [cellNow(cell).restBeats];
  while (cellNow(cell).restBeats > 0) rests.push(cellNow((cell = played(cell, 'cc'))).restBeats);
  expect(rests).toEqual([...CELL_RESTS]);
  const stretches = [cellNow(cell).stretch];
  while (!cell.isDone) {
    cell = played(cell, 'cc');
    if (!cell.isDone) stretches.push(cellNow(cell).stretch);
  }
  expect(stretches).toEqual([
    { first: 1, last: 3 },
    { first: 0, last: 6 },
    { first: 0, last: 7 },
    { first: 0, last: 8 },
  ]);
});

test('two misses bring back the rest, or the smaller stretch', () => {
  const cell = beginCell(report, 3, BITE);
  expect(cellNow(played(cell, 'ccmm')).restBeats).toBe(2);
  expect(cellNow(played(cell, 'mm')).restBeats).toBe(2);
  const grown = played(cell, 'cc'.repeat(6));
  expect(grown.grown).toBe(2);
  expect(played(grown, 'mm').grown).toBe(1);
  expect(played(grown, 'mcm').grown).toBe(2);
});

test('every stretch of a cell is whole strokes', () => {
  const { stretches } = beginCell(report, 4, BITE);
  const { bowed } = report.figures;
  for (const { first, last } of stretches.slice(0, -1)) {
    expect(bowed[first]!.inStroke).toBe(1);
    expect(bowed[last + 1]?.inStroke ?? 1).toBe(1);
  }
});
