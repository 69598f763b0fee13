import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readinessJsonSchema } from '#contract/readiness';
import { run } from './run';

const dir = mkdtempSync(path.join(tmpdir(), 'morrin-readiness-'));
let files = 0;
const written = (attempts: object[]): string => {
  const file = path.join(dir, `log-${++files}.json`);
  writeFileSync(file, JSON.stringify({ version: 1, attempts }));
  return file;
};
const clean = (tune: string, from: string, to: string, bpm: number) => ({
  at: '2026-03-02T18:04:00Z',
  tune,
  span: { part: 'A', from, to },
  bpm,
  clean: true,
});
const readiness = (file: string, ...args: string[]) =>
  readinessJsonSchema.parse(JSON.parse(run(['readiness', file, ...args, '--json']).stdout));
const HERON = 'The Heron on the Slipway';

test('of an empty log everything that a tune needs is missing, each with its figures and its drill', () => {
  const { demands, shown, missing, steppingStones, isReachable } = readiness(
    'demo/pewter-sky.abc',
    '--log',
    written([]),
  );
  expect(shown).toMatchObject({ tempo: 0, beat: '1/2', strokesPerSecond: 0, ornaments: {} });
  expect(demands.strokesPerSecond).toBeGreaterThan(1);
  expect(missing.find(({ skill }) => skill === 'barre')).toEqual({
    skill: 'barre',
    needs: `${demands.barres} a pass`,
    shown: 'none',
    drill: 'one-finger-across',
  });
  expect({ steppingStones, isReachable }).toEqual({ steppingStones: [], isReachable: false });
});

test('a stretch played clean shows what it asks for; missed or ended in pain it shows nothing', () => {
  const heron = ['--book', 'demo/heron.abc'];
  const played = clean(HERON, 'n1', 'n8', 96);
  const { shown } = readiness('demo/pewter-sky.abc', '--log', written([played]), ...heron);
  expect(shown.tempo).toBe(96);
  expect(shown.strokesPerSecond).toBeGreaterThan(1);
  const hurt = { ...played, pain: { finger: 3, place: null } };
  const none = readiness('demo/pewter-sky.abc', '--log', written([{ ...played, clean: false }, hurt]), ...heron);
  expect(none.shown).toMatchObject({ tempo: 0, strokesPerSecond: 0 });
});

test('a stretch that the plan does not have shows nothing, and is no reason to give nothing', () => {
  const log = written([clean(HERON, 'n1', 'n999', 120)]);
  expect(readiness('demo/heron.abc', '--log', log).shown.tempo).toBe(0);
  expect(run(['readiness', 'demo/heron.abc', '--log', log]).stdout).toMatch(
    /^The Heron on the Slipway: \d+ skills missing/,
  );
});

test('clean attempts whose tunes are not given are told, with how to give them', () => {
  const outcome = run(['readiness', 'demo/pewter-sky.abc', '--log', written([clean(HERON, 'n1', 'n8', 96)])]);
  expect(outcome.stderr).toContain('1 clean attempt left out: give their tunes with --book');
});

test('without a log it tells what was expected', () => {
  expect(run(['readiness', 'demo/heron.abc'])).toMatchObject({
    exitCode: 2,
    stderr: 'readiness: expected --log LOG\n',
  });
});
