// How well takes are heard, by many takes of the simulated player over the demo tunes and a reel with rests; shared out
// among processes, of which each counts its own.
import { fork } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { MISTAKE_KINDS } from '../../src/core/take/index.ts';
import { takeReel, takeTrials } from '../../src/core/testing/takeTrials.ts';
import { readFile } from '../../src/formats/file/index.ts';
import { ROOT } from '../lib/root.mjs';

export const TAKES = 400;

/** The demo tunes, and one with rests and strings passed over. */
export function takeTunes() {
  const folder = join(ROOT, 'demo');
  const demo = readdirSync(folder).flatMap((file) =>
    [...readFile(readFileSync(join(folder, file)))].flatMap((read) => ('tune' in read ? [read.tune] : [])),
  );
  return [...demo, takeReel()];
}

const quantile = (values, share) => values.toSorted((a, b) => a - b)[Math.floor(share * (values.length - 1))] ?? NaN;
const sum = (counts) => Object.values(counts).reduce((a, b) => a + b, 0);

/** Shares of the takes, how noisy they are, and their seeds. */
const TRIALS = [
  { share: 0.85, noise: [25, 40], seed: 11 },
  { share: 0.15, noise: [15, 15], seed: 12 },
];

const talliesOf = (takes, lot) =>
  TRIALS.map(({ share, noise, seed }) =>
    takeTrials(takeTunes(), { takes: Math.round(takes * share), noise, seed, lot }),
  );

/** Adds up numbers, lists and counts by name. */
function added(one, other) {
  if (typeof one === 'number' || one === undefined) return (one ?? 0) + (other ?? 0);
  if (Array.isArray(one)) return [...one, ...other];
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
  return Object.fromEntries([...keys].map((key) => [key, added(one[key], other[key])]));
}

/** The lots of all processors, added up. */
async function allTallies(takes) {
  const every = availableParallelism();
  const lots = await Promise.all(
    Array.from({ length: every }, (_, first) => {
      const child = fork(fileURLToPath(import.meta.url), [takes, first, every].map(String));
      return new Promise((done, failed) => {
        child.once('message', done);
        child.once('exit', (code) => code !== 0 && failed(new Error(`a lot of takes ended with ${code}`)));
      });
    }),
  );
  return lots.reduce((sum, lot) => sum.map((tally, i) => added(tally, lot[i])));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const [takes, first, every] = process.argv.slice(2).map(Number);
  process.send(talliesOf(takes, { first, every }));
}

/** Both tables as lines of Markdown: takes with little noise, and those at 15 dB. */
export async function listeningTables(takes = TAKES) {
  const [near, far] = await allTallies(takes);
  const row = (name, tally) =>
    `| ${name} | ${tally.takes} | ${tally.notes} | ${((100 * (tally.heard - tally.derailed)) / tally.notes).toFixed(2)} % | ` +
    `${quantile(tally.onsetMs, 0.5).toFixed(1)} / ${quantile(tally.onsetMs, 0.9).toFixed(1)} ms | ` +
    `${((100 * tally.onsetsWithin) / tally.onsetMs.length).toFixed(0)} % | ` +
    `${quantile(tally.cents, 0.5).toFixed(2)} / ${quantile(tally.cents, 0.9).toFixed(2)} cents | ` +
    `${((100 * tally.centsWithin) / tally.cents.length).toFixed(0)} % | ${((200 * sum(tally.falseAlarms)) / tally.notes).toFixed(2)} |`;
  const found = (kind) => `${near.found[kind] ?? 0} of ${near.made[kind] ?? 0}`;
  return [
    '| signal to noise | takes | notes | heard in place | beginnings, median / 90 % | within their 80 % | pitch, median / 90 % | within their 80 % | false alarms in 200 notes |',
    '| --- | --- | --- | --- | --- | --- | --- | --- | --- |',
    row('25 to 40 dB', near),
    row('15 dB', far),
    '',
    '| mistake, at twice its threshold | found at 25 dB and more | at 15 dB | false alarms |',
    '| --- | --- | --- | --- |',
    ...MISTAKE_KINDS.map(
      (kind) =>
        `| ${kind} | ${found(kind)} | ${far.found[kind] ?? 0} of ${far.made[kind] ?? 0} | ${near.falseAlarms[kind] ?? 0} + ${far.falseAlarms[kind] ?? 0} |`,
    ),
  ];
}
