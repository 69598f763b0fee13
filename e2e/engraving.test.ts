import { readdirSync, readFileSync } from 'node:fs';
import { readAbc } from '#formats/abc';
import { cases, some } from '../src/core/testing/share';
import { expect, type Page, test } from './story';

/** Pseudo-random numbers 0 … 1 from a seed, so that a failing tune can be drawn again. */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state * 1664525 + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

const LETTERS = ['A,', 'B,', 'C', 'D', 'E', 'F', 'G', 'A', 'B', 'c', 'd', 'e', 'f', 'g', 'a', 'b'];

/** A part of four to eight bars with slurs, tuplets, dots, graces, chords, marks, accidentals and endings at random. */
function randomPart(random: () => number, eighths: number): string {
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  let at = 7;
  const pitch = () => {
    at = Math.min(LETTERS.length - 1, Math.max(0, at + Math.round(random() * 6 - 3)));
    return `${random() < 0.07 ? pick(['^', '_', '=']) : ''}${LETTERS[at]}`;
  };
  const dress = (note: string) => {
    const kind = random();
    if (kind < 0.05) return `.${note}`;
    if (kind < 0.08) return `!accent!${note}`;
    if (kind < 0.1) return `!fermata!${note}`;
    if (kind < 0.14) return `{${LETTERS[at]}}${note}`;
    if (kind < 0.17) return `~${note}`;
    return note;
  };
  const bar = () => {
    let left = eighths;
    let text = '';
    while (left > 0) {
      const kind = random();
      if (kind < 0.22 && left >= 2) {
        text += `(${dress(pitch())}${pitch()})`;
        left -= 2;
      } else if (kind < 0.3 && left >= 3) {
        text += `(${pitch()}${pitch()}${pitch()})`;
        left -= 3;
      } else if (kind < 0.38 && left >= 2) {
        text += `(3${pitch()}${pitch()}${pitch()}`;
        left -= 2;
      } else if (kind < 0.46 && left >= 2) {
        text += `${pitch()}>${pitch()}`;
        left -= 2;
      } else if (kind < 0.6 && left >= 2) {
        text += `${dress(pitch())}2`;
        left -= 2;
      } else if (kind < 0.64 && left >= 1) {
        text += 'z';
        left -= 1;
      } else if (kind < 0.68 && left >= 2) {
        text += `[${LETTERS[Math.max(0, at - 4)]}${LETTERS[at]}]2`;
        left -= 2;
      } else {
        text += dress(pitch());
        left -= 1;
      }
    }
    return text;
  };
  const bars = Array.from({ length: 3 + Math.floor(random() * 5) }, bar);
  return random() < 0.3 ? `|:${bars.join('|')}|1 ${bar()}:|2 ${bar()}||` : `|:${bars.join('|')}:|`;
}

/** Ten parts, each a tune of its own for the engraver, in one document. */
function randomTunes(seed: number): string {
  const random = seeded(seed);
  const [meter, eighths] = (
    [
      ['4/4', 8],
      ['6/8', 6],
      ['2/4', 4],
      ['3/4', 6],
      ['9/8', 9],
    ] as const
  )[seed % 5]!;
  const key = ['D', 'G', 'A', 'Bb', 'Ador', 'Em', 'F'][seed % 7]!;
  const parts = Array.from({ length: 10 }, () => randomPart(random, eighths));
  return `X:1\nT:Random ${seed}\nM:${meter}\nL:1/8\nK:${key}\n${parts.join('\n')}\n`;
}

