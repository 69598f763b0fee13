import type { StoredSettings } from '#contract/settings';
import { REFERENCE_PITCH } from '#core/pitch';
import { DEFAULT_THRESHOLDS, MISTAKE_KINDS, type MistakeKind } from '#core/take';
import { OWN_FACTOR_RANGE } from '#core/tempo';
import { capitalised } from '#words/spot';
import { mistakeName, UNIT_WORDS } from '#words/take';
import { NumberField } from '../ui/NumberField';

interface ListeningSectionProps {
  readonly settings: StoredSettings;
  readonly onChange: (next: StoredSettings, label: string) => void;
}

/** Highest threshold, in the unit of its mistake. */
const MAX_THRESHOLD = 1000;
/** What is told whenever it happens has no threshold to be set. */
const SETTABLE = MISTAKE_KINDS.filter((kind) => DEFAULT_THRESHOLDS[kind].unit !== 'notes');

/** How long what is played freely comes out; what is played to the player is longer by it. */
const OWN_FIELDS = [
  { key: 'hold', name: 'Your holds come out at', why: 'of their length; a take of an air tells it' },
  { key: 'silence', name: 'Your breaths come out at', why: 'of their length' },
] as const;

/** How takes are listened to: the pitch that fiddles are tuned to, and from where on a mistake is told. */
export function ListeningSection({ settings, onChange }: ListeningSectionProps) {
  const { listening } = settings;
  const setThreshold = (kind: MistakeKind, value: number | null) => {
    const { [kind]: _old, ...others } = listening.thresholds;
    const thresholds = value === null ? others : { ...others, [kind]: value };
    onChange({ ...settings, listening: { ...listening, thresholds } }, `threshold of ${mistakeName(kind)}`);
  };
  return (
    <section aria-labelledby="listening">
      <h2 id="listening" className="mb-2 text-xl">
        Listening to takes
      </h2>
      <NumberField
        name="A4 is tuned to"
        unit="Hz"
        why=""
        value={listening.a4}
        usual={REFERENCE_PITCH.usual}
        low={REFERENCE_PITCH.min}
        high={REFERENCE_PITCH.max}
        onChange={(a4) =>
          onChange({ ...settings, listening: { ...listening, a4: a4 ?? REFERENCE_PITCH.usual } }, 'reference pitch')
        }
      />
      {OWN_FIELDS.map(({ key, name, why }) => (
        <NumberField
          key={key}
          name={name}
          unit="%"
          why={why}
          value={Math.round(100 * listening.own[key])}
          usual={100}
          low={100 * OWN_FACTOR_RANGE.min}
          high={100 * OWN_FACTOR_RANGE.max}
          onChange={(percent) =>
            onChange(
              { ...settings, listening: { ...listening, own: { ...listening.own, [key]: (percent ?? 100) / 100 } } },
              name.toLowerCase(),
            )
          }
        />
      ))}
      <details className="mt-1">
        <summary className="min-h-6 cursor-pointer text-woad underline underline-offset-3">
          From where on a mistake is told
        </summary>
        <p className="mb-1 text-hint text-muted">All guesses of a teacher’s ear. A take without mistakes is clean.</p>
        <div className="flex flex-col gap-1">
          {SETTABLE.map((kind) => {
            const { value, unit, isLeast } = DEFAULT_THRESHOLDS[kind];
            return (
              <NumberField
                key={kind}
                name={capitalised(mistakeName(kind))}
                unit={UNIT_WORDS[unit]}
                why={isLeast ? 'below' : 'from'}
                value={listening.thresholds[kind] ?? value}
                usual={value}
                low={0.5}
                high={MAX_THRESHOLD}
                onChange={(next) => setThreshold(kind, next)}
              />
            );
          })}
        </div>
      </details>
    </section>
  );
}
