import { Plus, Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { type OwnTuning, type Pegs, tuningText } from '#contract/pegs';
import { parseTuning, tuningName, TUNINGS } from '#core/tuning';
import { writtenPitch } from '#words/pitch';
import { Button, SignButton } from '../ui/Button';

interface TuningChoiceProps {
  readonly pegs: Pegs;
  /** Strings of the tuning wanted. */
  readonly to: string;
  readonly onTo: (strings: string) => void;
  readonly onPegs: (pegs: Pegs, label: string) => void;
}

const INPUT = 'rounded-md border border-soft bg-surface px-2 py-1';
/** Value of an option of one's own: its strings, and which tuning it is of. */
const ownValue = (strings: string, id: string) => `${strings}#${id}`;
const written = (strings: string) => parseTuning(strings)!.map(writtenPitch).join(' ');

/** The tunings of the library and the player's own, and one more. */
export function TuningChoice({ pegs, to, onTo, onPegs }: TuningChoiceProps) {
  const [isAdding, setAdding] = useState(false);
  const select = useId();
  const known = new Set([
    ...TUNINGS.map(({ tuning }) => tuningName(tuning)),
    ...pegs.tunings.flatMap(({ strings, variants }) => [strings, ...variants.map((variant) => variant.strings)]),
  ]);
  // Two tunings of one's own may have the same strings: the one that was chosen is meant, else the first.
  const [chosen, setChosen] = useState<string | null>(null);
  const same = pegs.tunings.filter(({ strings, variants }) => strings === to || variants.some((v) => v.strings === to));
  const isNamed = TUNINGS.some(({ tuning }) => tuningName(tuning) === to);
  const own = same.find(({ id }) => id === chosen) ?? (isNamed ? undefined : same[0]);
  const value = own ? ownValue(to, own.id) : to;
  return (
    <div>
      <div className="flex flex-wrap items-center gap-2">
        <label htmlFor={select} className="text-muted">
          into
        </label>
        <select
          id={select}
          className={INPUT}
          value={value}
          onChange={({ target }) => {
            const [strings, id] = target.value.split('#');
            setChosen(id ?? null);
            onTo(strings!);
          }}
        >
          {!known.has(to) && <option value={to}>{written(to)}</option>}
          <optgroup label="Library">
            {TUNINGS.map(({ name, tuning }) => (
              <option key={name} value={tuningName(tuning)}>
                {tuning.map(writtenPitch).join(' ')}, {name}
              </option>
            ))}
          </optgroup>
          {pegs.tunings.length > 0 && (
            <optgroup label="Your own">
              {pegs.tunings.flatMap(({ id, name, strings, variants }) => [
                <option key={id} value={ownValue(strings, id)}>
                  {written(strings)}, {name}
                </option>,
                ...variants.map((variant) => (
                  <option key={`${id} ${variant.strings} ${variant.source}`} value={ownValue(variant.strings, id)}>
                    {written(variant.strings)}, {name} ({variant.source})
                  </option>
                )),
              ])}
            </optgroup>
          )}
        </select>
        <Button look="small" aria-expanded={isAdding} onClick={() => setAdding(!isAdding)}>
          <Plus size={14} className="mr-1 inline align-[-2px]" aria-hidden />
          your own
        </Button>
        {own && (
          <SignButton
            label={`Delete the tuning ${own.name}`}
            onClick={() =>
              onPegs({ ...pegs, tunings: pegs.tunings.filter(({ id }) => id !== own.id) }, `tuning ${own.name} deleted`)
            }
          >
            <Trash2 size={16} aria-hidden />
          </SignButton>
        )}
      </div>
      {isAdding && (
        <OwnForm
          tunings={pegs.tunings}
          onAdd={(tunings, id, strings, label) => {
            onPegs({ ...pegs, tunings }, label);
            setChosen(id);
            onTo(strings);
            setAdding(false);
          }}
        />
      )}
    </div>
  );
}

interface OwnFormProps {
  readonly tunings: readonly OwnTuning[];
  readonly onAdd: (tunings: OwnTuning[], id: string, strings: string, label: string) => void;
}

/** A tuning typed low to high with octaves; under a name that is there already it is kept as a variant with its source. */
function OwnForm({ tunings, onAdd }: OwnFormProps) {
  const [name, setName] = useState('');
  const [strings, setStrings] = useState('');
  const [source, setSource] = useState('');
  const hint = useId();
  const read = tuningText.safeParse(strings.trim());
  const same = tunings.find((tuning) => tuning.name.toLowerCase() === name.trim().toLowerCase());
  const problem = read.success ? null : (read.error.issues[0]?.message ?? '');
  const needsSource = same !== undefined && source.trim() === '';
  const canAdd = read.success && name.trim() !== '' && !needsSource;
  return (
    <form
      className="mt-2 flex flex-col gap-2 rounded-md border border-line px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!read.success || !canAdd) return;
        const made = read.data;
        if (same) {
          const variants = [...same.variants, { strings: made, source: source.trim() }];
          onAdd(
            tunings.map((tuning) => (tuning === same ? { ...tuning, variants } : tuning)),
            same.id,
            made,
            `variant of ${same.name}`,
          );
        } else {
          const own: OwnTuning = {
            id: crypto.randomUUID(),
            name: name.trim(),
            strings: made,
            source: source.trim(),
            variants: [],
          };
          onAdd([...tunings, own], own.id, made, `tuning ${own.name}`);
        }
      }}
    >
      <label className="flex flex-wrap items-center gap-2">
        <span className="w-24">Name</span>
        <input
          className={`${INPUT} min-w-0 flex-1`}
          value={name}
          maxLength={60}
          onChange={({ target }) => setName(target.value)}
        />
      </label>
      <label className="flex flex-wrap items-center gap-2">
        <span className="w-24">Low to high</span>
        <input
          className={`${INPUT} min-w-0 flex-1`}
          value={strings}
          placeholder="A3 D4 A4 D5"
          spellCheck={false}
          aria-invalid={strings !== '' && problem !== null}
          aria-describedby={hint}
          onChange={({ target }) => setStrings(target.value)}
        />
      </label>
      <p id={hint} className={`text-hint ${strings !== '' && problem ? 'text-madder' : 'text-muted'}`}>
        {strings !== '' && problem ? problem : 'Four pitches with their octaves, the lowest string first.'}
      </p>
      <label className="flex flex-wrap items-center gap-2">
        <span className="w-24">Source</span>
        <input
          className={`${INPUT} min-w-0 flex-1`}
          value={source}
          maxLength={60}
          placeholder={same ? 'needed: this name is there already' : 'who tunes it so, if you know'}
          onChange={({ target }) => setSource(target.value)}
        />
      </label>
      <div>
        <Button look="main" type="submit" disabled={!canAdd}>
          {same ? 'Save as a variant' : 'Save it'}
        </Button>
      </div>
    </form>
  );
}
