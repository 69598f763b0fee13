import highs from 'highs';
import { fraction } from '#core/base';
import { reportTune, type TuneReport } from '#core/report';
import { DEFAULT_SCHOOLS } from '#core/schools';
import { type Direction, type Part, type Tune, writtenNotes } from '#core/tune';
import { integerProgram } from '../testing/integerProgram';
import { cases, some } from '../testing/share';
import { bar, note, part, randomTune, seeded, tune } from '../testing/tunes';
import { alikeBowing, equalBars, unlikeBars } from './alikeBars';
import {
  adoptBowing,
  barsOfNotes,
  bestBowings,
  type Bowing,
  chainTables,
  differingBowings,
  reallyDiffer,
} from './bestBowings';
import { bowingTerms, planFigures, proposeBowings, reportOn } from './candidates';
import { idiomOf } from './idioms';
import { bestOfMixed } from './mixedBest';
import { type Choice, CHOICES, type SearchModel, searchModel, type SearchOptions } from './model';
import { COST_WEIGHTS, DEFAULT_WISHES, MAX_IN_STROKE, MILLIONTHS, type StyleWishes } from './wishes';

const PITCHES = ['G3', 'D4', 'F#4', 'A4', 'B4', 'D5', 'E5', 'G5'];

/** A short tune at random: one part or two, repeats and endings at times, one pitch after itself now and then. */
function shortTune(seed: number, notes: number): Tune {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const isTwoParts = notes > 8 && random() < 0.5;
  const hasEndings = random() < 0.4;
  let count = 0;
  const events = (many: number) =>
    Array.from({ length: many }, () => note(`n${++count}`, pick(PITCHES), pick([1, 1, 1, 2]), { link: pick(CHOICES) }));
  const partOf = (name: string, many: number): Part => {
    if (!hasEndings || many < 4) return { name, events: [bar(`${name}b`), ...events(many)] };
    const ending = (play: number) => bar(`${name}e${play}`, { ending: true, onPlays: [play] });
    return {
      name,
      events: [bar(`${name}b`), ...events(many - 2), ending(1), ...events(1), ending(2), ...events(1)],
    };
  };
  const parts = isTwoParts
    ? [partOf('A', Math.floor(notes / 2)), partOf('B', Math.ceil(notes / 2))]
    : [partOf('A', notes)];
  const form = parts.flatMap(({ name }) => (random() < 0.6 ? [name, name] : [name]));
  return tune(parts, { form });
}

function randomWishes(seed: number): StyleWishes {
  const random = seeded(seed + 99);
  const share = () => Math.round(random() * 100) / 100;
  return {
    shuffle: share(),
    smooth: share(),
    downbeat: random() < 0.5 ? 'down' : 'free',
    acrossBeat: random() < 0.5 ? 'avoid' : 'free',
    slurAcrossStrings: random() < 0.5,
    likeness: share(),
  };
}

interface Tried {
  readonly start: Direction;
  readonly links: readonly Choice[];
  readonly cost: number;
}

