// A made-up reel of 64 bars. With its repeats each of the eight parts is played twice: 128 bars, about 1,000 notes.
import { seeded } from '../../src/core/testing/tunes.ts';

const STEPS = ['D', 'E', 'F', 'G', 'A', 'B', 'c', 'd', 'e', 'f', 'g', 'a'];

/** ABC of the long reel, of eight-bar parts; without repeats every turned link flips all that follows, to the last note. */
export function longReel({ repeats = true, bars: length = 64 } = {}) {
  const random = seeded(7);
  let at = 4;
  const step = () => {
    at = Math.min(STEPS.length - 1, Math.max(0, at + Math.round(random() * 4 - 2)));
    return STEPS[at];
  };
  const half = () => {
    const [a, b, c, d] = [step(), step(), step(), step()];
    const kind = random();
    if (kind < 0.3) return `(${a}${b})${c}${d}`;
    if (kind < 0.5) return `${a}(${b}${c})${d}`;
    if (kind < 0.6) return `${a}2(${c}${d})`;
    return `${a}${b}${c}${d}`;
  };
  const part = () => {
    const bars = Array.from({ length: 8 }, () => `${half()} ${half()}`);
    const [opens, closes] = repeats ? ['|:', ':|'] : ['', '||'];
    return `${opens}${bars.slice(0, 4).join('|')}|\n${bars.slice(4).join('|')}${closes}\n`;
  };
  const body = Array.from({ length: Math.ceil(length / 8) }, part).join('');
  return `X:1\nT:The Long Causeway\nR:reel\nM:4/4\nL:1/8\nK:D\n${body}`;
}
