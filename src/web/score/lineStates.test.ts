import { setLinks } from '#core/bowing';
import { transposeBySteps } from '#core/editing';
import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import { scoreLines } from './lines';
import { lineStatesKeeper } from './lineStates';

const twoLines = tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5 | D5 C#5 B4 A4 G4 F#4 E4 D4')], { start: 'down' });

test('a line in which no state changed keeps its value; a slur changes all that follow it', () => {
  const keep = lineStatesKeeper();
  const cut = (t: typeof twoLines) => {
    const states = noteStates(reportTune(t), {});
    return scoreLines(t, 1).map((line) => keep(line, states));
  };
  const [first, second] = cut(twoLines);
  expect([...first!.keys()]).toHaveLength(8);
  const id = [...second!.keys()][3]!;
  const moved = cut(transposeBySteps(twoLines, new Set([id]), 1));
  expect(moved[0]).toBe(first);
  expect(moved[1]).not.toBe(second);
  const slurred = cut(setLinks(twoLines, new Map([[[...first!.keys()][1]!, 'slur']])));
  expect(slurred[0]).not.toBe(first);
  expect([...slurred[1]!.values()][0]!.bow).toBe('up');
});