/** Every bowing of a tune in which all passes agree, tried one by one on the tune as played; the K cheapest. */
function tryAll(model: SearchModel, count: number): Tried[] {
  const { notes } = model.report.unrolled;
  const ids = model.ids.flat();
  const numberOf = new Map(ids.map((id, i) => [id, i]));
  const choices = model.chains.flatMap(({ length }, j) => Array.from({ length }, (_, k) => model.choicesAt(j, k)));
  const heads = new Map(model.chains.flatMap(({ starts }, j) => starts.map((start) => [start, j] as const)));
  const known = new Map<number, number>();
  const noteCost = (i: number, choice: number, up: number) => {
    const key = (i * 4 + choice) * 2 + up;
    let cost = known.get(key);
    if (cost === undefined) {
      const terms = model.noteTerms(i, CHOICES[choice]!, up ? 'up' : 'down');
      cost = Object.values(terms).reduce((sum, term) => sum + term, 0);
      known.set(key, cost);
    }
    return cost;
  };
  const strokes = new Map<string, { cost: number; cell: number }>();
  const strokeCost = (i: number, notesIn: number, up: number, cell: number, chain: number, k: number) => {
    const key = `${i} ${notesIn} ${up} ${cell}`;
    let found = strokes.get(key);
    if (!found) {
      const { starts, length } = model.chains[chain]!;
      const landing = model.land(starts[0]! + k, notesIn, up ? 'up' : 'down', cell, k + notesIn === length);
      found = { cost: landing.cost + (model.strokeTerms(i, notesIn).tempo ?? 0), cell: landing.cell };
      strokes.set(key, found);
    }
    return found;
  };
  const costOf = (links: readonly number[], start: number): number | null => {
    const met = new Map<number, number>();
    let up = start;
    let cost = 0;
    let stroke = { first: 0, notes: 0, cell: 0 };
    let [chain, chainFrom] = [0, 0];
    const end = () => {
      const done = strokeCost(stroke.first, stroke.notes, up, stroke.cell, chain, stroke.first - chainFrom);
      cost += done.cost;
      return done.cell;
    };
    for (let i = 0; i < notes.length; i++) {
      const n = numberOf.get(notes[i]!.note.id)!;
      const link = CHOICES[links[n]!]!;
      const stays = link === 'slur' || link === 'hook';
      const landed = i > 0 && !stays ? end() : 0;
      if (i > 0 && link === 'change') up = 1 - up;
      if ((met.get(n) ?? up) !== up) return null;
      met.set(n, up);
      cost += noteCost(i, links[n]!, up);
      const isHead = heads.has(i);
      if (isHead) [chain, chainFrom] = [heads.get(i)!, i];
      if (stays) stroke.notes += 1;
      else
        stroke = {
          first: i,
          notes: 1,
          cell: isHead || link === 'retake' ? model.home(up ? 'up' : 'down') : landed,
        };
      if (stroke.notes > MAX_IN_STROKE) return null;
    }
    end();
    // Coming back to the first note is a turn.
    return 1 - up === start ? cost : null;
  };
  const best: { key: string; tried: Tried }[] = [];
  const visit = (links: number[], start: number) => {
    if (links.length === ids.length) {
      const cost = costOf(links, start);
      if (cost === null || (best.length === count && cost > best[count - 1]!.tried.cost)) return;
      const tried = { start: start ? ('up' as const) : ('down' as const), links: links.map((l) => CHOICES[l]!), cost };
      best.push({ key: `${start}${links.join('')}`, tried });
      best.sort((a, b) => a.tried.cost - b.tried.cost || (a.key < b.key ? -1 : 1));
      best.length = Math.min(best.length, count);
      return;
    }
    for (const choice of choices[links.length]!) visit([...links, CHOICES.indexOf(choice)], start);
  };
  for (const start of [0, 1]) visit([], start);
  return best.map(({ tried }) => tried);
}

function bowings(found: readonly Bowing[]) {
  return found.map(({ cost, start, links }) => ({
    cost,
    start,
    links: [...links.values()].map((link) => (link === 'start' ? 'change' : link)),
  }));
}

function modelOf(played: Tune, wishes: StyleWishes = DEFAULT_WISHES, options?: SearchOptions): SearchModel {
  return searchModel(reportTune(played), wishes, options);
}

test.each(Array.from({ length: cases(14) }, (_, i) => i + 1))(
  'the ten best bowings of nine notes with four links are those of trying all, ties included (seed %i)',
  (seed) => {
    const model = modelOf(shortTune(seed, 9), randomWishes(seed), { cellCm: 6 });
    expect(bowings(bestBowings(model, 10))).toEqual(tryAll(model, 10));
  },
);

test.each(Array.from({ length: cases(14) }, (_, i) => i + 101))(
  'so are those of twelve notes that are slurred or not (seed %i)',
  (seed) => {
    const model = modelOf(shortTune(seed, 12), randomWishes(seed), { choices: ['change', 'slur'] });
    expect(bowings(bestBowings(model, 10))).toEqual(tryAll(model, 10));
  },
);

test('bowings that cost the same come in the order of their links, turns first, the down-bow before the up-bow', () => {
  const free: StyleWishes = {
    shuffle: 0,
    smooth: 0.5,
    downbeat: 'free',
    acrossBeat: 'free',
    slurAcrossStrings: true,
    likeness: 0,
  };
  // Two parts with the same notes: what is done to one costs the same when it is done to the other.
  const model = modelOf(tune([part('A', 'D4 E4 F#4 G4'), part('B', 'D4 E4 F#4 G4')]), free);
  const found = bestBowings(model, 20);
  expect(bowings(found)).toEqual(tryAll(model, 20));
  expect(new Set(found.map(({ cost }) => cost)).size).toBeLessThan(20);
});

