import { setLocks } from '#core/bowing';
import type { Tune } from '#core/tune';
import { cases } from '../testing/share';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { linkEditsOf, type Mend } from './mend';
import { mendTune } from './mendTune';
import { reportTune } from './report';

const AA = (line: string) => tune([part('A', line)], { form: ['A', 'A'] });
const mend = (plan: Tune, offered: Mend) => mendTune(plan, offered, { ids: [] });
const locksIn = (plan: Tune) => reportTune(plan).findings.filter(({ code }) => code === 'lock-contradicted');

test('a retake alone would flip the repeat, so the note after is turned back with it', () => {
  // Slow enough for a retake to have its time.
  const plan = setLocks({ ...AA('D4 E4 F#4 G4 A4 G4 F#4 E4'), tempoBpm: 50 }, ['A2'], 'down');
  const [finding] = locksIn(plan);
  expect(finding).toMatchObject({ lock: 'down', passes: ['A1', 'A2'] });
  const [first] = finding!.mends;
  expect(first).toMatchObject({ deed: 'retake', comesRound: true });
  expect(linkEditsOf(first!)).toHaveLength(2);
  expect(locksIn(mend(plan, first!))).toEqual([]);
});

test('beginning on the other bow is offered where it brings the lock out', () => {
  const [finding] = locksIn({ ...setLocks(AA('D4 E4 F#4 G4'), ['A2'], 'down'), start: 'down' });
  expect(finding!.mends.map(({ deed }) => deed)).toContain('start');
});

test('on tunes with locks at random, every mend offered ends its conflict on all passes and makes no other', () => {
  let tried = 0;
  const seeds = Math.max(6, cases(14));
  for (let seed = 1; seed <= seeds; seed++) {
    const random = seeded(seed + 1000);
    const plain = randomTune(seed);
    const ids = plain.parts.flatMap(({ events }) =>
      events.flatMap((event) => (event.kind === 'note' ? [event.id] : [])),
    );
    const plan = setLocks(
      plain,
      ids.filter(() => random() < 0.1),
      random() < 0.5 ? 'down' : 'up',
    );
    const before = locksIn(plan);
    for (const { ids: locked, mends } of before)
      for (const offered of mends.filter(({ deed }) => deed !== 'unlock')) {
        const mended = mend(plan, offered);
        const left = locksIn(mended);
        expect({ seed, left: left.some(({ ids: [id] }) => id === locked[0]) }).toEqual({ seed, left: false });
        expect(left.length).toBeLessThan(before.length);
        expect(reportTune(mended).figures.ledger.comesRound).toBe(offered.comesRound);
        tried += 1;
      }
  }
  expect(tried).toBeGreaterThan((25 / 14) * seeds);
});
