import { markPath } from '../score/markPaths';
import type { Legend } from './HandoutLines';
import { wrapped } from './wrapped';

/** Attributes that a drawing takes from the page's styles, and that a file must carry itself. */
const STYLES = [
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-width',
  'stroke-opacity',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-dasharray',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'text-anchor',
] as const;
const TEXT_ONLY = new Set(['font-family', 'font-size', 'font-weight', 'font-style', 'text-anchor']);
const SHAPES = 'path, rect, circle, ellipse, line, text';

/** A piece of a page: drawings laid over each other, as tall as the tallest. */
export interface Block {
  /** SVG markup with its own upper left corner at 0, 0. */
  readonly markup: string;
  readonly height: number;
  /** Height of what begins here and is better not parted; where a page can hold it, it begins on one that does. */
  readonly together?: number;
}

/** A drawing of the page as markup that needs nothing of the page any more, moved to where it stands in its block. */
export function standaloneMarkup(svg: SVGSVGElement, origin: DOMRect, scale: number): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const shapes = svg.querySelectorAll(SHAPES);
  for (const [i, target] of [...copy.querySelectorAll(SHAPES)].entries()) {
    const source = shapes[i]!;
    const style = getComputedStyle(source);
    const isText = source.tagName === 'text';
    for (const name of STYLES) {
      if (TEXT_ONLY.has(name) && !isText) continue;
      const value = style.getPropertyValue(name);
      if (value !== '') target.setAttribute(name, value);
    }
    target.removeAttribute('class');
    target.removeAttribute('style');
  }
  const box = svg.getBoundingClientRect();
  const viewBox = svg.viewBox.baseVal;
  const [x, y] = [(box.left - origin.left) / scale, (box.top - origin.top) / scale];
  const [shiftX, shiftY] = viewBox && viewBox.width > 0 ? [viewBox.x, viewBox.y] : [0, 0];
  return `<g transform="translate(${(x - shiftX).toFixed(2)} ${(y - shiftY).toFixed(2)})">${copy.innerHTML}</g>`;
}

/** All drawings inside an element as one block. */
export function blockOf(element: Element, scale: number): Block {
  const origin = element.getBoundingClientRect();
  const markup = [...element.querySelectorAll('svg')].map((svg) => standaloneMarkup(svg, origin, scale)).join('');
  return { markup, height: origin.height / scale };
}

/** A line of text as a block. */
export function textBlock(
  text: string,
  size: number,
  options: { readonly bold?: boolean; readonly serif?: boolean } = {},
): Block {
  const family = options.serif ? 'Alegreya' : 'Alegreya Sans';
  const weight = options.bold ? '700' : '400';
  const markup = `<text x="0" y="${size}" font-family="${family}" font-size="${size}px" font-weight="${weight}" fill="#000">${escaped(text)}</text>`;
  return { markup, height: size * 1.45 };
}

/** Text as as many lines as it needs within a width. */
export function textBlocks(text: string, size: number, width: number): Block[] {
  return wrapped(text, width, (line) => widthIn(`${size}px "Alegreya Sans"`, line)).map((line) =>
    textBlock(line, size),
  );
}

let ruler: CanvasRenderingContext2D | null = null;

/** How wide text is in a font of the page, in pixels. */
function widthIn(font: string, text: string): number {
  ruler ??= document.createElement('canvas').getContext('2d')!;
  ruler.font = font;
  return ruler.measureText(text).width;
}

/** A sign with what it means, or words alone. */
export function legendBlocks({ sign, words }: Legend, size: number, width: number): Block[] {
  if (sign === null) return textBlocks(words, size, width);
  const { d, isFilled } = markPath(sign, 11, size);
  const ink = isFilled ? 'fill="#000"' : 'fill="none" stroke="#000" stroke-width="1.4"';
  const text = textBlock(words, size);
  return [{ ...text, markup: `<path d="${d}" ${ink}/><g transform="translate(26 0)">${text.markup}</g>` }];
}

/** Blocks set one under the other on as many pages as they need; a block is never cut in two. */
export function pagesOf(blocks: readonly Block[], width: number, height: number): string[] {
  return placedPages(blocks, width, height).pages;
}

/**
 * The same, with the page on which each block begins, counted from 0.
 * @param foot markup at the bottom of a page, by its number from 0, in the room left free for it
 */
export function placedPages(
  blocks: readonly Block[],
  width: number,
  height: number,
  foot?: { readonly height: number; readonly markup: (page: number) => string },
): { pages: string[]; pageOf: number[] } {
  const room = height - (foot?.height ?? 0);
  const pages: string[] = [];
  const pageOf: number[] = [];
  let content = '';
  let y = 0;
  const close = () => {
    if (content === '') return;
    const bottom = foot ? `<g transform="translate(0 ${room.toFixed(2)})">${foot.markup(pages.length)}</g>` : '';
    pages.push(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}">${content}${bottom}</svg>`);
    content = '';
    y = 0;
  };
  for (const block of blocks) {
    const together = block.together ?? 0;
    const needed = together <= room ? Math.max(block.height, together) : block.height;
    if (y > 0 && y + needed > room) close();
    pageOf.push(pages.length);
    content += `<g transform="translate(0 ${y.toFixed(2)})">${block.markup}</g>`;
    y += block.height;
  }
  close();
  return { pages, pageOf };
}

/** Blocks that stay together as one. */
export function stacked(blocks: readonly Block[]): Block {
  let y = 0;
  const markup = blocks.map((block) => {
    const placed = `<g transform="translate(0 ${y.toFixed(2)})">${block.markup}</g>`;
    y += block.height;
    return placed;
  });
  return { markup: markup.join(''), height: y };
}

/** A line of contents: words at the left, a number at the right edge. */
export function contentsBlock(words: string, number: string, width: number, size: number): Block {
  const font = `font-family="Alegreya Sans" font-size="${size}px" fill="#000"`;
  return {
    markup: `<text x="0" y="${size}" ${font}>${escaped(words)}</text><text x="${width}" y="${size}" text-anchor="end" ${font}>${escaped(number)}</text>`,
    height: size * 1.5,
  };
}

/** Blocks on one drawing as tall as they need, with the fonts they name inside it. */
export function singleSvg(blocks: readonly Block[], width: number, fonts: string, widthMm: number): string {
  const height = blocks.reduce((sum, block) => sum + block.height, 0);
  let y = 0;
  const content = blocks.map((block) => {
    const placed = `<g transform="translate(0 ${y.toFixed(2)})">${block.markup}</g>`;
    y += block.height;
    return placed;
  });
  const heightMm = (widthMm * height) / width;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm.toFixed(1)}mm" viewBox="0 0 ${width} ${height.toFixed(1)}"><style>${fonts}</style>${content.join('')}</svg>`;
}

/** A font file as a rule that carries it along. */
export async function fontRule(family: string, url: string, weight = '400'): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer());
  let binary = '';
  for (let i = 0; i < bytes.length; i += 8192) binary += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/woff2;base64,${btoa(binary)}) format("woff2")}`;
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}
