import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { takeSchema, truthSchema } from '#contract/take';
import { run } from './run';

const HERON = 'demo/heron.abc';
const folder = mkdtempSync(join(tmpdir(), 'morrin-'));
const at = (name: string) => join(folder, name);

function simulated(name: string, ...args: string[]) {
  const outcome = run([
    'simulate',
    HERON,
    '--out',
    'x.wav',
    '--truth',
    at('truth.json'),
    '--from',
    '1',
    '--to',
    '4',
    ...args,
  ]);
  expect(outcome).toMatchObject({ exitCode: 0, stderr: '' });
  writeFileSync(at(name), outcome.bytes!);
  return truthSchema.parse(JSON.parse(readFileSync(at('truth.json'), 'utf8')));
}

const taken = (name: string, ...args: string[]) => {
  const outcome = run(['take', HERON, '--recording', at(name), '--from', '1', '--to', '4', '--json', ...args]);
  return takeSchema.parse(JSON.parse(outcome.stdout));
};

test('a simulated mistake is in the truth, and take finds it with figure, uncertainty, threshold and drill', () => {
  const truth = simulated('sharp.wav', '--mistake', 'sharp@7', '--noise', '35', '--seed', '5');
  expect(truth.mistakes).toMatchObject([{ kind: 'sharp', index: 7, loop: 1, size: 30 }]);
  const { findings, notes, clean } = taken('sharp.wav');
  expect(clean).toBe(false);
  expect(findings.map(({ code, notes: [index] }) => [code, index])).toEqual([['sharp', 7]]);
  expect(findings[0]).toMatchObject({ unit: 'cents', threshold: 15, drill: 'tone-match' });
  expect(Math.abs(findings[0]!.figure - truth.notes[7]!.cents)).toBeLessThan(3);
  for (const [i, note] of notes.entries()) expect(note.onset!).toBeCloseTo(truth.notes[i]!.onset!, 1);
});

test('the same seed gives the same samples, another one others', () => {
  simulated('a.wav', '--seed', '2');
  simulated('b.wav', '--seed', '2');
  simulated('c.wav', '--seed', '3');
  const [a, b, c] = ['a.wav', 'b.wav', 'c.wav'].map((name) => readFileSync(at(name)));
  expect(a!.equals(b!)).toBe(true);
  expect(a!.equals(c!)).toBe(false);
});

test('a fiddle tuned lower is in tune at its own pitch, and flat at the usual one', () => {
  simulated('plain.wav', '--seed', '4');
  expect(taken('plain.wav').findings).toEqual([]);
  // A4 = 446 is 23 cents above 440: what was played is that much below it.
  const flat = taken('plain.wav', '--pitch', '446').findings.filter(({ code }) => code === 'flat');
  expect(flat.length).toBeGreaterThan(15);
  simulated('low.wav', '--seed', '4', '--pitch', '415');
  expect(taken('low.wav', '--pitch', '415').findings).toEqual([]);
  expect(flat[0]!.figure).toBeGreaterThan(17);
});

test('a summary says how much was heard and ends with its verdict', () => {
  simulated('clean.wav', '--seed', '4');
  const { stdout } = run(['take', HERON, '--recording', at('clean.wav'), '--from', '1', '--to', '4']);
  expect(stdout).toMatch(/^29 of 29 notes heard/);
  expect(stdout.trimEnd().split('\n').at(-1)).toBe('clean');
});

test.each([
  [['simulate', HERON], 2, /--out/],
  [['simulate', HERON, '--out', 'x.wav', '--player', 'drunk'], 2, /steady, plain, shaky/],
  [['simulate', HERON, '--out', 'x.wav', '--mistake', 'sneeze'], 2, /expected one of sharp, flat/],
  [['simulate', HERON, '--out', 'x.wav', '--mistake', 'narrow-vibrato'], 2, /no note on which narrow-vibrato/],
  [['simulate', HERON, '--out', 'x.wav', '--mistake', 'sharp@n9999'], 2, /no note n9999/],
  [['take', HERON], 2, /--recording/],
  [['take', HERON, '--recording', HERON], 1, /heron\.abc:1:1: expected a WAV file/],
  [['take', HERON, '--recording', 'no-such.wav'], 1, /cannot be read/],
  [['take', HERON, '--recording', 'x.wav', '--pitch', '300'], 2, /380 to 480/],
])('%p ends with %i', (args, exitCode, stderr) => {
  const outcome = run(args as string[]);
  expect(outcome.exitCode).toBe(exitCode);
  expect(outcome.stderr).toMatch(stderr as RegExp);
});
