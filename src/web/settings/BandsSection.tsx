import { BAND_RANGE, type StoredSettings } from '#contract/settings';
import { beatUnit, REGIONS, type TempoBand, tempoBand } from '#core/tempo';
import { DANCE_TYPES, type DanceType, type Meter } from '#core/tune';
import { beatWords } from '#words/tempo';
import { NumberField } from '../ui/NumberField';
import { Select } from '../ui/Select';

interface BandsSectionProps {
  readonly settings: StoredSettings;
  readonly onChange: (next: StoredSettings, label: string) => void;
}

/** A usual meter of each dance, for the beat in which its band is told. */
const METERS: Readonly<Record<DanceType, Meter>> = {
  reel: { num: 4, den: 4 },
  hoedown: { num: 2, den: 4 },
  breakdown: { num: 2, den: 4 },
  hornpipe: { num: 4, den: 4 },
  schottische: { num: 4, den: 4 },
  jig: { num: 6, den: 8 },
  'slip jig': { num: 9, den: 8 },
  slide: { num: 12, den: 8 },
  polka: { num: 2, den: 4 },
  march: { num: 2, den: 4 },
  waltz: { num: 3, den: 4 },
  mazurka: { num: 3, den: 4 },
  strathspey: { num: 4, den: 4 },
  air: { num: 3, den: 4 },
};

/** At which tempos each dance is danced where the player plays: by region, and own ones in their place. */
export function BandsSection({ settings, onChange }: BandsSectionProps) {
  const { bands } = settings;
  const set = (type: DanceType, band: TempoBand | null) => {
    const { [type]: _old, ...others } = bands.own;
    onChange(
      { ...settings, bands: { ...bands, own: band ? { ...others, [type]: band } : others } },
      `band of the ${type}`,
    );
  };
  return (
    <section aria-labelledby="bands">
      <h2 id="bands" className="mb-2 text-xl">
        How fast it is danced
      </h2>
      <label className="mb-2 flex flex-wrap items-center gap-2">
        where
        <Select
          label="Region of the bands"
          value={bands.region}
          options={REGIONS}
          onChange={(region) => onChange({ ...settings, bands: { ...bands, region } }, `bands of the ${region}`)}
        />
        <span className="text-hint text-muted">All guesses. A tune that names no tempo gets the middle.</span>
      </label>
      <div className="flex flex-col gap-1">
        {DANCE_TYPES.map((type) => {
          const band = tempoBand(type, { ...bands, own: bands.own });
          const usual = tempoBand(type, { region: bands.region, own: {} });
          const beat = beatWords(beatUnit(type, METERS[type]));
          return (['low', 'high'] as const).map((end) => (
            <NumberField
              key={`${type} ${end}`}
              name={`${type}, ${end === 'low' ? 'slowest' : 'quickest'}`}
              unit={beat}
              why=""
              value={band[end]}
              usual={usual[end]}
              low={end === 'low' ? BAND_RANGE[0] : band.low + 1}
              high={end === 'low' ? band.high - 1 : BAND_RANGE[1]}
              onChange={(value) => {
                const next = { ...band, [end]: value ?? usual[end] };
                const isDefault = next.low === usual.low && next.high === usual.high;
                if (next.low < next.high) set(type, isDefault ? null : next);
              }}
            />
          ));
        })}
      </div>
    </section>
  );
}
