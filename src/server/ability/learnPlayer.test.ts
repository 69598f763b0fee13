import { cleanChance } from '#core/ability';
import { seeded } from '#core/base';
import { limitsWith } from '#core/tempo';
import { type JudgedStretch, learnPlayer, type LoggedRow, ownFigures } from './learnPlayer';

const limits = limitsWith();
const stretch = (more: Partial<JudgedStretch> = {}): JudgedStretch => ({
  bpm: 100,
  margins: { stroke: 0 },
  skills: { 'tempo 1/2': 100, strokes: 6, cut: 3 },
  ...more,
});
const row = (more: Partial<LoggedRow> = {}): LoggedRow => ({
  stretch: 0,
  daysAgo: 0,
  bpm: 100,
  clean: true,
  shows: true,
  ...more,
});

test('a player who is so much quicker is found to be, from attempts at other tempos than the plan’s', () => {
  const random = seeded(2);
  const rows = Array.from({ length: 300 }, () => {
    const bpm = 70 + 70 * random();
    return row({ bpm, clean: random() < cleanChance({ stroke: Math.log(100 / bpm) }, { stroke: 0.15 }) });
  });
  const { kinds, attempts } = learnPlayer([stretch()], rows, limits);
  expect(attempts).toBe(300);
  expect(Math.abs(kinds.stroke!.mean - 0.15)).toBeLessThan(0.06);
  expect(kinds.stroke!.low).toBeLessThan(0.15);
  expect(kinds.stroke!.high).toBeGreaterThan(0.15);
});

test('what came out clean is shown at its own tempo; counts do not grow with it', () => {
  const rows = [row({ bpm: 80 }), row({ bpm: 120 }), row({ bpm: 150, clean: false }), row({ bpm: 200, shows: false })];
  expect(learnPlayer([stretch()], rows, limits).shown).toEqual({
    'tempo 1/2': 120,
    strokes: expect.closeTo(7.2, 9) as number,
    cut: 3,
  });
});

test('a stretch that the plan has no more says nothing', () => {
  const gone = stretch({ margins: null, skills: null });
  expect(learnPlayer([gone], [row()], limits)).toMatchObject({ attempts: 0, kinds: {}, shown: {} });
});

test('an own ceiling is that of the kind that the player is slow at; without attempts there is none', () => {
  const random = seeded(3);
  const rows = Array.from({ length: 300 }, () => {
    const bpm = 60 + 60 * random();
    return row({ bpm, clean: random() < cleanChance({ stroke: Math.log(100 / bpm) }, { stroke: -0.2 }) });
  });
  const learnt = learnPlayer([stretch()], rows, limits);
  const tunes = [{ ceilings: { stroke: 120, hop: 300 }, skills: { strokes: 6, roll: 2 } }];
  const [own] = ownFigures(tunes, learnt, limits);
  expect(Math.abs(Math.log(own!.own_ceiling! / (120 * Math.exp(-0.2))))).toBeLessThan(0.06);
  expect(own!.own_binds!.stroke).toBeGreaterThan(0.95);
  expect(own!.missing).toEqual(['roll']);
  expect(ownFigures(tunes, { ...learnt, attempts: 0 }, limits)[0]).toMatchObject({ own_ceiling: null, missing: null });
});

test('a measured limit is believed against a few attempts, a guess is not', () => {
  const rows = Array.from({ length: 12 }, (_, i) => row({ bpm: 130, clean: i % 2 === 0 }));
  const measured = limitsWith({ strokeMs: { value: 85, source: 'measured' } });
  const guessed = learnPlayer([stretch()], rows, limits).kinds.stroke!;
  const told = learnPlayer([stretch()], rows, measured).kinds.stroke!;
  expect(guessed.mean).toBeGreaterThan(0.15);
  expect(told.mean).toBeLessThan(0.75 * guessed.mean);
});
