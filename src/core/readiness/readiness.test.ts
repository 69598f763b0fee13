import { reportTune } from '#core/report';
import { cases } from '../testing/share';
import { part, seeded, tune } from '../testing/tunes';
import { demandsOf } from './demands';
import { asDemands, bestFigures, isMissing, missingSkills, type SkillFigures, skillFigures } from './skills';
import { steppingStones, type Stone } from './steppingStones';

test('a bar of eight eighths at 60 half notes a minute asks for four strokes a second', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4 D4 F#4 A4 D5')], { form: ['A', 'A'] }), { bpm: 60 });
  const demands = demandsOf(report);
  const seconds = report.timing.durations.reduce((sum, own) => sum + own, 0);
  expect(demands.strokesPerSecond).toBeCloseTo(16 / seconds, 9);
  expect(demands.tempo).toBe(60);
  expect(demands.strokesPerSecond).toBeCloseTo(4, 9);
  expect(demands.crossingsPerSecond * seconds).toBeCloseTo(
    report.figures.arm.crossings.filter((crossing) => crossing !== null).length,
    9,
  );
  expect(demands).toMatchObject({ twoStringShare: 0, shifts: 0, barres: 0, doublings: 0, ornaments: {} });
});

test('rates go with the tempo, counts, angles and spans do not', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4 D4 F#4 A4 D5')], { form: ['A'] }), { bpm: 60 });
  const [slow, quick] = [demandsOf(report, {}, 60), demandsOf(report, {}, 90)];
  expect(quick.strokesPerSecond / slow.strokesPerSecond).toBeCloseTo(1.5, 9);
  expect(quick.crossingsPerSecond / slow.crossingsPerSecond).toBeCloseTo(1.5, 9);
  expect([quick.widestAngle, quick.widestSpanMm]).toEqual([slow.widestAngle, slow.widestSpanMm]);
});

test('a stretch asks for no more strokes than its own, and the way to its first note is left out', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4 D4 F#4 A4 D5')], { form: ['A'] }), { bpm: 60 });
  const one = demandsOf(report, { first: 1, last: 1 });
  expect(one.crossingsPerSecond).toBe(0);
  expect(one.strokesPerSecond).toBeCloseTo(1 / report.timing.durations[1]!, 9);
});

test('who has shown what a tune needs misses nothing; nearly so is enough; an ornament never played is missing', () => {
  const needs: SkillFigures = { 'tempo 1/2': 110, strokes: 7, angle: 31, span: 60, cut: 4, 'two-strings': 0.3 };
  expect(missingSkills(needs, needs)).toEqual([]);
  const nearly = { 'tempo 1/2': 105, strokes: 6.4, angle: 29, span: 57, cut: 1, 'two-strings': 0.28 };
  expect(missingSkills(needs, nearly)).toEqual([]);
  expect(missingSkills(needs, { ...nearly, 'tempo 1/2': 90, cut: 0 }).map(({ name }) => name)).toEqual([
    'tempo 1/2',
    'cut',
  ]);
  // A tempo in other beats says nothing.
  expect(missingSkills({ 'tempo 1/2': 100 }, { 'tempo 3/8': 120 })).toHaveLength(1);
});

/** The shortest chain by trying every order of every choice. */
function bruteForce(wanted: SkillFigures, shown: SkillFigures, book: readonly Stone[]): number | null {
  let best: number | null = null;
  const visit = (own: SkillFigures, depth: number, left: readonly Stone[]) => {
    if (best !== null && depth >= best) return;
    if (missingSkills(wanted, own).length <= 1) {
      best = depth;
      return;
    }
    for (const stone of left) {
      const missing = missingSkills(stone.needs, own);
      if (missing.length > 1) continue;
      const added = missing.map(({ name, needs }) => [name, needs]);
      visit(
        { ...own, ...Object.fromEntries(added) },
        depth + 1,
        left.filter((other) => other !== stone),
      );
    }
  };
  visit(shown, 0, book);
  return best;
}

test('stepping stones are the shortest chain there is, and each adds one skill', () => {
  const names = ['strokes', 'crossings', 'cut', 'shift', 'angle'];
  for (let seed = 1; seed <= Math.max(60, cases(400)); seed++) {
    const random = seeded(seed);
    const figures = (): SkillFigures =>
      Object.fromEntries(names.flatMap((name) => (random() < 0.6 ? [[name, Math.ceil(4 * random())]] : [])));
    const book = Array.from({ length: 6 }, (_, i): Stone => ({ id: `t${i}`, needs: figures() }));
    const wanted = Object.fromEntries(names.map((name) => [name, 4]));
    const shown = bestFigures([figures(), { strokes: 1 }]);
    const found = steppingStones(wanted, shown, book);
    expect({ seed, length: found?.length ?? null }).toEqual({ seed, length: bruteForce(wanted, shown, book) });
    let own = shown;
    for (const id of found ?? []) {
      const missing = missingSkills(book.find((stone) => stone.id === id)!.needs, own);
      expect(missing).toHaveLength(1);
      own = { ...own, [missing[0]!.name]: missing[0]!.needs };
    }
  }
});

test('a tune that misses one skill needs no stones; one that nothing leads to has none', () => {
  expect(steppingStones({ cut: 1 }, {}, [])).toEqual([]);
  expect(steppingStones({ cut: 1, roll: 1 }, {}, [])).toBeNull();
  expect(steppingStones({ cut: 1, roll: 1 }, {}, [{ id: 'a', needs: { roll: 2 } }])).toEqual(['a']);
});

test('in a book of thousands the chain is there in a moment, not by trying all', () => {
  const random = seeded(5);
  const names = ['strokes', 'crossings', 'cut', 'roll', 'shift', 'barre', 'flick', 'slide', 'pulse', 'snap'];
  const book = Array.from({ length: 3000 }, (_, i): Stone => ({
    id: `t${i}`,
    needs: Object.fromEntries(names.flatMap((name) => (random() < 0.3 ? [[name, 1 + 5 * random()]] : []))),
  }));
  const wanted = Object.fromEntries(names.map((name) => [name, 3]));
  const found = steppingStones(wanted, { strokes: 1 }, book);
  expect(found).not.toBeNull();
  expect(found!.length).toBeGreaterThanOrEqual(9);
});

test('skills are read off demands, none where nothing is asked for', () => {
  const report = reportTune(tune([part('A', 'D4 A4 E5 A4')], { form: ['A'] }), { bpm: 60 });
  const figures = skillFigures(demandsOf(report));
  expect(Object.keys(figures)).not.toContain('shift');
  expect(figures.strokes).toBeGreaterThan(0);
  expect(isMissing('strokes', figures.strokes!, 0)).toBe(true);
  // And back again.
  const demands = demandsOf(report);
  expect(asDemands(figures, demands.beat)).toEqual(demands);
});
