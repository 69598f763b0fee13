import { fraction } from '#core/base';
import { readAbc, writeAbc } from '#formats/abc';
import { readFile } from '#formats/file';
import { type ImportMatter, importMessage } from '#formats/text';
import { randomScore } from '../core/testing/scores';
import { importWords } from './importMessage';

const said = (matter: ImportMatter, entry?: string) =>
  importWords({ ...importMessage({ line: 1, column: 1 }, matter), ...(entry === undefined ? {} : { entry }) });

test('what is said names the figure that was found and what was expected', () => {
  expect(said({ what: 'bar-short', length: fraction(7, 8), expected: fraction(1) })).toBe(
    'This bar is too short: it holds 7 eighths, 8 eighths are expected.',
  );
  expect(said({ what: 'out-of-bounds', subject: 'tune', fault: { code: 'too-long', found: 900 } })).toBe(
    'This tune could not be read: a note or rest of 900 whole notes: expected at most 64.',
  );
  expect(said({ what: 'bad-directive', name: 'bow', value: '1:9' })).toBe(
    '%%morrin-bow: expected stroke lengths from 0.4 to 2.5 such as 5:1.25, got "1:9".',
  );
});

test('of a file inside an archive it is said which', () => {
  expect(said({ what: 'not-midi' }, 'reels/heron.mid')).toBe(
    'reels/heron.mid: This is not a standard MIDI file, or it is cut off.',
  );
});

test('the kinds of files that could be read are named where one could not', () => {
  const [read] = [...readFile(new Uint8Array(0))];
  expect('failed' in read! && importWords(read.failed[0]!)).toBe(
    'The file is empty: expected ABC, MusicXML, MIDI or a Morrin plan.',
  );
});

test('every line of our own that is spoilt is told with what it should hold', () => {
  for (let seed = 1; seed <= 20; seed++)
    for (const [line, name] of writeAbc(randomScore(seed)).matchAll(/^%%morrin-(\w+) .*$/gm)) {
      const spoilt = writeAbc(randomScore(seed)).replace(line, `%%morrin-${name} ?`);
      const words = readAbc(spoilt).tunes[0]!.messages.map(importWords);
      expect(words).toContainEqual(expect.stringMatching(new RegExp(`^%%morrin-${name}: expected (?!something)`)));
    }
});
