import { reportTune } from '#core/report';
import { readFile } from '#formats/file';
import { importWords } from '#words/importMessage';
import { cases } from '../src/core/testing/share';
import { seeded } from '../src/core/testing/tunes';
import { mutated, seedFiles } from './mutants';

declare const TEST_SHARE: number;
const FILES = TEST_SHARE === 1 ? 20_000 : 300;
/** Nobody waits longer for a file to be read, and for a tune that came out of it to be judged. */
const MAX_MS = 2_000;

test('files that are almost right are read or refused, at once, and what is read can be judged', () => {
  const random = seeded(8128);
  const seeds = seedFiles();
  const slow: { read: number; judged: number; file: number; bytes: number }[] = [];
  const faults: string[] = [];
  let [tunes, most] = [0, 0];
  for (let number = 0; number < FILES; number++) {
    const file = mutated(seeds[Math.floor(random() * seeds.length)]!, random);
    const begun = performance.now();
    const outcomes = [...readFile(new Uint8Array(file))];
    for (const outcome of outcomes)
      for (const said of 'failed' in outcome ? outcome.failed : outcome.messages)
        if (said.code === 'fault') faults.push(`file ${number}: ${importWords(said)}`);
    const read = outcomes.flatMap((one) => ('tune' in one ? [one.tune] : []));
    const readMs = performance.now() - begun;
    let judgedMs = 0;
    for (const tune of read) {
      const from = performance.now();
      reportTune(tune);
      judgedMs = Math.max(judgedMs, performance.now() - from);
    }
    tunes += read.length;
    most = Math.max(most, readMs, judgedMs);
    if (Math.max(readMs, judgedMs) > MAX_MS)
      slow.push({ read: Math.round(readMs), judged: Math.round(judgedMs), file: number, bytes: file.length });
  }
  console.log(`${FILES} files, ${tunes} tunes read and judged, ${Math.round(most)} ms for the slowest`);
  expect(tunes).toBeGreaterThan(FILES / 10);
  expect(slow).toEqual([]);
  expect(faults).toEqual([]);
}, 3_600_000);

describe('small files that ask for much', () => {
  const X = 'X:1\nT:Much\nM:4/4\nL:1/8\nK:D\n';
  test.each<[string, string]>([
    ['tunes by the thousand in few bytes', 'X:1\nT:a\nK:D\nd\n\n'.repeat(cases(20_000))],
    ['twenty thousand repeats', X + '|:d:'.repeat(20_000)],
    ['endings without end', X + Array.from({ length: 5_000 }, (_, i) => `|${i} d`).join('')],
    ['parts without end', `${X}P:${'A'.repeat(50_000)}\n${'P:A\nd|\n'.repeat(500)}`],
    ['a tuplet in a tuplet', X + '(3'.repeat(30_000) + 'd'],
    ['slurs that never close', X + '(d'.repeat(30_000)],
    ['ties without end', X + 'd-'.repeat(30_000)],
    ['chords without end', X + '[dfa'.repeat(20_000)],
    ['grace notes without end', `${X}{${'d'.repeat(100_000)}}d`],
    ['a title of a million letters', `X:1\nT:${'w'.repeat(1_000_000)}\nK:D\nd\n`],
    ['XML that opens without end', '<score-partwise>'.repeat(50_000)],
    [
      'entities in entities',
      `<!DOCTYPE a [${Array.from({ length: 30 }, (_, i) => `<!ENTITY e${i} "${`&e${i - 1};`.repeat(10)}">`).join('')}]><score-partwise>&e29;</score-partwise>`,
    ],
    ['JSON that opens without end', '['.repeat(200_000)],
  ])('%s', (_what, text) => {
    const begun = performance.now();
    const tunes = [...readFile(Buffer.from(text))].flatMap((one) => ('tune' in one ? [one.tune] : []));
    for (const tune of tunes.slice(0, 3)) reportTune(tune);
    expect(performance.now() - begun).toBeLessThan(MAX_MS * SLOW_MACHINE);
  });
});

/** What takes a moment takes longer beside other work; what hangs takes minutes. */
const SLOW_MACHINE = 10;
