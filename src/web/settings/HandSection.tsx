import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { SPAN_RANGE, type StoredSettings } from '#contract/settings';
import { type Ban, BAN_REASONS, type BanReason, FREE_HAND, STRING_LENGTHS } from '#core/fingering';
import { FULL_SIZE } from '#core/instrument';
import { type Place, PLACES } from '#core/tune';
import { dayWords, today } from '#words/days';
import { Button, SignButton } from '../ui/Button';
import { NumberField } from '../ui/NumberField';
import { Select } from '../ui/Select';

interface HandSectionProps {
  readonly settings: StoredSettings;
  readonly onChange: (next: StoredSettings, label: string) => void;
}

/** A span that no hand needs to be told: more than a first to a stretched fourth finger. */
const ANY_SPAN = SPAN_RANGE[1];

const REASONS: Readonly<Record<BanReason, string>> = {
  banned: 'I leave it out',
  pain: 'it hurts',
  missing: 'it is missing',
  short: 'it is too short',
};
const FINGERS = { 1: 'first finger', 2: 'second finger', 3: 'third finger', 4: 'fourth finger' } as const;

/** What the fingering hand can and shall do: every change fingers the book anew around it. */
export function HandSection({ settings, onChange }: HandSectionProps) {
  const { hand } = settings;
  const set = (next: Partial<StoredSettings['hand']>, label: string) =>
    onChange({ ...settings, hand: { ...hand, ...next } }, label);
  const size = settings.instrument.stringLengthMm ?? FULL_SIZE.stringLengthMm;
  return (
    <section aria-labelledby="hand">
      <h2 id="hand" className="mb-2 text-xl">
        Your fingering hand
      </h2>
      <div className="flex flex-col gap-1.5">
        <label className="flex items-center gap-2">
          <span className="flex-1">
            Fiddle <span className="text-hint text-muted">sets the string length</span>
          </span>
          <Select
            value={STRING_LENGTHS.some(({ mm }) => mm === size) ? size : null}
            options={[
              ...(STRING_LENGTHS.some(({ mm }) => mm === size) ? [] : [{ value: null, name: 'its own length' }]),
              ...STRING_LENGTHS.map(({ size: name, mm }) => ({ value: mm as number, name: `${name}, ${mm} mm` })),
            ]}
            onChange={(mm) => {
              if (mm === null) return;
              const { stringLengthMm: _old, ...others } = settings.instrument;
              const instrument = mm === FULL_SIZE.stringLengthMm ? others : { ...others, stringLengthMm: mm };
              onChange({ ...settings, instrument }, `fiddle of ${mm} mm`);
            }}
          />
        </label>
        <NumberField
          name="Largest span"
          unit="mm"
          why={`between two fingers in one position; ${ANY_SPAN} is any`}
          value={hand.largestSpanMm ?? ANY_SPAN}
          usual={ANY_SPAN}
          low={SPAN_RANGE[0]}
          high={SPAN_RANGE[1]}
          onChange={(value) => set({ largestSpanMm: value }, value === null ? 'any span' : `spans up to ${value} mm`)}
        />
        <Check
          words="Stay in first position"
          means="what lies beyond is named; a tune can be folded by octave"
          checked={hand.firstPositionOnly}
          onChange={(firstPositionOnly) => set({ firstPositionOnly }, 'first position only')}
        />
        <Check
          words="Prefer stopped notes for vibrato"
          means="when a tune is fingered afresh"
          checked={hand.vibrato}
          onChange={(vibrato) => set({ vibrato }, 'long notes stopped')}
        />
        <Check
          words="I play left-handed"
          means="pictures and words are mirrored"
          checked={settings.leftHanded}
          onChange={(leftHanded) => onChange({ ...settings, leftHanded }, leftHanded ? 'left-handed' : 'right-handed')}
        />
      </div>
      <Bans bans={hand.bans} onBans={(bans, label) => set({ bans }, label)} />
      {JSON.stringify(hand) !== JSON.stringify(FREE_HAND) && (
        <Button className="mt-2" onClick={() => set(FREE_HAND, 'hand limits cleared')}>
          Clear all of these
        </Button>
      )}
    </section>
  );
}

