import type { NoteMark } from '#core/tune';

/** A mark's outline: filled, or drawn as a line. Head marks are centred on (x, y), the others stand on it. */
export function markPath(name: NoteMark, x: number, y: number): { readonly d: string; readonly isFilled: boolean } {
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
    case 'pulse':
      // A sign of our own: the bow swells and comes back.
      return { d: `M${x - 8} ${y - 3}q8-5.5 16 0q-8 5.5-16 0Z`, isFilled: true };
  }
}
