import type { NoteMark } from '#core/tune';

/** What stands over or at a note: a mark, or the breath after it. */
export type ScoreMark = NoteMark | 'breath';

/** A mark's outline: filled, or drawn as a line. Head marks are centred on (x, y), the others stand on it. */
export function markPath(name: ScoreMark, x: number, y: number): { readonly d: string; readonly isFilled: boolean } {
  switch (name) {
    case 'staccato':
      return { d: `M${x - 1.8} ${y}a1.8 1.8 0 1 0 3.6 0a1.8 1.8 0 1 0-3.6 0Z`, isFilled: true };
    case 'tenuto':
      return { d: `M${x - 5} ${y}h10`, isFilled: false };
    case 'accent':
      return { d: `M${x - 5} ${y - 3.5}L${x + 5} ${y}L${x - 5} ${y + 3.5}`, isFilled: false };
    case 'fermata':
      return {
        d: `M${x - 8} ${y}a8 9 0 0 1 16 0h-1.2a6.8 7 0 0 0-13.6 0ZM${x - 1.6} ${y - 2}a1.6 1.6 0 1 0 3.2 0a1.6 1.6 0 1 0-3.2 0Z`,
        isFilled: true,
      };
    case 'trill':
      return {
        d: `M${x - 5} ${y - 9}v6.5q0 2.5 2.5 2M${x - 8} ${y - 7}h6M${x + 0.5} ${y - 7}v6.5M${x + 0.5} ${y - 4.5}q1.5-2.8 4-2.3`,
        isFilled: false,
      };
    case 'roll':
      return { d: `M${x - 8} ${y - 2}q4-8 8-3t8-3`, isFilled: false };
    case 'turn':
      return { d: `M${x - 7} ${y - 3}q0-5 3.5-4t3.5 3.5t3.5 3.5t3.5-4`, isFilled: false };
    case 'mordent':
      return { d: `M${x - 8} ${y - 2}l3-4l3.5 4l3-4l3.5 4l3-4M${x} ${y - 9}v9`, isFilled: false };
    case 'breath':
      return { d: `M${x + 11} ${y - 7}q2.5 1.5 0 6q-.5-2-2-2.5q-1.5-1-.5-2.5q1-1.5 2.5-1Z`, isFilled: true };
    case 'pulse':
      // A sign of our own: the bow swells and comes back.
      return { d: `M${x - 8} ${y - 3}q8-5.5 16 0q-8 5.5-16 0Z`, isFilled: true };
    // The ornaments below have no common sign: each draws what the hand or the bow does.
    case 'bowed-triplet':
      return { d: `M${x - 8} ${y - 1}l2.5-7l2.5 7l2.5-7l2.5 7l2.5-7l2.5 7`, isFilled: false };
    case 'cut':
      return { d: `M${x - 4} ${y - 1}L${x + 4} ${y - 8}M${x - 5} ${y - 5.5}h5`, isFilled: false };
    case 'flick':
      return { d: `M${x - 4} ${y - 8}L${x + 4} ${y - 1}M${x - 4} ${y - 1}q1-4 4-4`, isFilled: false };
    case 'passing-triplet':
      return { d: `M${x - 8} ${y - 1}h4v-3h4v-3h4v-3`, isFilled: false };
    case 'brushed-run':
      return { d: `M${x - 8} ${y - 1}h2M${x - 4} ${y - 3}h2M${x} ${y - 5}h2M${x + 4} ${y - 7}h2`, isFilled: false };
    case 'pressed-in':
      return { d: `M${x - 7} ${y - 4.5}L${x + 6} ${y - 8}v7Z`, isFilled: true };
    case 'slide':
      return { d: `M${x - 7} ${y}q8 0 12-8M${x + 1} ${y - 6}l4-2l1.5 4`, isFilled: false };
    case 'snap':
      return { d: `M${x - 6} ${y - 1}v-7M${x - 6} ${y - 4.5}h11M${x + 5} ${y - 1}v-7`, isFilled: false };
    case 'vibrato':
      return { d: `M${x - 8} ${y - 4}h4q1.5-4 3 0t3 0t3 0t3 0`, isFilled: false };
    case 'vibrato-growing':
      return { d: `M${x - 8} ${y - 4}q2.5-3 5 0t4 0t3 0t2 0t2 0`, isFilled: false };
    case 'closing-swell':
      return { d: `M${x + 8} ${y - 8}L${x - 8} ${y - 4.5}L${x + 8} ${y - 1}`, isFilled: false };
    case 'inferred-string':
      // A question: the string was guessed.
      return { d: `M${x - 3} ${y - 7}q0-3 3-3t3 3q0 2-3 3.5M${x} ${y - 0.5}v0.6`, isFilled: false };
    case 'fade':
      return { d: `M${x - 8} ${y - 8}L${x + 8} ${y - 4.5}L${x - 8} ${y - 1}`, isFilled: false };
    case 'barre':
      return { d: `M${x - 6} ${y - 1}v-6h12v6`, isFilled: false };
  }
}
