import { compare, subtract, toNumber } from '#core/base';
import { reportTune, type TuneReport } from '#core/report';
import { occurrencesOf, type Tune } from '#core/tune';
import { inventedTune } from '../testing/books';
import { some } from '../testing/share';
import { part, seeded, tune } from '../testing/tunes';
import { CUT_COSTS, cutSegment } from './bites';
import { newNotes } from './newNotes';
import { practicePlan } from './practicePlan';
import { type Segment, segmentsOf } from './segments';

const REEL = 'D4 (F#4 A4) F#4 D4 A4 (F#4 A4) | B4 (A4 F#4) A4 D5 (A4 F#4) E4';
const reportOf = (line: string, more: Partial<Tune> = {}) =>
  reportTune(tune([part('A', line)], { form: ['A', 'A'], ...more }));
const SEEDS = some(
  Array.from({ length: 40 }, (_, i) => i + 1),
  3,
);

/** Every way to cut a segment, weighed by hand from what the cutting prints. */
function bestByHand(segment: Segment, report: TuneReport, notesABite: number): number {
  const learnt = newNotes(report);
  const all = cutSegment(segment, report, learnt, { notesABite });
  const ids = all.cuts.map(({ before }) => before);
  let best = Infinity;
  for (let set = 0; set < 1 << ids.length; set++) {
    const given = new Set(ids.filter((_, i) => set & (1 << i)));
    const { spans, cuts } = cutSegment(segment, report, learnt, { notesABite, given });
    // A set with places too close to each other is none.
    if (cuts.filter(({ taken }) => taken).length !== given.size) continue;
    const { unrolled } = report;
    const isShort = spans.every(({ first, last }) => {
      const { onset, duration } = unrolled.notes[last]!;
      const bars = (toNumber(onset) + toNumber(duration) - toNumber(unrolled.notes[first]!.onset)) / 1;
      return bars <= 4 + 1e-9;
    });
    if (!isShort) continue;
    const bites = spans.map(({ newNotes: load }) => (load === 0 ? 0 : ((load - notesABite) / notesABite) ** 2));
    const sum = [...bites, ...cuts.filter(({ taken }) => taken).map(({ cost }) => cost)].reduce((a, b) => a + b, 0);
    best = Math.min(best, sum);
  }
  return best;
}

test('the cuts are those of least cost: as good as the best of all ways to cut', () => {
  for (const seed of SEEDS) {
    const random = seeded(seed);
    const letters = ['D4', 'E4', 'F#4', 'G4', 'A4', 'B4', 'D5'];
    const bars = Array.from({ length: 2 }, () =>
      Array.from({ length: 4 }, () => {
        const [a, b] = [0, 1].map(() => letters[Math.floor(random() * letters.length)]!);
        return random() < 0.4 ? `(${a} ${b})` : `${a} ${b}`;
      }).join(' '),
    );
    const report = reportOf(bars.join(' | '));
    const [segment] = segmentsOf(report.tune, report.unrolled) as [Segment];
    const notesABite = 3 + (seed % 5);
    const { objective } = cutSegment(segment, report, newNotes(report), { notesABite });
    expect([seed, objective]).toEqual([seed, expect.closeTo(bestByHand(segment, report, notesABite), 9)]);
  }
});

test('the objective is what is printed: the loads of bites and the costs of taken cuts', () => {
  for (const seed of SEEDS) {
    const { bites, cuts, objective } = practicePlan(reportTune(inventedTune(seed)));
    const loads = bites.map(({ newNotes: load }) => (load === 0 ? 0 : ((load - 8) / 8) ** 2));
    const costs = cuts.filter(({ taken }) => taken).map(({ terms }) => terms.place + terms.crossing + terms.flips);
    expect(objective).toBeCloseTo(
      [...loads, ...costs].reduce((a, b) => a + b, 0),
      9,
    );
  }
});

