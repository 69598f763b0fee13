// `npm run bench`: what must be quick, as ratios of two pieces of work in one run; written to docs/benchmarks.md.
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { join } from 'node:path';
import { benchBackup } from './bench/backup.mjs';
import { benchBook } from './bench/book.mjs';
import { calibrationTable, PLAYERS } from './bench/calibration.mjs';
import { benchDance } from './bench/dance.mjs';
import { benchHand } from './bench/hand.mjs';
import { benchPractice } from './bench/practice.mjs';
import { benchRedraw } from './bench/redraw.mjs';
import { benchReport } from './bench/report.mjs';
import { benchSearch } from './bench/search.mjs';
import { benchTake } from './bench/take.mjs';
import { benchTwins } from './bench/twins.mjs';
import { ROOT } from './lib/root.mjs';

const wanted = process.argv.slice(2);
const benches = [
  ['report', benchReport],
  ['search', benchSearch],
  ['twins', benchTwins],
  ['hand', benchHand],
  ['dance', benchDance],
  ['redraw', benchRedraw],
  ['book', benchBook],
  ['backup', benchBackup],
  ['practice', benchPractice],
  ['take', benchTake],
].filter(([name]) => wanted.length === 0 || wanted.includes(name));

const rows = [];
for (const [name, bench] of benches) {
  const begun = performance.now();
  rows.push(...(await bench()));
  console.log(`Measured ${name} in ${Math.round((performance.now() - begun) / 1000)} s`);
}
const table = [
  '| what | against | ratio | bar | milliseconds (for information) |',
  '| --- | --- | --- | --- | --- |',
  ...rows.map(({ what, against, ratio, bar, ms }) => `| ${what} | ${against} | ${ratio} | ${bar} | ${ms} |`),
];
console.log(`\n${table.join('\n')}`);
const failed = rows.filter(({ holds }) => !holds);
for (const { what, bar } of failed) console.log(`Not reached: ${what} (${bar})`);
if (wanted.length === 0)
  writeFileSync(
    join(ROOT, 'docs/benchmarks.md'),
    `# Benchmarks

\`npm run bench\` measures these side by side in one run and writes this page. The ratios are what counts; the times are
medians on the machine of the last run (Node ${process.versions.node}, ${os.cpus().length} processors).

${table.join('\n')}

- **Report**: the whole check of a made-up reel of 64 bars, each part played twice (128 bars, about 1,000 notes), with
  findings and every mend tried, against the bare ABC parser reading the same tune.
- **Search**: the best bowing of three bars of that reel by \`bestBowings\`, and by an integer program with the same
  objective; five bowings that really differ, with their reports, of its first 32 bars; and what the best of those 32 bars
  by coarse cells of the bow costs more, counted with fine ones.
- **Twins**: equal figures of a made-up medley of 300 bars, against one scan that reads each of its notes once.
- **Fingering, drones, tunings**: the cheapest fingering of that reel over all strings, fingers and positions; the drone line
  of all it plays; twelve tunings ranked for it, each with a report of its own.
- **Dance check, sound**: ceiling, floor, the tightest places and the trouble at 60 tempos of that reel, straight and with a
  lilt; the same reel, slowed to two minutes, rendered at 44.1 kHz with fiddle, body, strings that ring along, backing,
  click and tone.
- **Redraw**: from a key press that toggles a slur to the last bow sign of the last line being right, layout included, in
  headless Chromium, toggles spread over all lines; against all lines engraved anew in the same page.
- **Book**: a thousand invented tunes from one ABC text, read and laid ready over HTTP at the same time, then finished; pages of 20,000 tunes over HTTP, in turns with one tune read by its
  key; the list scrolled through in headless Chromium; what a browser fetches before the book is there.
- **Practice**: the bites, cuts and joins of that reel; a log of 100,000 attempts over HTTP, in turns with one tune read by
  its key; and an item from the press on “Start” to its score, in headless Chromium.
- **Ability, own ceilings**: what 5,000 attempts say of a player, on a thread of its own; and from an attempt that is logged until the
  own ceilings of 500 tunes are counted anew in the background, over HTTP.
- **Take**: a take of a minute of the simulated player, in blocks as they come from a microphone, and all that is told of it; and from
  the last block of a loop of 16 notes to its answer.
- **Backup**: 600 tunes with two revisions each, out as one packed file with its sums, and taken back: gone through, with a
  copy of the book made and checked before. Both grow with the rows (the attack of backups takes 20,000).

## Calibration

80 % intervals of ${PLAYERS} simulated players a model, each with 120 attempts and a path of best days (\`npm run calibration\`, also part of
\`npm run test:deep\`): the share that held, and how evenly truths lie over the ranks (of players as the model has them chi-square
passes 21.7, 21.7 and 11.3 once in a hundred times). What the last line tells is a weakness: whose best days follow another curve
than the forecast’s is told too narrow a range.

${calibrationTable().join('\n')}
`,
  );
process.exitCode = failed.length === 0 ? 0 : 1;
