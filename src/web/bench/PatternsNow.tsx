import { useMemo } from 'react';
import type { Words } from '#contract/settings';
import { type PatternRun, recognisePatterns } from '#core/bowing';
import type { Tune } from '#core/tune';
import { patternWords } from '#words/pattern';
import { barSpan } from '#words/spot';

/** Runs of a part that are named before the rest is only counted. */
const RUNS_TOLD = 6;

/** Names the patterns that the tune follows now, part by part. */
export function PatternsNow({ tune, words }: { readonly tune: Tune; readonly words: Words }) {
  const parts = useMemo(() => {
    const byPart = new Map<string, PatternRun[]>();
    for (const run of recognisePatterns(tune)) byPart.set(run.part, [...(byPart.get(run.part) ?? []), run]);
    return [...byPart];
  }, [tune]);
  return (
    <dl className="mb-3 flex max-h-24 flex-wrap gap-x-5 gap-y-0.5 overflow-y-auto text-small" data-patterns-now>
      {parts.map(([part, runs]) => (
        <div key={part} className="flex gap-1.5">
          <dt className="font-serif font-bold text-walnut">{part}</dt>
          <dd>{partWords(runs, words)}</dd>
        </div>
      ))}
    </dl>
  );
}

/** `1–4 pair-first shuffle, 5 no pattern`. */
function partWords(runs: readonly PatternRun[], words: Words): string {
  const told = runs.slice(0, RUNS_TOLD).map(({ from, to, pattern }) => {
    const name = pattern === null ? 'no pattern' : patternWords(pattern, words).toLowerCase();
    return runs.length === 1 ? `${name} throughout` : `${barSpan(from, to)} ${name}`;
  });
  const rest = runs.length - told.length;
  return [...told, ...(rest > 0 ? [`and ${rest} more change${rest === 1 ? '' : 's'}`] : [])].join(', ');
}