test.each(some([1, 2, 3, 4], 2))(
  'an integer program finds no better bowing of 24 notes (seed %i)',
  async (seed) => {
    const model = modelOf(shortTune(seed + 500, 24), randomWishes(seed), { cellCm: 9 });
    const solver = await highs();
    const solved = solver.solve(integerProgram(model), { mip_rel_gap: 0, mip_abs_gap: 0 });
    expect(solved.Status).toBe('Optimal');
    expect(bestBowings(model, 1)[0]!.cost / MILLIONTHS).toBeCloseTo(solved.ObjectiveValue / MILLIONTHS, 4);
  },
  60_000,
);

test('bars that follow any of three templates: the best of all ways to share them out, each tried by itself', () => {
  const templates = ['pair-first-shuffle', 'one-and-three', 'saw'].map((name) =>
    idiomOf(tune([part('A', 'D4')], { danceType: 'reel' })).templates.find((one) => one.name === name)!,
  );
  const own = [0, 0.7, 0.2].map((points) => points * MILLIONTHS);
  const switchCost = 1.5 * MILLIONTHS;
  for (let seed = 1; seed <= cases(12); seed++) {
    const random = seeded(seed);
    const barOf = () => Array.from({ length: 4 }, () => PITCHES[Math.floor(random() * PITCHES.length)]).join(' ');
    const line = Array.from({ length: 5 }, barOf).join(' | ');
    const played = tune([part('A', line)], { form: ['A', 'A'], meter: { num: 2, den: 4 }, danceType: 'reel' });
    const report = reportTune(played);
    const models = templates.map((template) => searchModel(report, DEFAULT_WISHES, { template, cellCm: 9 }));
    const found = bestOfMixed(
      models[0]!,
      models.map((model) => chainTables(model)),
      own,
      switchCost,
    )!;
    const ids = models[0]!.ids.flat();
    const wanted = templates.map(({ links }) => links(played));
    let least = Infinity;
    for (let code = 0; code < 3 ** 5; code++) {
      const chosen = Array.from({ length: 5 }, (_, bar) => Math.floor(code / 3 ** bar) % 3);
      const links = new Map(ids.map((id, i) => [id, wanted[chosen[Math.floor(i / 4)]!]!.get(id) ?? 'change']));
      const template = { name: 'shared out', points: 0, links: () => links };
      const model = searchModel(report, DEFAULT_WISHES, { template, cellCm: 9 });
      // Two passes; a change is free before the fifth bar, where a phrase begins.
      const more = chosen.reduce(
        (sum, t, bar) => sum + 2 * (own[t]! + (bar % 4 > 0 && chosen[bar - 1] !== t ? switchCost : 0)),
        0,
      );
      const [best] = bestBowings(model, 1);
      least = Math.min(least, best!.cost + more);
    }
    expect({ seed, cost: found.joined.cost }).toEqual({ seed, cost: least });
  }
});

test('with unlike bars counted no bowing is better than what is found by more than its gap', () => {
  let apart = 0;
  for (let seed = 1; seed <= cases(20); seed++) {
    const random = seeded(seed);
    const pick = () => PITCHES[Math.floor(random() * PITCHES.length)];
    const [same, other] = [`${pick()} ${pick()} ${pick()}`, `${pick()} ${pick()}`];
    const played = tune([part('A', `${same} | ${other} ${pick()} | ${same}`)], { meter: { num: 3, den: 8 } });
    const model = modelOf(played, randomWishes(seed), { choices: ['change', 'slur'], cellCm: 6 });
    const groups = equalBars(played);
    const tables = chainTables(model);
    const found = alikeBowing(model, tables, bestBowings(model, 1, tables)[0]!, groups);
    const all = tryAll(model, 1024).map(({ cost, links }) => {
      const byId = new Map(model.ids.flat().map((id, i) => [id, links[i]!]));
      return cost + COST_WEIGHTS.unlikeBars * MILLIONTHS * unlikeBars({ links: byId }, groups);
    });
    const least = Math.min(...all);
    expect(found.cost).toBeGreaterThanOrEqual(least);
    expect(found.cost - found.gap).toBeLessThanOrEqual(least);
    if (found.gap === 0) expect(found.cost).toBe(least);
    else apart += 1;
  }
  expect(apart).toBeLessThan(cases(20));
});

