import { Renderer, type SVGContext } from 'vexflow/core';
import { barContent } from './barContent';
import { type BarInk, engraveBar } from './engraveBar';
import { type LineGeometry, STAFF_SPACE, STAFF_TOP } from './geometry';
import { barEngravingKey, type LineSpec } from './lines';
import { type BarExtent, spaceLine } from './spacing';
import { makeStave, staveLead } from './staves';

const DRAWING_HEIGHT = 240;

/** A bar as it stands in the drawing, to be left alone by edits of others. */
interface KeptBar {
  /** Stands for all that the drawing shows of the bar. */
  readonly key: string;
  readonly group: SVGElement;
  readonly ink: BarInk;
}

/**
 * Draws lines into an element and tells where everything came to stand. A bar that looks the same as before at the
 * same place keeps its drawing, so that an edit costs one bar as long as it leaves the spacing alone.
 */
export function lineEngraver(element: HTMLElement): (line: LineSpec, width: number) => LineGeometry {
  const renderer = new Renderer(element as HTMLDivElement, Renderer.Backends.SVG);
  const context = renderer.getContext() as SVGContext;
  let kept: readonly KeptBar[] = [];
  let drawnWidth = 0;

  return (line, width) => {
    if (width !== drawnWidth) renderer.resize(width, DRAWING_HEIGHT);
    drawnWidth = width;
    const contents = line.bars.map(barContent);
    const leads = line.bars.map((_, i) => staveLead(line, i));
    const places = spaceLine(line, contents, leads, width);
    const before = new Map(kept.map((bar) => [bar.key, bar]));
    const bars = line.bars.map((bar, i): KeptBar => {
      const key = `${i} ${placeKey(places[i]!)} ${barEngravingKey(line, i)}`;
      const same = before.get(key);
      if (same) return same;
      const { x, endX, noteXs } = places[i]!;
      const group = context.openGroup('bar');
      const stave = makeStave(line, i, x, endX - x);
      const ink = engraveBar(context, stave, { content: contents[i]!, noteXs, meter: bar.meter, barIndex: i });
      context.closeGroup();
      return { key, group, ink };
    });
    const standing = new Set(bars);
    for (const bar of kept) if (!standing.has(bar)) bar.group.remove();
    kept = bars;
    const notes = bars.flatMap(({ ink }) => ink.notes);
    const rests = bars.flatMap(({ ink }) => ink.rests);
    return {
      width,
      staffTop: STAFF_TOP,
      staffBottom: STAFF_TOP + 4 * STAFF_SPACE,
      notes,
      rests,
      bars: line.bars.map(({ id }, i) => {
        const { x, endX, contentX } = places[i]!;
        return { id, x, endX, contentX };
      }),
      tuplets: bars.flatMap(({ ink }) => ink.tuplets),
      obstacles: bars.flatMap(({ ink }) => ink.obstacles),
      musicX: [...notes, ...rests].reduce((least, { x }) => Math.min(least, x), width),
      endX: places[places.length - 1]?.endX ?? width,
    };
  };
}

function placeKey({ x, endX, noteXs }: BarExtent): string {
  return [x, endX, ...noteXs].map((pixels) => pixels.toFixed(2)).join(' ');
}
