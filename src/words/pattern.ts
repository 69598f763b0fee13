import type { Words } from '#contract/settings';

/** `Pair-first shuffle`, or `Long-first shuffle` where they say so; a pattern of the player's own is named by its strokes. */
export function patternWords(name: string, { phases }: Words): string {
  const named =
    phases === 'long-first' ? name.replace('pair-first', 'long-first').replace('singles-first', 'short-first') : name;
  const words = /-and-|three-three/.test(named) ? named : named.replace(/-(?!first)/g, ' ');
  return words[0]!.toUpperCase() + words.slice(1);
}