test('no cut parts a stroke, a tie, a tuplet or a closing swell, and none stands within a beat of another', () => {
  for (const seed of SEEDS) {
    const report = reportTune(inventedTune(seed));
    const { unrolled, figures, settings } = report;
    const { cuts, bites } = practicePlan(report);
    for (const { before } of cuts) {
      const met = occurrencesOf(unrolled).get(before)!;
      // A note that is tied to is never the head of a played one.
      expect(met.length).toBeGreaterThan(0);
      for (const index of met) expect(figures.bowed[index]!.inStroke).toBe(1);
      const { note, index } = unrolled.notes[met[0]!]!;
      expect(note.tuplet === undefined || note.tuplet.first === true).toBe(true);
      expect(unrolled.notes[index - 1]!.note.marks ?? []).not.toContain('closing-swell');
    }
    const own = new Set(cuts.map(({ before }) => before));
    for (const bite of bites) {
      const begin = unrolled.notes[bite.first]!.onset;
      if (!own.has(bite.from)) continue;
      const next = unrolled.notes[bite.last + 1];
      if (next && own.has(next.note.id))
        expect(compare(subtract(next.onset, begin), settings.beat)).toBeGreaterThanOrEqual(0);
    }
  }
});

test('bites hold every note that is played, each once', () => {
  for (const seed of SEEDS) {
    const report = reportTune(inventedTune(seed));
    const { bites } = practicePlan(report);
    const ids = bites.flatMap(({ first, last }) =>
      report.unrolled.notes.slice(first, last + 1).map(({ note }) => note.id),
    );
    expect(new Set(ids).size).toBe(ids.length);
    expect([...ids].sort()).toEqual([...new Set(report.unrolled.notes.map(({ note }) => note.id))].sort());
  }
});

test('a figure that comes again is not learnt again, on the same strings or on others', () => {
  const again = reportOf('D4 E4 F#4 G4 A4:4 | D4 E4 F#4 G4 B4:4');
  expect([...newNotes(again).isNew.values()]).toEqual([true, true, true, true, true, false, false, false, false, true]);
  const acrossStrings = reportOf('D4 E4 F#4 G4 z:4 | A4 B4 C#5 D5 z:4');
  expect([...newNotes(acrossStrings).isNew.values()].filter(Boolean)).toHaveLength(4);
  expect(newNotes(acrossStrings).model.get('A6')).toBe('A1');
});

test('own cuts take the place of the best, where they are allowed', () => {
  const report = reportOf(REEL);
  const ids = practicePlan(report).cuts.map(({ before }) => before);
  const { bites } = practicePlan(report, { given: new Set([ids[0]!, 'nowhere']) });
  expect(bites).toHaveLength(2);
  expect(bites[1]!.from).toBe(ids[0]);
  expect(practicePlan(report, { given: new Set() }).bites).toHaveLength(1);
});

test('a cut on the bar line costs less than one on a beat, and one off the beat most', () => {
  const report = reportOf('D4 E4 F#4 G4 A4 A4 A4 A4 | D4 E4 F#4 G4 A4 A4 A4 A4');
  const places = practicePlan(report).cuts.map(({ terms }) => terms.place);
  expect(places.filter((place) => place === CUT_COSTS.barLine)).toHaveLength(1);
  expect(places.filter((place) => place === CUT_COSTS.beat)).toHaveLength(2);
  expect(places).toContain(CUT_COSTS.offBeat);
});

test('a bite tells what it is looped, how it is entered, and what it takes of the whole', () => {
  const report = reportOf(REEL);
  const { bites } = practicePlan(report, { given: new Set() });
  const [bite] = bites as [(typeof bites)[0]];
  expect(bite).toMatchObject({ part: 'A', ending: null, from: 'A1', plays: 2, notes: 16, strokes: 12, turns: 12 });
  expect(bite.loop).toBe('returns');
  expect(bite.entry).toEqual({ A1: 'down', A2: 'down' });
  expect(bite.share).toBeCloseTo(1, 9);
  expect(bite.seconds).toBeCloseTo(report.timing.total / 2, 6);
});
