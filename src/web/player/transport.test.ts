import { perform, PLAIN_WISH } from '#core/performance';
import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import { along, type Programme, programmeOf, sameplace } from './programme';
import { Transport } from './transport';

const BPM = 120;
/** At 120 half notes a minute an eighth lasts an eighth of a second. */
function programme(
  line: string,
  id: number,
  loops: boolean,
  wish: Partial<typeof PLAIN_WISH> = {},
  bpm = BPM,
): Programme {
  return programmeOf(perform(reportTune(tune([part('A', line)]), { bpm }), { ...PLAIN_WISH, ...wish }), id, loops);
}
const EIGHT = 'D4 E4 F#4 G4 A4 B4 C#5 D5';
const play = (of: Programme, at: number | null = 0) => ({ kind: 'play', programme: of, at }) as const;

test('values between two knots go in a straight line, beyond the ends they stay', () => {
  expect([-1, 0, 1, 3, 9].map((at) => along([0, 2, 4], [0, 10, 11], at))).toEqual([0, 0, 5, 10.5, 11]);
});

test('a plan that is not looped ends', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, false)));
  transport.pass(0.9);
  expect([transport.isPlaying, transport.time]).toEqual([true, 0.9]);
  transport.pass(0.2);
  expect(transport.isPlaying).toBe(false);
  expect(transport.report(0).programme).toBe(0);
});

test('a loop comes back to its beginning, after what was counted in, as often as time has it', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, true, { countIn: 1 })));
  transport.pass(1.5);
  expect(transport.report(0)).toMatchObject({ rounds: 0, time: 1.5 });
  transport.pass(1);
  expect(transport.report(0)).toMatchObject({ rounds: 1, time: expect.closeTo(1.5, 9) as number });
  transport.pass(3);
  expect(transport.report(0)).toMatchObject({ rounds: 4, time: expect.closeTo(1.5, 9) as number });
});

test('an answer is waited for before the loop comes back', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, true, { answer: true })));
  transport.pass(1.9);
  expect(transport.report(0)).toMatchObject({ rounds: 0, time: 1.9 });
  transport.pass(0.2);
  expect(transport.report(0).rounds).toBe(1);
});

test('what comes next takes over when the loop comes round, and not before', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, true)));
  transport.tell({ kind: 'next', programme: programme(EIGHT, 2, true, {}, 2 * BPM) });
  transport.pass(0.9);
  expect(transport.report(0).programme).toBe(1);
  transport.pass(0.2);
  expect(transport.report(0)).toMatchObject({ programme: 2, time: expect.closeTo(0.1, 9) as number });
  transport.pass(0.5);
  expect(transport.report(0)).toMatchObject({ programme: 2, rounds: 2 });
});

test('an edit goes on at the same place: of the tune, of the count-in, of the gap', () => {
  const before = programme(EIGHT, 1, true, { countIn: 1, answer: true });
  const slower = programme(EIGHT, 2, true, { countIn: 1, answer: true }, BPM / 2);
  expect(sameplace(before, slower, 1.5)).toBeCloseTo(3, 9);
  expect(sameplace(before, slower, 0.75)).toBeCloseTo(1.75, 9);
  expect(sameplace(before, slower, 2.25)).toBeCloseTo(4.25, 9);
  const transport = new Transport();
  transport.tell(play(before));
  transport.pass(1.5);
  transport.tell(play(slower, null));
  expect(transport.report(0)).toMatchObject({ programme: 2, time: expect.closeTo(3, 9) as number });
});

test('a note put in before keeps the place by the page', () => {
  const before = programme('D4:4 A4:4', 1, false);
  const after = programme('D4:2 E4:2 A4:4', 2, false);
  expect(sameplace(before, after, 0.75)).toBeCloseTo(0.75, 9);
});

test('stopped it plays nothing, and time does not pass', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, true)));
  transport.tell({ kind: 'stop' });
  expect([transport.isPlaying, transport.untilTurn, transport.turn()]).toEqual([false, Infinity, false]);
});

test('what comes next goes on where a plan without a loop ends, from its own beginning', () => {
  const transport = new Transport();
  transport.tell(play(programme(EIGHT, 1, false)));
  transport.tell({ kind: 'next', programme: programme(EIGHT, 2, false) });
  transport.pass(1.5);
  expect(transport.report(0)).toMatchObject({ programme: 2, isPlaying: true, rounds: 0 });
  expect(transport.time).toBeCloseTo(0.5, 9);
  transport.pass(1);
  expect(transport.isPlaying).toBe(false);
});

test('no loop is so short that it comes round for ever', () => {
  const empty = programme('z:8', 1, true, { span: null });
  expect(
    programmeOf(
      {
        ...perform(reportTune(tune([part('A', 'D4')]), { bpm: 400 })),
        ends: 0.01,
        plan: { ...empty.plan, seconds: 0.01 },
      },
      1,
      true,
    ).loop,
  ).toBeNull();
});
