import { readdirSync, readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { readAbc, writeAbc } from '#formats/abc';
import { type FileRead, MAX_ENTRIES, readFile } from '#formats/file';
import { tuneSchema } from '#formats/json';
import { writeMusicXml } from '#formats/musicxml';
import { importWords } from '#words/importMessage';
import { inventedTune } from '../core/testing/books';
import { randomScore } from '../core/testing/scores';
import { cases } from '../core/testing/share';
import { seeded } from '../core/testing/tunes';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const SLOWEST_MS = 2000;

/** Reads to the end; what is read is a tune that can be kept, and what is not is told with a place. */
function readAll(bytes: Uint8Array): FileRead[] {
  const begun = performance.now();
  const reads = [...readFile(bytes)];
  expect(performance.now() - begun).toBeLessThan(SLOWEST_MS);
  for (const read of reads) {
    if ('failed' in read) {
      expect(read.failed.length).toBeGreaterThan(0);
      for (const said of read.failed) {
        expect(said.line).toBeGreaterThanOrEqual(1);
        expect(said.column).toBeGreaterThanOrEqual(1);
        const message = importWords(said);
        expect(message).not.toMatch(/^$|NaN/);
        // A number beyond all numbers is the file's fault, anything else that is thrown the reader's.
        expect(message).not.toMatch(/could not be read: (?!.*expected)/);
      }
    } else expect(tuneSchema.safeParse(read.tune).success).toBe(true);
  }
  return reads;
}

const failures = (reads: readonly FileRead[]) =>
  reads.flatMap((read) => ('failed' in read ? read.failed.map(importWords) : []));

describe('mutated files', () => {
  const PIECES = [
    '|:',
    ':|',
    '[1',
    '(',
    ')',
    '"',
    '!',
    '[',
    ']',
    '{',
    '}',
    '(3',
    '%%',
    'K:',
    'M:0/0',
    'L:1/0',
    '\n',
    ' ',
    '-',
    '<',
    '>',
    '&',
    '</note>',
    '<note>',
    '<duration>-1</duration>',
    '999999999999',
    '\u0000',
    'é',
    '😀',
    ':',
    '::|::',
    'z9999',
    'V:2\n',
    'P:A(AB)99\n',
    '<!--',
    ']]>',
    '<backup><duration>9</duration></backup>',
    'a/0',
    "c''''''''",
    '^^^^',
  ];

  /** A few cuts, doublings, swaps and strange pieces at random places. */
  function mutated(text: string, random: () => number): string {
    let result = text;
    const edits = 1 + Math.floor(random() * 6);
    for (let edit = 0; edit < edits; edit++) {
      const at = Math.floor(random() * (result.length + 1));
      const length = Math.floor(random() * 30);
      const kind = random();
      if (kind < 0.3) result = result.slice(0, at) + result.slice(at + length);
      else if (kind < 0.5)
        result =
          result.slice(0, at) +
          result.slice(at, at + length).repeat(2 + Math.floor(random() * 3)) +
          result.slice(at + length);
      else if (kind < 0.6) result = result.slice(0, at);
      else result = result.slice(0, at) + PIECES[Math.floor(random() * PIECES.length)]! + result.slice(at);
    }
    return result;
  }

  const demo = readdirSync('demo').map((file) => readFileSync(`demo/${file}`, 'utf8'));
  const sources = {
    ABC: [...demo, ...Array.from({ length: 30 }, (_, i) => writeAbc(randomScore(i + 1)))],
    MusicXML: [
      ...demo.map((text) => writeMusicXml(readAbc(text).tunes[0]!.tune)),
      ...Array.from({ length: 30 }, (_, i) => writeMusicXml(randomScore(i + 1))),
    ],
  };

  test.each([
    ['ABC', cases(2500)],
    ['MusicXML', cases(2500)],
  ] as const)(
    '%s, %i of them: no crash, no hang, nothing that could not be kept',
    (kind, count) => {
      const random = seeded(710);
      let read = 0;
      for (let round = 0; round < count; round++) {
        const source = sources[kind][round % sources[kind].length]!;
        if (readAll(bytesOf(mutated(source, random))).some((tune) => 'tune' in tune)) read += 1;
      }
      // Most are still read, and some are not: the mutations are neither too mild nor too harsh to say anything.
      expect(read).toBeGreaterThan(count * 0.05);
      expect(read).toBeLessThan(count);
    },
    240_000,
  );
});

describe('hostile files do no harm', () => {
  const score = writeMusicXml(inventedTune(1));
  const packed = (files: Record<string, string | Uint8Array>) =>
    zipSync(
      Object.fromEntries(
        Object.entries(files).map(([name, file]) => [name, typeof file === 'string' ? strToU8(file) : file]),
      ),
    );
  const container = (path: string) =>
    `<?xml version="1.0"?><container><rootfiles><rootfile full-path="${path}"/></rootfiles></container>`;
  const deep = (open: string, close: string, count: number) => open.repeat(count) + close.repeat(count);

  /** An archive that tells a small size and swells to far more. */
  function lyingZip(): Uint8Array {
    const zip = packed({ 'bomb.abc': new Uint8Array(41 * 1024 * 1024) });
    const view = new DataView(zip.buffer, zip.byteOffset);
    for (let at = 0; at + 4 < zip.length; at++) {
      const sign = view.getUint32(at, true);
      if (sign === 0x04034b50) view.setUint32(at + 22, 10, true);
      if (sign === 0x02014b50) view.setUint32(at + 24, 10, true);
    }
    return zip;
  }

  test.each<[string, () => Uint8Array, RegExp]>([
    ['a zip bomb', () => packed({ 'bomb.abc': new Uint8Array(41 * 1024 * 1024) }), /over 40 MB/],
    ['a zip bomb that lies about its size', lyingZip, /over 40 MB|damaged/],
    [
      'a zip of very many files',
      () => packed(Object.fromEntries(Array.from({ length: MAX_ENTRIES + 1 }, (_, i) => [`${i}.abc`, 'x']))),
      /more than 2000 files/,
    ],
    ['a zip cut off', () => packed({ 'a.abc': 'X:1\nK:D\nd4|\n' }).slice(0, 40), /damaged|no files/],
    ['a zip in a zip', () => packed({ 'inner.zip': packed({ 'a.abc': 'X:1\nK:D\nd4|\n' }) }), /no file of tunes/],
    [
      'a packed score that names a file outside',
      () => packed({ 'META-INF/container.xml': container('../../../../etc/passwd'), 'readme.txt': 'x' }),
      /does not hold the file/,
    ],
    [
      'a definition of entities in entities',
      () =>
        bytesOf(
          score
            .replace(
              '<score-partwise',
              `<!DOCTYPE x [<!ENTITY a "ha">${Array.from({ length: 20 }, (_, i) => `<!ENTITY a${i} "${'&a;'.repeat(10)}">`).join('')}]>\n<score-partwise`,
            )
            .replace('Fiddle', '&a19;'),
        ),
      /^$|Not XML/,
    ],
    [
      'an entity that would be a file',
      () =>
        bytesOf(
          `<?xml version="1.0"?><!DOCTYPE x [<!ENTITY f SYSTEM "file:///etc/passwd">]>\n${score.slice(score.indexOf('<score-partwise')).replace('<work-title>', '<work-title>&f;')}`,
        ),
      /^$|Not XML/,
    ],
    ['elements nested ten thousand deep', () => bytesOf(deep('<a>', '</a>', 10_000)), /Not XML|Expected score/],
    [
      'brackets nested a hundred thousand deep',
      () => bytesOf(`{"tunes":${deep('[', ']', 100_000)}}`),
      /JSON|plan|expected/,
    ],
    ['ABC slurs nested fifty thousand deep', () => bytesOf(`X:1\nK:D\n${deep('(', ')', 50_000)}d4|\n`), /^$|./],
    ['one line of thirty thousand notes', () => bytesOf(`X:1\nM:none\nK:D\n${'d'.repeat(30_000)}|\n`), /^$|./],
    ['a chord of a thousand notes', () => bytesOf(`X:1\nK:D\n[${'d'.repeat(1000)}]4|\n`), /at most|<=|Too big|stops/],
    [
      'blanks as long as a book',
      () => bytesOf(`X:1\nT:a${' '.repeat(200_000)}b\nK:D\nd${' '.repeat(200_000)}e${' '.repeat(200_000)}\n`),
      /^$/,
    ],
    ['a note as long as a year', () => bytesOf('X:1\nK:D\nd99999999999999999999|\n'), /./],
    ['a division by zero', () => bytesOf('X:1\nM:0/0\nL:1/0\nK:D\nd/0 d0|\n'), /^$|./],
    [
      'repeats of repeats',
      () => bytesOf('X:1\nP:((((A99)99)99)99)99\nK:D\nP:A\n|::::::::::::::::d4::::::::::::::::|\n'),
      /^$|./,
    ],
    [
      'a score of a billion divisions',
      () => bytesOf(score.replace(/<divisions>\d+<\/divisions>/, '<divisions>1e300</divisions>')),
      /^$|./,
    ],
    [
      'backups before the beginning',
      () => bytesOf(score.replace('</note>', '</note><backup><duration>99999999</duration></backup>')),
      /^$|./,
    ],
    [
      'a MIDI file that claims a million tracks',
      () => Uint8Array.from([77, 84, 104, 100, 0, 0, 0, 6, 0, 1, 255, 255, 1, 224]),
      /MIDI/,
    ],
    [
      'a MIDI track that claims two gigabytes',
      () =>
        Uint8Array.from([
          77, 84, 104, 100, 0, 0, 0, 6, 0, 0, 0, 1, 1, 224, 77, 84, 114, 107, 127, 255, 255, 255, 0, 144, 60, 64,
        ]),
      /MIDI|No notes/,
    ],
    ['bytes of all kinds', () => Uint8Array.from({ length: 4096 }, (_, i) => (i * 193) & 255), /no file of tunes/],
  ])('%s', (_what, make, words) => {
    const told = failures(readAll(make()));
    expect(told.join('\n')).toMatch(words);
  });

  test('markup in every field is text like any other', () => {
    const markup = '<img src=x onerror=alert(1)>';
    const text = `X:1\nT:${markup}\nC:${markup}\nS:${markup}\nN:${markup}\nR:${markup}\nK:D\n"${markup}"d4|\n`;
    const [read] = readAll(bytesOf(text));
    const { tune } = read as Extract<FileRead, { tune: unknown }>;
    expect([tune.title, tune.composer, tune.source, tune.notes]).toEqual([markup, markup, markup, [markup]]);
    expect(writeMusicXml(tune)).not.toContain('<img');
    expect(readAll(bytesOf(writeMusicXml(tune))).map((again) => ('tune' in again ? again.tune.title : null))).toEqual([
      markup,
    ]);
  });

  test('an archive of many kinds is read file by file, those that are none are passed over', () => {
    const zip = packed({
      'b/second.musicxml': score,
      'a/first.abc': 'X:1\nT:First\nK:D\nd8|\n',
      'c/bad.xml': '<score-partwise><part></score-partwise>',
      '__MACOSX/._first.abc': 'junk',
      'picture.png': new Uint8Array(8),
    });
    const reads = readAll(zip);
    expect(reads.map((read) => [read.entry, 'tune' in read ? read.tune.title : 'failed'])).toEqual([
      ['a/first.abc', 'First'],
      ['b/second.musicxml', inventedTune(1).title],
      ['c/bad.xml', 'failed'],
    ]);
  });

  test('a packed score is the one that it names', () => {
    const zip = packed({
      'META-INF/container.xml': container('scores/the tune.xml'),
      'scores/other.xml': '<x/>',
      'scores/the tune.xml': score,
    });
    expect(readAll(zip).map((read) => ('tune' in read ? [read.kind, read.tune.title] : read.failed))).toEqual([
      ['musicxml', inventedTune(1).title],
    ]);
  });
});
