import type { StoredSettings } from '#contract/settings';
import { DOTTED_RATIO_RANGE, dottedRatio } from '#core/tempo';
import type { DanceType } from '#core/tune';
import { NumberField } from '../ui/NumberField';

interface DottedSectionProps {
  readonly settings: StoredSettings;
  readonly onChange: (next: StoredSettings, label: string) => void;
}

/** Dances that are written with dotted pairs and played in time. */
const DOTTED: readonly DanceType[] = [
  'hornpipe',
  'schottische',
  'strathspey',
  'march',
  'polka',
  'mazurka',
  'waltz',
  'reel',
];

/** How long the long note of a written dotted pair is played, in each dance. */
export function DottedSection({ settings, onChange }: DottedSectionProps) {
  const { dottedRatios } = settings;
  const set = (type: DanceType, ratio: number | null) => {
    const { [type]: _old, ...others } = dottedRatios;
    onChange(
      { ...settings, dottedRatios: ratio === null ? others : { ...others, [type]: ratio } },
      `dotted pairs of the ${type}`,
    );
  };
  return (
    <section aria-labelledby="dotted">
      <h2 id="dotted" className="mb-2 text-xl">
        How dotted pairs are played
      </h2>
      <p className="mb-2 text-hint text-muted">
        The long note against the short one: 3 is as written, 2 a swing in thirds, 1 even. The short note is what breaks
        at tempo.
      </p>
      <div className="flex flex-col gap-1">
        {DOTTED.map((type) => (
          <NumberField
            key={type}
            name={type}
            unit="to 1"
            why=""
            value={dottedRatio(type, dottedRatios)}
            usual={dottedRatio(type)}
            low={DOTTED_RATIO_RANGE[0]}
            high={DOTTED_RATIO_RANGE[1]}
            onChange={(value) => set(type, value)}
          />
        ))}
      </div>
    </section>
  );
}
