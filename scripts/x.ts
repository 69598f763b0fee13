import Parse from 'abcjs/src/parse/abc_parse.js';
import { writeAbc } from '#formats/abc';
import { inventedTune } from '../src/core/testing/books';
import { readInChunks } from '../src/web/book/readBytes';
import { readFile } from '#formats/file';
const texts = Array.from({ length: 1000 }, (_, i) => writeAbc(inventedTune(i + 1), String(i + 1)));
const bytes = new TextEncoder().encode(texts.join('\n'));
const parse = () => { for (const t of texts) { const p = new Parse(); p.parse(t, {}); p.getTune(); } };
parse();
const time = (name: string, f: () => void) => { const b = performance.now(); f(); console.log(name, (performance.now() - b).toFixed(0)); };
for (let r = 0; r < 3; r++) {
  time('parse', parse);
  time('readFile', () => { for (const x of readFile(bytes, {})) void x; });
  time('chunks', () => { for (const x of readInChunks(bytes, {})) void x; });
  time('chunks+json', () => { let n = 0; for (const x of readInChunks(bytes, {})) for (const { tune, source } of x) n += JSON.stringify({ tune, source }).length; console.log(n); });
}
