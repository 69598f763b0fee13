import { GUESSED_LIMITS, LIMIT_KEYS, type LimitKey, limitsWith } from '#core/tempo';
import { writtenNotes } from '#core/tune';
import { seeded } from '../testing/tunes';
import { drillCeiling, drillFor, DRILLS, drillTune, measuredLimit, slowestBow } from './drills';
import { beginLadder, climb } from './ladder';

test('every limit but the slowest bow has its drill', () => {
  expect(DRILLS.map(({ key }) => key).sort()).toEqual(
    LIMIT_KEYS.filter((key) => key !== 'slowestBowCmPerSecond').sort(),
  );
  expect(drillFor('slowestBowCmPerSecond')).toBeNull();
});

describe.each(DRILLS)('the drill for $key', (drill) => {
  test('fills its bar, and its notes can be fingered as asked', () => {
    const notes = writtenNotes(drillTune(drill));
    expect(notes.reduce((sum, { duration }) => sum + duration.n / duration.d, 0)).toBeCloseTo(1, 12);
  });

  test('at the tempo at which it is just possible it gives the limit back', () => {
    const limits = limitsWith();
    const bpm = drillCeiling(drill, { limits });
    expect(bpm).toBeGreaterThan(20);
    expect(bpm).toBeLessThan(600);
    expect(measuredLimit(drill, bpm, { limits })).toBeCloseTo(GUESSED_LIMITS[drill.key], 1);
  });

  test('what was measured makes the drill just possible at the tempo that was reached', () => {
    const random = seeded(drill.key.length);
    for (let round = 0; round < 5; round++) {
      const limits = limitsWith();
      const bpm = drillCeiling(drill, { limits }) * (0.85 + 0.3 * random());
      const value = measuredLimit(drill, bpm, { limits });
      const measured = limitsWith({ [drill.key]: { value, source: 'measured' } } as Record<LimitKey, never>);
      if (value > 0.05) expect(drillCeiling(drill, { limits: measured }) / bpm).toBeCloseTo(1, 2);
    }
  });
});

test('a bow over the whole hair in nine seconds is seven centimetres a second', () => {
  expect(slowestBow(63, 9)).toBe(7);
});

describe('a ladder', () => {
  /** A player who manages everything up to a tempo. */
  const climbAs = (most: number, guess: number) => {
    let ladder = beginLadder(guess);
    for (let i = 0; i < 200 && !ladder.isDone; i++) ladder = climb(ladder, ladder.bpm <= most);
    return ladder;
  };

  test.each([60, 90, 120, 200])('finds what a player manages up to %i, within a step of 5 percent', (most) => {
    const { cleanAt, isDone } = climbAs(most, 100);
    expect(isDone).toBe(true);
    expect(cleanAt!).toBeLessThanOrEqual(most);
    expect(cleanAt! * 1.05).toBeGreaterThan(most);
  });

  test('one miss is not the end, two are; before anything was clean it goes slower', () => {
    const first = climb(beginLadder(100), false);
    expect(first).toMatchObject({ bpm: 70, misses: 1, isDone: false });
    expect(climb(first, false)).toMatchObject({ bpm: 56, misses: 0, isDone: false });
    const clean = climb(beginLadder(100), true);
    expect(climb(climb(clean, false), false)).toMatchObject({ cleanAt: 70, isDone: true });
  });

  test('it ends at the ends of what can be played, and stays ended', () => {
    const never = climbAs(0, 100);
    expect(never).toMatchObject({ cleanAt: null, isDone: true, bpm: 20 });
    const always = climbAs(1000, 300);
    expect(always).toMatchObject({ cleanAt: 400, isDone: true });
    expect(climb(always, true)).toBe(always);
  });
});
