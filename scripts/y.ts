import { readFile } from '../src/formats/file/index';
const b = (t: string) => new TextEncoder().encode(t);
const which = process.argv[2];
const t =
  which === 'slur'
    ? `X:1\nK:D\n${'('.repeat(20000)}${')'.repeat(20000)}d4|\n`
    : `X:1\nM:none\nK:D\n${'d'.repeat(30000)}|\n`;
console.time(which);
[...readFile(b(t))];
console.timeEnd(which);
