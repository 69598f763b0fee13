import { reportTune, type TuneReport } from '#core/report';
import { findLilt } from '#core/tempo';
import type { NoteEvent, NoteMark, Tune } from '#core/tune';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import {
  applyChanges,
  ceilingAbout,
  type Change,
  changesAt,
  gainsAt,
  goTogether,
  reportWith,
  tightSpots,
} from './changes';
import { makeItStand, Pool } from './stand';
import { troubleCurve, TROUBLES } from './trouble';

/** Eight notes with slurs over strings, hops, drones and ornaments. */
function crowded(seed: number): Tune {
  const random = seeded(seed);
  const pitches = ['G3', 'B3', 'D4', 'F#4', 'A4', 'C#5', 'E5', 'G5', 'B4', 'C5'];
  const events = part(
    'A',
    Array.from({ length: 8 }, () => `${pitches[Math.floor(random() * pitches.length)]}:1`).join(' '),
  ).events.map((event, i) => {
    if (event.kind !== 'note') return event;
    const marks: NoteMark[] = ['cut', 'roll', 'flick', 'pulse'];
    const more: Partial<NoteEvent> = {
      link: i > 1 && random() < 0.4 ? 'slur' : random() < 0.1 ? 'retake' : 'change',
      ...(random() < 0.2 ? { marks: [marks[Math.floor(4 * random())]!] } : {}),
      ...(random() < 0.2 ? { drone: random() < 0.5 ? ('lower' as const) : ('upper' as const) } : {}),
    };
    return { ...event, ...more };
  });
  return tune([{ name: 'A', events }], { form: ['A'] });
}

const ceilingOf = (report: TuneReport) => report.figures.check.ceiling?.ceilingBpm ?? Infinity;

/** The best of all sets of the pool, by trying every one. */
function bruteForce(report: TuneReport, bpm: number, pool: readonly Change[]) {
  let best: { count: number; lost: boolean; cost: number } | null = null;
  for (let set = 0; set < 1 << pool.length; set++) {
    const changes = pool.filter((_, i) => set & (1 << i));
    if (best && changes.length > best.count) continue;
    if (changes.some((a, i) => changes.slice(i + 1).some((b) => !goTogether(a, b)))) continue;
    const after = changes.length > 0 ? reportWith(report, changes) : report;
    if (ceilingOf(after) < bpm * (1 - 1e-9)) continue;
    const lost = report.figures.ledger.comesRound && !after.figures.ledger.comesRound;
    const cost = changes.reduce((sum, change) => sum + change.cost, 0);
    const isBetter =
      !best ||
      changes.length < best.count ||
      (changes.length === best.count && (Number(lost) - Number(best.lost) || cost - best.cost) < 0);
    if (isBetter) best = { count: changes.length, lost, cost };
  }
  return best;
}

describe('making it stand', () => {
  test('equals trying every set of changes, on small cases', () => {
    let compared = 0;
    let reached = 0;
    for (let seed = 1; seed <= 60 && compared < 24; seed++) {
      const report = reportTune(crowded(seed), { bpm: 109 });
      const wished = ceilingOf(report) * 1.35;
      const pool = new Pool(report, wished).changes;
      if (!Number.isFinite(wished) || pool.length === 0 || pool.length > 10) continue;
      compared += 1;
      const found = makeItStand(report, wished);
      const best = bruteForce(report, wished, pool);
      expect(found.reached).toBe(best !== null);
      if (!best) continue;
      reached += 1;
      expect(found.isProven).toBe(true);
      expect(found.changes.length).toBe(best.count);
      expect(found.changes.reduce((sum, change) => sum + change.cost, 0)).toBe(best.cost);
      expect(report.figures.ledger.comesRound && !found.comesRound).toBe(best.lost);
    }
    expect(compared).toBeGreaterThanOrEqual(20);
    expect(reached).toBeGreaterThanOrEqual(8);
  });

  test('what it promises the report of the changed tune has, with a lilt too', () => {
    for (const name of ['straight', 'dotted'])
      for (const seed of [1, 2, 3, 4]) {
        const of = randomTune(seed);
        const report = reportTune(of, { lilt: findLilt(name)! });
        const wished = 1.1 * ceilingOf(report);
        const found = makeItStand(report, wished, { mostTrials: 150 });
        const after = reportTune(applyChanges(of, found.changes), { lilt: findLilt(name)! });
        expect(after.figures.check.ceiling?.ceilingBpm ?? null).toEqual(
          found.ceilingBpm === null ? null : (expect.closeTo(found.ceilingBpm, 6) as number),
        );
        if (found.reached) expect(ceilingOf(after)).toBeGreaterThanOrEqual(wished * (1 - 1e-9));
        else expect(found.stays!.ceilingBpm).toBeLessThan(wished);
      }
  });

  test('a tune that stands already needs nothing', () => {
    const report = reportTune(tune([part('A', 'D4:4 E4:4')]));
    expect(makeItStand(report, 60)).toMatchObject({ reached: true, changes: [], isProven: true });
  });

  test('where nothing helps a place it says which', () => {
    const report = reportTune(tune([part('A', 'G3:0.5 E5:0.5 G3:0.5 E5:0.5 D4:6')]));
    const found = makeItStand(report, 390);
    expect(found).toMatchObject({ reached: false, isProven: false });
    expect(found.stays).not.toBeNull();
  });

  test('given up early it has what is best so far, and does not call it proven', () => {
    const report = reportTune(crowded(3));
    const wished = 1.2 * ceilingOf(report);
    expect(makeItStand(report, wished).reached).toBe(true);
    const told: number[] = [];
    const found = makeItStand(report, wished, { mostTrials: 1, onTrial: (tried) => told.push(tried) });
    expect([found.reached, found.isProven]).toEqual([false, false]);
    expect(found.tried).toBeGreaterThan(0);
    expect(told).toEqual(Array.from({ length: found.tried }, (_, i) => i + 1));
  });
});

