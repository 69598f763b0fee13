import type { Retune } from '#contract/retune';
import { pitchName } from '#core/pitch';
import type { RetunePlan, StringWarning } from '#core/tuning';

/** Said with every plan, whatever it asks. */
export const SAFETY: readonly string[] = [
  'Turn slowly, face and eyes away from the string, and push the peg in as you turn.',
  'Watch that the bridge stays upright; never slacken more than one string at a time.',
  'No old string above a tone up.',
  'With a valuable or old instrument, a tuning that raises the total tension, or pegs that slip or stick: ask a luthier.',
];

const WARNINGS: Record<StringWarning, string> = {
  'above-a-tone': 'more than a tone above what the string is made for: it may break',
  'very-slack': 'so slack that it hardly speaks',
};

const rounded = (value: number) => Math.round(value * 1e4) / 1e4;

export function toRetune({ strings, steps, totalTensionRatio, totalWarning }: RetunePlan): Retune {
  return {
    strings: strings.map((string) => ({
      place: string.place,
      from: pitchName(string.from),
      to: pitchName(string.to),
      semitones: string.semitones,
      tensionRatio: rounded(string.tensionRatio),
      newtons: { from: rounded(string.newtons.from), to: rounded(string.newtons.to) },
      warnings: string.warnings.map((warning) => WARNINGS[warning]),
    })),
    totalTensionRatio: rounded(totalTensionRatio),
    steps: steps.map(({ from, to, ...step }) => ({ ...step, from: pitchName(from), to: pitchName(to) })),
    warnings: totalWarning
      ? [`the total tension rises by ${Math.round(100 * (totalTensionRatio - 1))} %: ask a luthier first`]
      : [],
    safety: [...SAFETY],
  };
}
