import { setLinks } from '#core/bowing';
import type { Direction, Tune, TuneEvent } from '#core/tune';
import { cases } from '../testing/share';
import { part, randomTune, tune } from '../testing/tunes';
import type { LinkEdit } from './edits';
import { FINDING_CODES } from './finding';
import { FINDERS } from './findings';
import { linkEditsOf } from './mend';
import { reportTune } from './report';

const withMend = (t: Tune, edits: readonly LinkEdit[]) =>
  reportTune(edits.reduce((edited, { id, link, pass }) => setLinks(edited, new Map([[id, link]]), pass), t));

test('what a mend of the round promises is what the report says once it is made', () => {
  let tried = 0;
  for (let seed = 1; seed <= cases(120); seed++) {
    const t = randomTune(seed);
    for (const { code, mends } of reportTune(t).findings) {
      if (code !== 'part-flips' && code !== 'tune-flips-again') continue;
      for (const mend of mends) {
        const after = withMend(t, linkEditsOf(mend));
        expect([seed, after.figures.ledger.comesRound]).toEqual([seed, mend.comesRound]);
        expect([seed, after.figures.ledger.flippedParts]).toEqual([seed, mend.flippedParts]);
        expect(after.figures.check.ceiling?.ceilingBpm ?? Infinity).toBeCloseTo(mend.ceilingBpm ?? Infinity, 9);
        tried += 1;
      }
    }
  }
  expect(tried).toBeGreaterThan(cases(100));
});

test('two parts that flip are mended by one link in each, and the mend says so', () => {
  const odd = 'D4 F#4 A4 D5 F#5 A5 F#5';
  const t = tune([part('A', odd), part('B', odd)], { form: ['A', 'A', 'B', 'B'], meter: { num: 7, den: 8 } });
  const findings = reportTune(t).findings.filter(({ code }) => code === 'part-flips');
  expect(findings).toHaveLength(2);
  for (const { mends } of findings) {
    const [mend] = mends;
    expect(linkEditsOf(mend!)).toHaveLength(2);
    expect(mend).toHaveProperty('also');
    expect(mend!.comesRound).toBe(true);
    expect(withMend(t, linkEditsOf(mend!)).findings.map(({ code }) => code)).not.toContain('part-flips');
  }
});

function locked(locks: Readonly<Record<string, Direction>>): Tune {
  const t = tune([part('A', 'D4 E4 D4 E4 D4 E4 D4')], { start: 'down', meter: { num: 7, den: 8 } });
  const lockOf = (event: TuneEvent) =>
    event.kind === 'note' && locks[event.id] ? { ...event, lock: locks[event.id]! } : event;
  return { ...t, parts: t.parts.map((item) => ({ ...item, events: item.events.map(lockOf) })) };
}
const roundMendsOf = (t: Tune) => reportTune(t).findings.find(({ code }) => code === 'tune-flips-again')!.mends;

test('mends that leave the locks as they are go before those that disturb as little but do not', () => {
  // All strokes are locked as they go up to the fifth note: only a link behind it leaves them so.
  const mends = roundMendsOf(locked({ A4: 'up', A5: 'down' }));
  expect(mends.map((mend) => linkEditsOf(mend)[0]!.id)).toEqual(['A6', 'A7']);
  expect(mends.some((mend) => 'disturbs' in mend && mend.disturbs?.includes('lock-contradicted'))).toBe(false);
});

test('where every mend contradicts a lock, each says so', () => {
  const mends = roundMendsOf(locked({ A7: 'down' }));
  expect(mends).toHaveLength(3);
  for (const mend of mends) expect(mend).toHaveProperty('disturbs', expect.arrayContaining(['lock-contradicted']));
});

test('a tune with parts of rests is judged like any other, also where one is the last thing played', () => {
  for (const form of [['A', 'B', 'A', 'B'], ['B', 'A'], ['B']]) {
    const report = reportTune(tune([part('A', 'D4:2 E4:2 F#4:4'), part('B', 'z:8')], { form }));
    for (const finding of report.findings) expect('part' in finding ? finding.part : 'A').toBe('A');
  }
});

test('every kind of finding is looked for by one finder, in the order in which it is told', () => {
  expect(FINDERS.flatMap(({ codes }): readonly string[] => codes)).toEqual(FINDING_CODES);
  expect(new Set(FINDING_CODES).size).toBe(FINDING_CODES.length);
});