describe('what changes buy', () => {
  test('each gain is what the report of the changed tune says, and lifts its place', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const report = reportTune(crowded(seed), { bpm: 109 });
      const gains = gainsAt(report, tightSpots(report).slice(0, 6));
      for (const { change, ceilingBpm, hereBpm, place, comesRound } of gains) {
        const after = reportTune(applyChanges(report.tune, [change]), { bpm: 109 });
        expect(after.figures.check.ceiling?.ceilingBpm ?? null).toEqual(
          ceilingBpm === null ? null : (expect.closeTo(ceilingBpm, 6) as number),
        );
        expect(hereBpm ?? Infinity).toBeGreaterThan(place.ceilingBpm);
        expect(after.figures.ledger.comesRound).toBe(comesRound);
        expect(ceilingAbout(after, change.id)).toBeGreaterThanOrEqual(ceilingAbout(report, change.id) - 1e-6);
      }
      const ceilings = gains.map(({ ceilingBpm }) => ceilingBpm ?? Infinity);
      expect([...ceilings].sort((a, b) => b - a)).toEqual(ceilings);
    }
  });

  test('an ornament is left off, a drone taken off, a slur over strings split, a retake turned', () => {
    const deedsAt = (t: Tune) => {
      const report = reportTune(t, { bpm: 200 });
      return new Set(tightSpots(report).flatMap((place) => changesAt(report, place).map(({ deed }) => deed)));
    };
    const line = part('A', 'D4 (F#4 E5) D4 G4');
    const edit = (id: string, more: Partial<NoteEvent>) =>
      tune([
        {
          ...line,
          events: line.events.map((event) => (event.id === id ? ({ ...event, ...more } as NoteEvent) : event)),
        },
      ]);
    expect(deedsAt(edit('A2', {}))).toContain('split');
    expect(deedsAt(edit('A4', { marks: ['roll'] }))).toContain('leave-off');
    expect(deedsAt(edit('A3', { drone: 'lower' }))).toContain('no-drone');
    expect(deedsAt(edit('A5', { link: 'retake' }))).toContain('turn');
  });

  test('links that are set for one pass are left alone', () => {
    const line = part('A', 'D4 E5 D4 E5');
    const t = tune([
      {
        ...line,
        events: line.events.map((event) =>
          event.id === 'A2' ? ({ ...event, linkOnPass: { 2: 'slur' } } as NoteEvent) : event,
        ),
      },
    ]);
    const report = reportTune(t, { bpm: 300 });
    for (const place of tightSpots(report))
      for (const { deed, id } of changesAt(report, place)) if (id === 'A2') expect(deed).toBe('refinger');
  });
});

describe('trouble against tempo', () => {
  test('is what a report at each tempo counts', () => {
    for (const lilt of ['straight', 'dotted', 'snapped'])
      for (let seed = 1; seed <= 6; seed++) {
        const t = crowded(seed);
        const bpms = [40, 80, 120, 160, 240];
        const curve = troubleCurve(reportTune(t, { lilt: findLilt(lilt)! }), bpms);
        for (const { bpm, all, ...groups } of curve) {
          const { unrolled, figures } = reportTune(t, { lilt: findLilt(lilt)!, bpm });
          const failing = new Set<string>();
          for (const [i, events] of figures.check.events.entries())
            for (const { kind, availableMs, neededMs } of events)
              if (availableMs < neededMs) failing.add(`${unrolled.notes[i]!.note.id} ${kind}`);
          expect(all).toBe(failing.size);
          expect(TROUBLES.reduce((sum, group) => sum + groups[group], 0)).toBe(all);
        }
      }
  });

  test('places are told once, the tightest first', () => {
    const report = reportTune(tune([part('A', 'D4 A4 D4 A4')], { form: ['A', 'A'] }));
    const places = tightSpots(report);
    expect(new Set(places.map(({ id, kind }) => `${id} ${kind}`)).size).toBe(places.length);
    expect(places[0]!.ceilingBpm).toBeCloseTo(ceilingOf(report), 9);
    expect(tightSpots(report, places[0]!.ceilingBpm)).toEqual([]);
  });
});
