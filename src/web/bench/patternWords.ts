/** `Pair-first shuffle`; a pattern of the player's own is named by its strokes. */
export function patternWords(name: string): string {
  const words = /-and-|three-three/.test(name) ? name : name.replace(/-(?!first)/g, ' ');
  return words[0]!.toUpperCase() + words.slice(1);
}
