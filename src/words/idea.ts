/** Ways of bowing a bar whose names do not say enough by themselves. */
const IDEAS: Readonly<Record<string, string>> = {
  saw: 'singles',
  'offbeat-pairs-after-a-single-bar': 'offbeat pairs, first bar of each phrase single',
  'into-the-group': 'slurred into the group',
  'hooked-pairs': 'long and short hooked',
  'one-bow-a-bar': 'one bow a bar',
  'half-bar-bows': 'two bows a bar',
  'three-and-singles': 'three and singles',
};

/** What a proposed bowing keeps to, in a few words: `offbeat pairs`. */
export function ideaWords(template: string): string {
  const named = IDEAS[template];
  if (named !== undefined) return named;
  return /-and-|three-three/.test(template) ? template : template.replace(/-(?!first)/g, ' ');
}

/** `offbeat pairs in 14 of 16 bars`, `pair-first shuffle in 10 and one-and-three in 6 of 16 bars`. */
export function ideaInBars(template: string, bars: readonly (string | null)[]): string {
  const kept = template.split(' + ').map((name) => ({
    words: ideaWords(name),
    count: bars.filter((one) => one === name).length,
  }));
  const [only] = kept;
  if (kept.length === 1 && only!.count === bars.length) return `${only!.words} throughout`;
  return `${kept.map(({ words, count }) => `${words} in ${count}`).join(' and ')} of ${bars.length} bars`;
}
