import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { abilityJsonSchema, forecastJsonSchema } from '#contract/ability';
import { seeded } from '#core/base';
import { run } from './run';

const dir = mkdtempSync(path.join(tmpdir(), 'morrin-ability-'));
let files = 0;
const written = (log: object): string => {
  const file = path.join(dir, `log-${++files}.json`);
  writeFileSync(file, JSON.stringify({ version: 1, ...log }));
  return file;
};
const SPAN = { part: 'A', from: 'n1', to: 'n8' };
/** A player who is so much better than the limit at strokes. */
function attempts(better: number, count: number): object[] {
  const random = seeded(7);
  return Array.from({ length: count }, (_, i) => {
    const margin = -0.5 + 0.8 * random();
    return {
      at: new Date(Date.UTC(2026, 2, 1) + i * 3_600_000).toISOString(),
      tune: 'A tune from elsewhere',
      span: SPAN,
      bpm: 90,
      clean: random() < 0.96 / (1 + Math.exp(-10 * (margin + better))),
      minutes: 1,
      margins: { stroke: margin },
    };
  });
}
const ability = (...args: string[]) => abilityJsonSchema.parse(JSON.parse(run(['ability', ...args, '--json']).stdout));

test('a log with margins is judged without its tunes; the limit follows, and the ceilings of the tunes given', () => {
  const log = written({ attempts: attempts(0.2, 300) });
  const { kinds, tunes } = ability('--log', log, 'demo/heron.abc', 'demo/pewter-sky.abc');
  expect(Object.keys(kinds)).toEqual(['stroke']);
  expect(Math.abs(kinds.stroke!.mean - 0.2)).toBeLessThan(0.08);
  expect(kinds.stroke!.limitMs).toBeCloseTo(85 / Math.exp(kinds.stroke!.mean), 6);
  expect(kinds.stroke!.attempts).toBe(300);
  expect(tunes.map(({ title }) => title)).toEqual(['The Heron on the Slipway', 'Pewter Sky']);
  for (const { ceiling, binds } of tunes) {
    expect(ceiling!.low).toBeLessThan(ceiling!.median);
    expect(ceiling!.high).toBeGreaterThan(ceiling!.median);
    expect(Object.values(binds).reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
  }
});

test('without attempts nothing is learnt, and each tune has what was thought before', () => {
  const log = written({ attempts: [] });
  expect(ability('--log', log)).toEqual({ kinds: {}, tunes: [] });
  expect(ability('--log', log, 'demo/heron.abc').tunes[0]!.ceiling).not.toBeNull();
  expect(run(['ability', '--log', log]).stdout).toContain('Nothing in the log');
});

test('attempts that neither say their margins nor have their tune there are told, not guessed', () => {
  const [{ margins: _margins, ...bare }] = attempts(0, 1) as [{ margins: object }];
  const outcome = run(['ability', '--log', written({ attempts: [bare] }), 'demo/heron.abc', '--json']);
  expect(outcome.exitCode).toBe(0);
  expect(outcome.stderr).toContain('1 attempt left out');
});

const forecast = (log: string, ...args: string[]) =>
  forecastJsonSchema.parse(JSON.parse(run(['forecast', 'demo/heron.abc', '--log', log, ...args, '--json']).stdout));
const BEST = [20, 40, 60, 80, 100, 120].map((minutes) => ({
  minutes,
  bpm: 104 * Math.exp(-0.4 * Math.exp(-minutes / 60)),
}));

test('the best of each day is enough for a forecast, and few days are told to be few', () => {
  const answer = forecast(written({ best: BEST }), '--wish', '100', '--a-day', '20');
  if ('tooLittle' in answer) throw new Error(answer.tooLittle);
  expect(answer.from).toEqual({ days: 6, minutes: 120 });
  expect(answer.days!.p10).toBeLessThanOrEqual(answer.days!.p50);
  expect(answer.days!.p50).toBeLessThanOrEqual(answer.days!.p90);
  expect(forecast(written({ best: BEST.slice(0, 3) }), '--wish', '100', '--a-day', '20')).toEqual({
    tooLittle: 'fewer than 4 days with a clean tempo',
  });
});

test('attempts at the tune give the best of each day, with the minutes until then; pain is neither', () => {
  const days = BEST.flatMap(({ bpm }, day) => {
    const at = (hour: number) => new Date(Date.UTC(2026, 2, 1 + day, hour)).toISOString();
    const row = { tune: 'The Heron on the Slipway', span: SPAN, minutes: 10 };
    return [
      { ...row, at: at(10), bpm: bpm - 5, clean: true },
      { ...row, at: at(11), bpm, clean: true },
      { ...row, at: at(12), bpm: 300, clean: false },
      { ...row, at: at(13), bpm: 300, clean: true, pain: { finger: 3, place: null } },
    ].map((attempt, i) => (i === 2 ? { ...attempt, minutes: 0 } : attempt));
  });
  const answer = forecast(written({ attempts: days }), '--wish', '100', '--a-day', '20');
  expect(answer).toMatchObject({ from: { days: 6, minutes: 120 } });
});

test.each([
  [['ability'], 'expected --log LOG'],
  [['forecast', 'demo/heron.abc', '--log', written({ best: BEST })], 'expected --wish N and --a-day M'],
  [['forecast', 'demo/heron.abc', '--log', written({ best: BEST }), '--wish', 'x', '--a-day', '20'], '--wish'],
])('%j is told what it lacks', (args, told) => {
  const { exitCode, stderr } = run(args);
  expect(exitCode).toBe(2);
  expect(stderr).toContain(told);
});