test('what a bowing is said to cost is the sum of its terms, counted on the tune bowed by it', () => {
  for (let seed = 1; seed <= cases(25); seed++) {
    const model = modelOf(randomTune(seed), randomWishes(seed));
    for (const bowing of differingBowings(model, 3)) {
      const terms = Object.values(bowingTerms(model, bowing));
      expect({ seed, cost: terms.reduce((sum, term) => sum + term, 0) }).toEqual({ seed, cost: bowing.cost });
    }
  }
});

test('every proposed bowing is met in one direction on all passes and comes round', () => {
  for (let seed = 1; seed <= cases(60); seed++) {
    const report = reportTune(randomTune(seed));
    for (const bowing of bestBowings(searchModel(report, DEFAULT_WISHES), 3)) {
      const { ledger } = reportOn(report, adoptBowing(report.tune, bowing)).figures;
      expect({ seed, ...ledger, passes: [] }).toMatchObject({ seed, comesRound: true, oneDirection: true });
    }
  }
});

/**
 * A pickup of one note at which the repeat begins again, but not the tune: its last bar is full. After that note the bow is
 * turned, and without it it is not, so that no bowing comes to the first full bar in one direction.
 */
function hasNoWay(model: SearchModel): boolean {
  return model.chains.some(
    ({ from, to, length }, i) => from === to && length === 1 && model.choicesAt(i, 0).join() === 'change',
  );
}

test('a tune that begins again after a pickup of one note, which its repeats come back to, has no bowing', () => {
  const ebb = tune([part('A', 'D4 | E4:8'), part('B', 'F#4:8 | A4:8')], { form: ['A', 'A', 'B', 'B'] });
  const model = modelOf(ebb);
  expect(hasNoWay(model)).toBe(true);
  expect(bestBowings(model, 1)).toEqual([]);
});

test('any two candidates differ in a tenth of the links and in two bars, and none costs less than the best', () => {
  for (let seed = 1; seed <= cases(20); seed++) {
    const model = modelOf(randomTune(seed), randomWishes(seed));
    const barOf = barsOfNotes(model.report);
    const found = differingBowings(model, 5);
    if (hasNoWay(model)) {
      expect(found).toEqual([]);
      continue;
    }
    expect(found[0]!.cost).toBe(bestBowings(model, 1)[0]!.cost);
    for (const [i, one] of found.entries())
      for (const other of found.slice(i + 1)) expect(reallyDiffer(one, other, barOf)).toBe(true);
    expect(found.map(({ cost }) => cost)).toEqual([...found.map(({ cost }) => cost)].sort((a, b) => a - b));
  }
});

test('the same tune gives the same candidates', () => {
  const report = reportTune(randomTune(4));
  expect(proposeBowings(report, DEFAULT_WISHES, 4)).toEqual(proposeBowings(report, DEFAULT_WISHES, 4));
});

test('a locked note keeps its direction wherever any bowing can', () => {
  for (let seed = 1; seed <= cases(20); seed++) {
    const free = randomTune(seed);
    const ids = writtenNotes(free).map(({ id }) => id);
    const locked = withLock(free, ids[Math.floor(ids.length / 2)]!, seed % 2 ? 'up' : 'down');
    const report = reportTune(locked);
    if (hasNoWay(searchModel(report, DEFAULT_WISHES))) continue;
    const [best] = proposeBowings(report, DEFAULT_WISHES, 1);
    expect({ seed, broken: best!.figures.locksContradicted }).toEqual({ seed, broken: 0 });
  }
});

test('a candidate’s figures are those of the report after it is adopted', () => {
  const report = reportTune(randomTune(11));
  for (const candidate of proposeBowings(report, DEFAULT_WISHES, 5)) {
    const after: TuneReport = reportTune(adoptBowing(report.tune, candidate));
    expect({ ...planFigures(after), likeness: candidate.figures.likeness }).toEqual(candidate.figures);
    expect(after.figures.start.direction).toBe(candidate.start);
  }
});

