import { useMemo } from 'react';
import type { NamedTuning } from '#core/crossTuning';
import { parseTuning, tuningName, TUNINGS } from '#core/tuning';
import { usePegsQuery } from '../api/pegsApi';

/** The library's tunings and the player's own, variants under the name of their tuning. */
export function useKnownTunings(): readonly NamedTuning[] {
  const { data } = usePegsQuery();
  return useMemo(() => {
    const own = (data?.pegs.tunings ?? []).flatMap(({ name, strings, variants }) =>
      [
        { name, strings },
        ...variants.map((variant) => ({ name: `${name}, ${variant.source}`, strings: variant.strings })),
      ].map(({ name: called, strings: text }) => ({ name: called, tuning: parseTuning(text)! })),
    );
    const known = new Set(TUNINGS.map(({ tuning }) => tuningName(tuning)));
    return [...TUNINGS, ...own.filter(({ tuning }) => !known.has(tuningName(tuning)))];
  }, [data]);
}
