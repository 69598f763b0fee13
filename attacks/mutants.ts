import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { zipSync } from 'fflate';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { writeMorrinBook } from '#formats/json';
import { writeMidi } from '#formats/midi';
import { writeMusicXml } from '#formats/musicxml';
import { randomScore } from '../src/core/testing/scores';

/** Files of every kind that is read, as they should be: what is changed in them is almost right. */
export function seedFiles(): Uint8Array[] {
  const texts = readdirSync('demo').map((name) => readFileSync(path.join('demo', name)));
  const tunes = [
    ...texts.slice(0, 4).flatMap((text) => readAbc(text.toString('utf8')).tunes.map(({ tune }) => tune)),
    ...[1, 2, 3].map(randomScore),
  ];
  const xml = tunes.map((tune) => Buffer.from(writeMusicXml(tune)));
  return [
    ...texts,
    ...xml,
    ...xml.slice(0, 2).map((file) => Buffer.from(zipSync({ 'META-INF/container.xml': CONTAINER, 'score.xml': file }))),
    ...tunes.map((tune) => Buffer.from(writeMidi(reportTune(tune)))),
    Buffer.from(writeMorrinBook(tunes)),
  ];
}

const CONTAINER = Buffer.from('<container><rootfiles><rootfile full-path="score.xml"/></rootfiles></container>');

/** What breaks readers: large and odd numbers, brackets that open, signs of other formats, ends of text. */
const ODD = [
  '99999999',
  '-1',
  '0',
  '1e9',
  '/',
  '//',
  '(',
  '[',
  '{',
  '"',
  '<',
  '|:',
  ':|',
  '\n',
  '\0',
  '￿',
  '(9:8:7',
  '>',
  'z',
  '^^',
  ',,,,',
  '<note>',
  '&x;',
  '}',
];

/** A file with some places changed: bytes turned, numbers grown, pieces doubled, moved or cut out, odd things put in. */
export function mutated(file: Uint8Array, random: () => number): Buffer {
  let bytes = Buffer.from(file);
  const at = (length = bytes.length) => Math.floor(random() * length);
  const times = 1 + Math.floor(4 * random() ** 2);
  for (let time = 0; time < times; time++) {
    const [from, size] = [at(), Math.floor(1 + 200 * random() ** 3)];
    const piece = bytes.subarray(from, from + size);
    const rest = bytes.subarray(from + size);
    const before = bytes.subarray(0, from);
    switch (Math.floor(random() * 7)) {
      case 0:
        bytes = Buffer.from(bytes);
        bytes[from] = at(256);
        break;
      case 1:
        bytes = Buffer.concat([before, rest]);
        break;
      case 2:
        bytes = Buffer.concat([before, ...Array<Buffer>(1 + at(60)).fill(piece), rest]);
        break;
      case 3:
        bytes = Buffer.concat([before, Buffer.from(ODD[at(ODD.length)]!), bytes.subarray(from)]);
        break;
      case 4:
        bytes = Buffer.from(
          bytes.toString('latin1').replace(/\d+/g, (digits) => (random() < 0.02 ? digits.repeat(1 + at(6)) : digits)),
          'latin1',
        );
        break;
      case 5:
        bytes = bytes.subarray(0, Math.max(1, from));
        break;
      default:
        bytes = Buffer.concat([rest, before, piece]);
    }
  }
  return bytes.subarray(0, 2_000_000);
}
