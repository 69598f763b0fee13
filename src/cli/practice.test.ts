import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type PracticeJson, practiceSchema } from '#contract/practice';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { run } from './run';

const dir = mkdtempSync(path.join(tmpdir(), 'morrin-practice-'));
function made(...args: string[]): PracticeJson {
  const { exitCode, stdout, stderr } = run(['practice', ...args, '--json']);
  if (exitCode !== 0) throw new Error(stderr);
  return practiceSchema.parse(JSON.parse(stdout));
}
const demo = readdirSync('demo').map((name) => `demo/${name}`);

test('every demo tune is cut into bites that add up, with an order, a ladder and drills', () => {
  for (const file of demo) {
    const { bites, cuts, objective, order, coverage, ladder, drills } = made(file, '--order', 'most');
    expect(bites.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
    const loads = bites.map(({ newNotes }) => (newNotes === 0 ? 0 : ((newNotes - 8) / 8) ** 2));
    const costs = cuts.filter(({ taken }) => taken).map(({ cost }) => cost);
    expect(objective).toBeCloseTo(
      [...loads, ...costs].reduce((a, b) => a + b, 0),
      9,
    );
    expect([...order].sort()).toEqual(bites.map(({ id }) => id).sort());
    expect(coverage[coverage.length - 1]!.total).toBeCloseTo(1, 6);
    expect(ladder.steps[ladder.steps.length - 1]).toBe(ladder.toBpm);
    expect(drills.length).toBeGreaterThan(4);
  }
});

test('the new notes of a bite are those that are said to be new', () => {
  for (const file of demo) {
    const { bites, isNew } = made(file);
    expect(bites.reduce((sum, { newNotes }) => sum + newNotes, 0)).toBe(Object.values(isNew).filter(Boolean).length);
  }
});

test('a drill is a plan that the report reads', () => {
  const { drills } = made('demo/pewter-sky.abc');
  for (const { stages } of drills)
    for (const { plan, bpm } of stages) expect(reportTune(plan as Tune).settings.bpm).toBeCloseTo(bpm, 6);
});

test('an air goes down to its tempo', () => {
  const { ladder } = made('demo/landing.abc');
  expect(ladder.fromBpm).toBeGreaterThan(ladder.toBpm);
});

test('smaller bites are more bites, and the tempo asked for is where the ladder ends', () => {
  const [few, many] = [made('demo/heron.abc', '--bite', '12'), made('demo/heron.abc', '--bite', '4')];
  expect(many.bites.length).toBeGreaterThan(few.bites.length);
  expect(made('demo/heron.abc', '--tempo', '96').ladder.toBpm).toBe(96);
});

test('a log makes of new bites old ones', () => {
  const { bites } = made('demo/heron.abc');
  const log = path.join(dir, 'log.json');
  const attempts = bites.map(({ part, from, to }) => ({
    at: '2026-03-02T18:04:00Z',
    tune: 'The Heron on the Slipway',
    span: { part, from, to },
    bpm: 80,
    clean: true,
    minutes: 0.5,
  }));
  writeFileSync(log, JSON.stringify({ version: 1, attempts }));
  const kinds = made('demo/heron.abc', '--log', log).session.items.map(({ what }) => what);
  expect(kinds).toContain('ladder');
  expect(kinds).toContain('join');
  expect(kinds).not.toContain('new');
  expect(kinds[kinds.length - 1]).toBe('run-through');
});

test.each([
  [['--order', 'sideways'], /--order: expected start, most, hardest, end, got sideways/],
  [['--bite', 'many'], /--bite: expected a number from 1 to 64, got many/],
  [['--minutes', '0'], /--minutes: expected a number from 1 to 240, got 0/],
])('%j is refused with what was expected', (args, words) => {
  const { exitCode, stderr } = run(['practice', 'demo/heron.abc', ...args]);
  expect([exitCode, words.test(stderr)]).toEqual([2, true]);
});

test('a log that is none is refused by its place', () => {
  const log = path.join(dir, 'wrong.json');
  writeFileSync(log, JSON.stringify({ version: 1, attempts: [{ at: 'yesterday' }] }));
  const { exitCode, stderr } = run(['practice', 'demo/heron.abc', '--log', log]);
  expect(exitCode).toBe(1);
  expect(stderr).toContain('attempts.0.at');
});