test('adopted for one part, a bowing leaves the links of the other as they were', () => {
  const played = tune([part('A', 'D4 E4 F#4 G4 | A4 B4 A4 F#4'), part('B', 'd5 (e5 f#5) d5 | B4 A4 F#4 D4')], {
    form: ['A', 'A', 'B', 'B'],
  });
  const [best] = proposeBowings(reportTune(played), { ...DEFAULT_WISHES, shuffle: 1, likeness: 0 }, 1);
  const adopted = adoptBowing(played, best!, ['B']);
  expect(adopted.parts[0]).toBe(played.parts[0]);
  expect(adopted.parts[1]).not.toEqual(played.parts[1]);
  expect(adopted.start).toBe(played.start);
});

describe('the terms of the objective', () => {
  // D E F# G on the D string, then A B on the A string: eighths of a reel at 100 half notes a minute.
  const played = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 A4')], { tempoBpm: 100 });
  const wishes: StyleWishes = {
    shuffle: 0,
    smooth: 0.25,
    downbeat: 'down',
    acrossBeat: 'avoid',
    slurAcrossStrings: true,
    likeness: 0.5,
  };
  const model = modelOf(played, wishes);
  const points = (index: number, link: Choice, bow: Direction = 'down') =>
    Object.fromEntries(
      Object.entries(model.noteTerms(index, link, bow)).map(([term, cost]) => [term, cost / MILLIONTHS]),
    );

  test('a stroke begun costs what smoothness asks, a stroke shared the rest of it', () => {
    expect(points(1, 'change').strokes).toBeCloseTo(0.25);
    expect(points(1, 'slur').strokes).toBeCloseTo(0.75);
  });
  test('another link than now costs likeness', () => {
    expect(points(1, 'change').likeness).toBeUndefined();
    // A tune without a slur says nothing yet of how it is bowed.
    expect(points(1, 'slur').likeness).toBeUndefined();
    const slurred = modelOf(tune([part('A', 'D4 E4 (F#4 G4) A4 B4 A4 A4')]), wishes);
    expect(slurred.noteTerms(1, 'slur', 'down').likeness! / MILLIONTHS).toBeCloseTo(0.5);
    expect(slurred.noteTerms(1, 'change', 'down').likeness).toBeUndefined();
  });
  test('an up-bow costs where the dance wants a down-bow: in a reel on one, less on three', () => {
    expect(points(0, 'change', 'up').upBow).toBeCloseTo(COST_WEIGHTS.upBow);
    expect(points(0, 'change', 'down').upBow).toBeUndefined();
    expect(points(1, 'change', 'up').upBow).toBeUndefined();
    expect(points(4, 'change', 'up').upBow).toBeCloseTo(0.3 * COST_WEIGHTS.upBow);
  });
  test('a stroke that begins within a tuplet costs more than leaving the template', () => {
    const third = { duration: fraction(1, 12), link: 'change' as const };
    const tuplet = { notes: 3, inTimeOf: 2 };
    const threes = tune([
      {
        name: 'A',
        events: [
          bar('b'),
          note('n1', 'D4', 1, { ...third, tuplet: { ...tuplet, first: true } }),
          note('n2', 'E4', 1, { ...third, tuplet }),
          note('n3', 'F#4', 1, { ...third, tuplet }),
          note('n4', 'G4', 6),
        ],
      },
    ]);
    const model = searchModel(reportTune(threes), { ...wishes, shuffle: 1 });
    expect(model.noteTerms(1, 'change', 'up').tuplet! / MILLIONTHS).toBe(COST_WEIGHTS.tuplet);
    expect(model.noteTerms(1, 'slur', 'down').tuplet).toBeUndefined();
    expect(COST_WEIGHTS.tuplet).toBeGreaterThan(COST_WEIGHTS.template);
  });
  test('the half bar within a stroke costs where that is to be avoided', () => {
    expect(points(4, 'slur').acrossBeat).toBeCloseTo(COST_WEIGHTS.acrossBeat);
    expect(points(3, 'slur').acrossBeat).toBeUndefined();
  });
  test('a crossing costs within a slur, and at a turn the other way round than a player likes it', () => {
    expect(points(4, 'slur').slurCrossing).toBeCloseTo(COST_WEIGHTS.slurCrossing);
    // Toward the A string: the D before it is drawn the other way than the A.
    expect(points(4, 'change', 'down').reverse).toBeUndefined();
    const report = reportTune(played, { schools: { ...DEFAULT_SCHOOLS, ovals: 'lower-down' } });
    const chosen = searchModel(report, wishes);
    expect(chosen.noteTerms(4, 'change', 'up').reverse).toBeUndefined();
    expect(chosen.noteTerms(4, 'change', 'down').reverse! / MILLIONTHS).toBeCloseTo(COST_WEIGHTS.reverse);
  });
  test('an eighth of 150 ms has room for a crossing of 67 ms at a turn, one of 60 ms lacks some', () => {
    expect(points(4, 'change').tempo).toBeUndefined();
    const quick = modelOf({ ...played, tempoBpm: 250 }, wishes);
    // 60 s / 250 / 4 = 60 ms for what needs 55 + 1.5 · 8 = 67 ms.
    expect(quick.noteTerms(4, 'change', 'down').tempo! / MILLIONTHS).toBeCloseTo(4 * (67 / 60 - 1), 2);
  });
  test('a hook on one pitch has its cause, one between two pitches has none', () => {
    expect(points(7, 'hook').hook).toBeCloseTo(COST_WEIGHTS.hook);
    expect(points(1, 'hook').hook).toBeCloseTo(COST_WEIGHTS.hookWithoutCause);
    expect(model.choicesAt(0, 7)).not.toContain('slur');
  });
  test('a retake costs, and more where half an eighth is too short for it', () => {
    expect(points(1, 'retake').retake).toBeCloseTo(COST_WEIGHTS.retake);
    // Half of 150 ms where 120 ms are needed.
    expect(points(1, 'retake').tempo).toBeCloseTo(4 * (120 / 75 - 1), 5);
  });
  test('a stroke is dearer the further its middle is from the sweet spot, and much dearer off the hair', () => {
    const centre = Math.round(model.report.settings.instrument.sweetSpotCm / 4.5);
    const near = model.land(0, 1, 'down', centre - 1, false).cost;
    expect(model.land(0, 1, 'down', centre + 2, false).cost).toBeGreaterThan(near);
    expect(model.land(0, 8, 'down', model.cells - 1, false).cost).toBeGreaterThan(15 * MILLIONTHS);
    expect(model.land(0, 1, 'down', centre, false).cell).toBeGreaterThan(centre);
    expect(model.land(0, 1, 'up', centre, false).cell).toBeLessThan(centre);
  });
});

