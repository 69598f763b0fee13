// How well takes are heard, by simulation and on a sampled violin; `npm run test:deep` prints it, with --write it is kept.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { listeningTables, TAKES } from './bench/listening.mjs';
import { sampledTable } from './bench/sampledViolin.mjs';
import { ROOT } from './lib/root.mjs';

const wanted = process.argv.indexOf('--takes');
const takes = wanted < 0 ? TAKES : Number(process.argv[wanted + 1]);
const tables = [...(await listeningTables(takes)), '', ...sampledTable()];
console.log(tables.join('\n'));
if (process.argv.includes('--write'))
  writeFileSync(
    join(ROOT, 'docs', 'listening.md'),
    `# How well takes are heard

Written by \`npm run listening -- --write\` (here with \`--takes ${takes}\`); \`npm run test:deep\` prints the same of ${TAKES}.

${takes} takes of the simulated player over all demo tunes and a reel with rests, at 55 to 100 % of the tempo wanted, by steady,
plain and shaky players, in rooms of 0 to 0.4 s, some drifting by 5 or 20 %. Each makes about a third of the mistakes it
can, at twice their thresholds. A false alarm is a finding that no mistake made, but for notes that the player has out of
tune by nearly the threshold. The second table is of a sampled violin, from a MIDI file with known errors: its beginnings
are told after taking out the instrument's own constant delay.

${tables.join('\n')}
`,
  );