function Check(props: {
  readonly words: string;
  readonly means: string;
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
}) {
  const { words, means, checked, onChange } = props;
  return (
    <label className="flex items-start gap-2">
      <input
        type="checkbox"
        className="mt-1.5 accent-woad"
        checked={checked}
        onChange={({ target }) => onChange(target.checked)}
      />
      <span>
        {words} <span className="text-hint text-muted">{means}</span>
      </span>
    </label>
  );
}

const BANNED_FINGERS = [1, 2, 3, 4] as const;

/** Fingers and strings that are kept from the hand, and one more. */
function Bans({
  bans,
  onBans,
}: {
  readonly bans: readonly Ban[];
  readonly onBans: (bans: Ban[], label: string) => void;
}) {
  const [finger, setFinger] = useState<Ban['finger']>(4);
  const [place, setPlace] = useState<Place | null>(null);
  const [reason, setReason] = useState<BanReason>('banned');
  const isNothing = finger === null && place === null;
  const made: Ban = {
    finger,
    place,
    reason,
    ...(reason === 'pain' ? { date: today() } : {}),
  };
  const isThere = bans.some((ban) => ban.finger === made.finger && ban.place === made.place);
  return (
    <fieldset className="mt-3 rounded-md border border-line px-3 pt-1 pb-3">
      <legend className="px-1 font-bold">Left out</legend>
      {bans.length === 0 && <p className="text-muted">Nothing: every finger plays on every string.</p>}
      <ul className="mb-2">
        {bans.map((ban, i) => (
          <li key={banWords(ban)} className="flex items-center gap-2">
            <span>
              {banWords(ban)}
              <span className="text-muted">
                : {REASONS[ban.reason]}
                {ban.date ? `, since ${dayWords(ban.date)}` : ''}
              </span>
            </span>
            <SignButton
              label={`Allow the ${banWords(ban)} again`}
              onClick={() =>
                onBans(
                  bans.filter((_, k) => k !== i),
                  `${banWords(ban)} allowed`,
                )
              }
            >
              <X size={15} aria-hidden />
            </SignButton>
          </li>
        ))}
      </ul>
      {bans.some(({ reason: why }) => why === 'pain') && (
        <p className="mb-2 rounded-md bg-band px-3 py-1.5 text-small">
          Pain is a stop sign: rest, and see a teacher or a clinician. It stays out of every suggestion until you allow
          it again yourself.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <Select
          label="Finger"
          value={finger}
          options={[
            { value: null, name: 'any finger' },
            ...BANNED_FINGERS.map((number) => ({ value: number, name: FINGERS[number] })),
          ]}
          onChange={setFinger}
        />
        <Select
          label="String"
          value={place}
          options={[
            { value: null, name: 'on any string' },
            ...PLACES.map((name) => ({ value: name, name: `on the ${name} string` })),
          ]}
          onChange={setPlace}
        />
        <Select
          label="Reason"
          value={reason}
          options={BAN_REASONS.map((why) => ({ value: why, name: REASONS[why] }))}
          onChange={setReason}
        />
        <Button
          disabled={isNothing || isThere}
          title={isNothing ? 'Choose a finger, a string or both' : undefined}
          onClick={() => onBans([...bans, made], `${banWords(made)} left out`)}
        >
          <Plus size={14} className="mr-1 inline align-[-2px]" aria-hidden />
          Leave it out
        </Button>
      </div>
    </fieldset>
  );
}

function banWords({ finger, place }: Ban): string {
  const string = place === null ? '' : `${place} string`;
  if (finger === null) return string;
  return place === null ? FINGERS[finger] : `${FINGERS[finger]} on the ${string}`;
}
