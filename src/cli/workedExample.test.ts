import { readFileSync } from 'node:fs';
import { reportSchema } from '#contract/report';
import { run } from './run';

/** Compares every figure of `expected`; numbers to a thousandth, the rounding of the report. */
function expectFigures(got: unknown, expected: unknown, path: string): void {
  if (typeof expected === 'number') {
    expect([path, typeof got]).toEqual([path, 'number']);
    expect([path, Math.abs((got as number) - expected) <= 0.00101]).toEqual([path, true]);
  } else if (Array.isArray(expected)) {
    expect([path, (got as unknown[]).length]).toEqual([path, expected.length]);
    expected.forEach((item, i) => expectFigures((got as unknown[])[i], item, `${path}[${i}]`));
  } else if (expected !== null && typeof expected === 'object') {
    for (const [key, item] of Object.entries(expected))
      expectFigures((got as Record<string, unknown> | null)?.[key], item, `${path}.${key}`);
  } else {
    expect([path, got]).toEqual([path, expected]);
  }
}

test('the worked example: every figure of the report is as worked by hand', () => {
  const { exitCode, stdout } = run(['report', 'docs/examples/four-bars.abc', '--json']);
  expect(exitCode).toBe(0);
  const report = reportSchema.parse(JSON.parse(stdout));
  expectFigures(report, JSON.parse(readFileSync('docs/examples/four-bars.report.json', 'utf8')), 'report');
  expect(report.limits).toMatchObject({
    strokeMs: { value: 85, source: 'guess' },
    crossingMs: { value: 55, source: 'guess' },
  });
  expect(report.instrument).toMatchObject({
    stringLengthMm: 328,
    bridgeRadiusMm: 42,
    stringSpacingMm: 11.5,
    hairCm: 63,
  });
  expect(report.messages).toEqual([]);
  expect(report.findings.map(({ code, notes }) => [code, notes])).toEqual([
    ['part-flips', ['n1']],
    ['skip-may-sound', ['n7', 'n8']],
  ]);
  expect(report.findings[0]!.message).toContain('11 turns');
  expect(report.findings[0]!.mends.every(({ comesRound }) => comesRound)).toBe(true);
});
