import { inventedTune } from '../src/core/testing/books';
import { tuneSchema } from '#formats/json';

import { tuneHead } from '../src/server/tunes/tuneHead';

import { USUAL_SETTINGS, playerSettings } from '#contract/settings';
const tunes = Array.from({ length: 1000 }, (_, i) => JSON.parse(JSON.stringify(inventedTune(i + 1))));
const settings: any = playerSettings(USUAL_SETTINGS as any);
const time = (name: string, f: () => void) => { const b = performance.now(); f(); console.log(name, (performance.now() - b).toFixed(0)); };
console.log(tunes.reduce((s: number, t: any) => s + t.parts.reduce((q: number, p: any) => q + p.events.length, 0), 0), 'events');
for (let r = 0; r < 4; r++) {
  time('zod', () => tunes.forEach((t) => tuneSchema.parse(t)));
  time('head', () => tunes.forEach((t) => tuneHead(t, settings)));
  let s = '';
  time('stringify', () => { s = JSON.stringify(tunes); });
  time('parse', () => JSON.parse(s));
  time('stringify each', () => tunes.forEach((t) => JSON.stringify(t)));
}
