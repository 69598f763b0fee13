import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { bar, note, randomTune, seeded, tune } from '../../core/testing/tunes';
import type { LineGeometry, NoteBox, Obstacle } from './geometry';
import { scoreLines } from './lines';
import { layOutSigns } from './signs';

const TOP = 90;

/** A line as an engraver might have drawn it: heads at random heights, stems away from the middle line. */
function geometryFor(ids: readonly string[], seed: number): LineGeometry {
  const random = seeded(seed);
  const notes = ids.map((id, i): NoteBox => {
    const x = 60 + i * 26;
    const headY = TOP - 15 + 5 * Math.floor(random() * 15);
    const stemUp = headY > TOP + 20;
    const stemTipY = headY + (stemUp ? -35 : 35);
    return {
      id,
      x,
      headY,
      lowHeadY: headY,
      headLeft: x - 6,
      headRight: x + 6,
      stemUp,
      hasStem: true,
      stemTipY,
      barIndex: 0,
      beamed: false,
    };
  });
  const obstacles = notes.flatMap(({ headLeft, headRight, headY, stemUp, stemTipY }): Obstacle[] => [
    { left: headLeft, right: headRight, top: headY - 5.5, bottom: headY + 5.5 },
    {
      left: (stemUp ? headRight : headLeft) - 1,
      right: (stemUp ? headRight : headLeft) + 1,
      top: Math.min(headY, stemTipY),
      bottom: Math.max(headY, stemTipY),
    },
  ]);
  return {
    width: 100 + ids.length * 26,
    staffTop: TOP,
    staffBottom: TOP + 40,
    notes,
    rests: [],
    bars: [],
    tuplets: [],
    obstacles,
    musicX: 60,
    endX: 100 + ids.length * 26,
  };
}

test('no bow sign touches a head, a stem or another sign, and each stroke has one', () => {
  let signs = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const tune = randomTune(seed);
    const states = noteStates(reportTune(tune), {});
    const bare = scoreLines(tune, 99).map((line) => ({
      ...line,
      bars: line.bars.map((bar) => ({ ...bar, ending: null })),
    }));
    for (const line of bare) {
      const ids = line.bars.flatMap(({ events }) => events.flatMap(({ kind, id }) => (kind === 'note' ? [id] : [])));
      const geometry = geometryFor(ids, seed);
      const { bows } = layOutSigns(line, geometry, states);
      expect(bows.map(({ id }) => id)).toEqual(ids.filter((id) => states.get(id)?.inStroke === 1));
      for (const { x, y } of bows) {
        expect(y).toBeLessThan(TOP);
        const touched = geometry.obstacles.filter(
          ({ left, right, top, bottom }) => right > x - 5 && left < x + 5 && bottom > y - 11 && top < y,
        );
        expect({ seed, touched }).toEqual({ seed, touched: [] });
      }
      signs += bows.length;
    }
  }
  expect(signs).toBeGreaterThan(500);
});

test('a note and what is tied to it have a tie and no slur; slurred on from there, they have both', () => {
  const curvesOf = (joined: boolean) => {
    const held = note('n1', 'D5', 4, { tie: true });
    const t = tune([
      {
        name: 'A',
        events: [bar('b1'), held, note('n2', 'D5', 2), note('n3', 'E5', 2, { link: joined ? 'slur' : 'change' })],
      },
    ]);
    const states = noteStates(reportTune(t), {});
    const line = scoreLines(t, 4)[0]!;
    const { curves } = layOutSigns(line, geometryFor(['n1', 'n2', 'n3'], 5), states);
    return curves.split('M').length - 1;
  };
  expect(curvesOf(false)).toBe(1);
  expect(curvesOf(true)).toBe(2);
});