/** Runs in the page: what touches what on every line, in words. */
function collisions(): { found: string[]; signs: number } {
  const found: string[] = [];
  let signs = 0;
  interface Box {
    left: number;
    right: number;
    top: number;
    bottom: number;
  }
  const touches = (a: Box, b: Box) => a.left < b.right && a.right > b.left && a.top < b.bottom && a.bottom > b.top;
  for (const line of document.querySelectorAll('[data-line]')) {
    const staff = line.querySelector<SVGSVGElement>('.engraving svg')!;
    const layer = line.querySelector<SVGSVGElement>('svg[data-layer="signs"]')!;
    // All places in the staff drawing's own pixels: the layer shows the same ones through its view box.
    const name = line.getAttribute('data-line');
    const heads: Box[] = [...staff.querySelectorAll<SVGTextElement>('.vf-notehead text')].map((text) => {
      const { x, width } = text.getBBox();
      const y = Number(text.getAttribute('y'));
      // A dot of a dotted note is drawn with it, and is smaller.
      const half = width < 8 ? 2 : 5;
      return { left: x, right: x + width, top: y - half, bottom: y + half };
    });
    const stems: Box[] = [...staff.querySelectorAll<SVGPathElement>('.vf-stem path')].map((path) => {
      const { x, y, width, height } = path.getBBox();
      return { left: x - 0.75, right: x + width + 0.75, top: y, bottom: y + height };
    });
    const beams = [...staff.querySelectorAll<SVGPathElement>('.vf-beam path')];
    const inBeam = (x: number, y: number) => beams.some((beam) => beam.isPointInFill(new DOMPoint(x, y)));
    const parts = (selector: string) =>
      (layer.querySelector(selector)?.getAttribute('d') ?? '').split('Z').flatMap((d) => {
        if (d === '') return [];
        const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        path.setAttribute('d', `${d}Z`);
        return [path];
      });
    const curves = parts('[data-sign="curves"]').map((path) => {
      const length = path.getTotalLength();
      const points: DOMPoint[] = [];
      for (let at = 0; at < length; at += 2) points.push(path.getPointAtLength(at));
      const xs = points.map(({ x }) => x);
      const [from, to] = [Math.min(...xs), Math.max(...xs)];
      return points.filter(({ x }) => x > from + 8 && x < to - 8);
    });
    const bows = parts('[data-sign="bows"]').map((path): Box => {
      layer.append(path);
      const { x, y, width, height } = path.getBBox();
      path.remove();
      return { left: x, right: x + width, top: y, bottom: y + height };
    });
    const fingers = [...layer.querySelectorAll<SVGTextElement>('[data-sign="fingers"] text')].map((text): Box => {
      const [x, y] = [Number(text.getAttribute('x')), Number(text.getAttribute('y'))];
      return { left: x - 3.5, right: x + 3.5, top: y - 8.5, bottom: y };
    });
    const endings = [...layer.querySelectorAll<SVGPathElement>('[data-sign="endings"] path')].map((path): Box => {
      const { x, y, width } = path.getBBox();
      return { left: x, right: x + width, top: y - 0.6, bottom: y + 0.6 };
    });
    signs += bows.length + fingers.length + curves.length;

    const report = (what: string, a: Box, to: string) =>
      found.push(`${name}: ${what} at ${a.left.toFixed(0)},${a.top.toFixed(0)} touches ${to}`);
    for (const [what, boxes] of [
      ['bow sign', bows],
      ['finger', fingers],
      ['ending', endings],
    ] as const)
      for (const box of boxes) {
        if (heads.some((head) => touches(box, head))) report(what, box, 'a notehead');
        if (stems.some((stem) => touches(box, stem))) report(what, box, 'a stem');
        for (let x = box.left; x <= box.right; x += 2)
          if (inBeam(x, box.top) || inBeam(x, box.bottom)) {
            report(what, box, 'a beam');
            break;
          }
        const isOnCurve = curves.some((points) =>
          points.some(({ x, y }) => x > box.left && x < box.right && y > box.top && y < box.bottom),
        );
        if (isOnCurve) report(what, box, 'a slur');
      }
    for (const [i, bow] of bows.entries())
      if (bows.some((other, k) => k > i && touches(bow, other))) report('bow sign', bow, 'another');
    for (const points of curves)
      for (const { x, y } of points) {
        const box = { left: x - 0.2, right: x + 0.2, top: y - 0.2, bottom: y + 0.2 };
        const touched = heads.some((head) => touches(box, head))
          ? 'a notehead'
          : stems.some((stem) => touches(box, stem))
            ? 'a stem'
            : inBeam(x, y)
              ? 'a beam'
              : null;
        if (touched) {
          report('slur', box, touched);
          break;
        }
      }
  }
  return { found, signs };
}

async function look(page: Page): Promise<{ found: string[]; signs: number }> {
  await expect(page.locator('[data-line]').last().locator('[data-sign="bows"]')).toBeAttached();
  return page.evaluate(collisions);
}

/** Every tune that the demo loads. */
const DEMO_TITLES = readdirSync('demo')
  .filter((file) => file.endsWith('.abc'))
  .flatMap((file) => readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes.map(({ tune }) => tune.title));

test('in the demo tunes no sign touches what is not its own', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  expect(DEMO_TITLES.length).toBeGreaterThan(10);
  for (const title of some(DEMO_TITLES)) {
    await page.goto(`/?words=${encodeURIComponent(title)}`);
    await page.getByRole('link', { name: title, exact: true }).first().click();
    const { found, signs } = await look(page);
    expect({ title, found }).toEqual({ title, found: [] });
    expect(signs).toBeGreaterThan(100);
  }
});

test('in tunes at random no sign touches what is not its own', async ({ page, request }) => {
  test.setTimeout(240_000);
  const found: string[] = [];
  let signs = 0;
  const seeds = Math.max(4, cases(20));
  for (let seed = 1; seed <= seeds; seed++) {
    const { tune } = readAbc(randomTunes(seed)).tunes[0]!;
    const added = await request.post('/api/tunes', { data: { tunes: [{ tune }] } });
    const { tunes } = (await added.json()) as { tunes: { id: string }[] };
    await page.goto(`/tunes/${tunes[0]!.id}`);
    const seen = await look(page);
    found.push(...seen.found.map((words) => `${seed} ${words}`));
    signs += seen.signs;
  }
  console.log(`${signs} signs, ${found.length} touch`);
  expect(found.slice(0, 20)).toEqual([]);
  expect(signs).toBeGreaterThan(500 * seeds);
});