test('coarse cells lose little against cells of half a centimetre', () => {
  let [coarse, fine] = [0, 0];
  for (let seed = 1; seed <= 8; seed++) {
    const report = reportTune(shortTune(seed + 300, 24));
    const exact = searchModel(report, DEFAULT_WISHES, { cellCm: 0.5 });
    const [rough] = bestBowings(searchModel(report, DEFAULT_WISHES), 1);
    coarse += Object.values(bowingTerms(exact, rough!)).reduce((sum, term) => sum + term, 0);
    fine += bestBowings(exact, 1)[0]!.cost;
  }
  expect(coarse / fine).toBeGreaterThanOrEqual(1);
  expect(coarse / fine).toBeLessThan(1.02);
});

test('a tune without notes, or of one note that turns round each time, has no bowing that agrees', () => {
  expect(proposeBowings(reportTune(tune([{ name: 'A', events: [bar('b')] }])), DEFAULT_WISHES, 3)).toEqual([]);
  const one = proposeBowings(reportTune(tune([part('A', 'D4:8')], { form: ['A', 'A'] })), DEFAULT_WISHES, 3);
  expect(one).toHaveLength(0);
});

function withLock(free: Tune, id: string, lock: Direction): Tune {
  return {
    ...free,
    parts: free.parts.map((item) => ({
      ...item,
      events: item.events.map((event) => (event.id === id && event.kind === 'note' ? { ...event, lock } : event)),
    })),
  };
}
