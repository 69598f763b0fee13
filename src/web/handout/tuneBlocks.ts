import type { TuneReport } from '#core/report';
import { type Block, blockOf, stacked, textBlock, textBlocks } from './composeSvg';
import { headWords } from './HandoutLines';

/** The engraved lines of a sheet. */
export function linesIn(sheet: HTMLElement, scale: number): Block[] {
  return [...sheet.querySelectorAll('[data-handout-line]')].map((line) => blockOf(line, scale));
}

interface TuneLook {
  readonly width: number;
  readonly scale: number;
  readonly titlePx: number;
  readonly headPx: number;
}

/** A tune as blocks: its head stays with its first line, and the whole on one page where a page can hold it. */
export function tuneBlocks(report: TuneReport, sheet: HTMLElement, look: TuneLook): Block[] {
  const [first, ...rest] = linesIn(sheet, look.scale);
  const begin = stacked([
    textBlock(report.tune.title, look.titlePx, { bold: true, serif: true }),
    ...textBlocks(headWords(report), look.headPx, look.width),
    { markup: '', height: 8 },
    ...(first ? [first] : []),
  ]);
  return [{ ...begin, together: rest.reduce((sum, { height }) => sum + height, begin.height) }, ...rest];
}
