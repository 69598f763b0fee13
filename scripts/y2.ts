import { readFile } from '../src/formats/file/index';
const b = (t: string) => new TextEncoder().encode(t);
const r = [...readFile(b('X:1\nK:D\nL:1/8\nd ``` e ``(fg)`` "A"`a```b | d`2 ````\n'))][0] as any;
console.log(
  r.tune.parts[0].events
    .map((e: any) => e.pitch?.letter + ' ' + e.duration?.n + '/' + e.duration?.d + e.link)
    .join(' '),
  r.messages,
);
const t = `X:1\nK:D\nd${' '.repeat(60000)}d4|\n`;
console.time('spaces');
[...readFile(b(t))];
console.timeEnd('spaces');
