import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type Fiddle, newFiddle, type Pegs } from '#contract/pegs';
import { INSTRUMENT_RANGES } from '#contract/settings';
import { PLACES } from '#core/tune';
import { TENSION_NEWTONS } from '#core/tuning';
import { type PlayedDay, stringHours } from '#core/upkeep';
import { dayWords, today } from '#words/days';
import { Button, SignButton } from '../ui/Button';
import { NumberField } from '../ui/NumberField';
import { Sheet } from '../ui/Sheet';
import { SmallTable } from '../ui/SmallTable';
import { GapChart } from './GapChart';
import { UpkeepSection } from './UpkeepSection';

interface FiddleSheetProps {
  readonly pegs: Pegs;
  readonly fiddle: Fiddle;
  /** Minutes that were logged day by day. */
  readonly played: readonly PlayedDay[];
  /** Whether what the tunes are counted with is this fiddle. */
  readonly isCounted: boolean;
  readonly onPegs: (pegs: Pegs, label: string) => void;
  readonly onCount: () => void;
  readonly onClose: () => void;
}

const INPUT = 'rounded-md border border-line bg-surface px-2 py-0.5';

/** A fiddle: its sizes, its strings with their age, and the bow's hair. Kept as it is changed. */
export function FiddleSheet({ pegs, fiddle, played, isCounted, onPegs, onCount, onClose }: FiddleSheetProps) {
  const set = (next: Partial<Fiddle>, label: string) =>
    onPegs({ ...pegs, fiddles: pegs.fiddles.map((one) => (one.id === fiddle.id ? { ...one, ...next } : one)) }, label);
  const setString = (at: number, next: Partial<Fiddle['strings'][number]>, label: string) =>
    set({ strings: fiddle.strings.map((string, i) => (i === at ? { ...string, ...next } : string)) }, label);
  return (
    <Sheet
      open
      onOpenChange={onClose}
      wide
      title="Fiddle and strings"
      description="Changes are saved as you make them; undo is beside the fiddle’s name."
    >
      <div className="flex flex-col gap-4">
        <NameField key={fiddle.id} name={fiddle.name} onName={(name) => set({ name }, 'name of the fiddle')} />
        <div className="grid gap-x-8 gap-y-1 lg:grid-cols-2">
          <NumberField
            name="String length"
            unit="mm"
            why="nut to bridge"
            value={fiddle.stringLengthMm}
            usual={328}
            low={INSTRUMENT_RANGES.stringLengthMm[0]}
            high={INSTRUMENT_RANGES.stringLengthMm[1]}
            onChange={(value) => set({ stringLengthMm: value ?? 328 }, 'string length')}
          />
          <NumberField
            name="Bridge radius"
            unit="mm"
            why=""
            value={fiddle.bridgeRadiusMm}
            usual={42}
            low={INSTRUMENT_RANGES.bridgeRadiusMm[0]}
            high={INSTRUMENT_RANGES.bridgeRadiusMm[1]}
            onChange={(value) => set({ bridgeRadiusMm: value ?? 42 }, 'bridge radius')}
          />
          <NumberField
            name="Usable hair"
            unit="cm"
            why="frog to tip"
            value={fiddle.hairCm}
            usual={63}
            low={INSTRUMENT_RANGES.hairCm[0]}
            high={INSTRUMENT_RANGES.hairCm[1]}
            onChange={(value) => set({ hairCm: value ?? 63 }, 'usable hair')}
          />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-woad"
              checked={fiddle.isOld}
              onChange={({ target }) => set({ isOld: target.checked }, 'an old instrument')}
            />
            an old or valuable instrument
          </label>
        </div>
        <section>
          <h3 className="mb-1 text-section">Strings</h3>
          <SmallTable
            label="Strings"
            heads={['place', 'kind', 'fitted on', 'hours played', 'tension at its usual pitch', { hidden: 'new' }]}
          >
            {fiddle.strings.map((string, i) => (
              <tr key={PLACES[i]} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-3">
                  {PLACES[i]}
                </th>
                <td className="py-1.5 pr-3">
                  <TextCell
                    label={`Kind of the ${PLACES[i]} string`}
                    value={string.name}
                    onText={(name) => setString(i, { name }, `${PLACES[i]} string`)}
                  />
                </td>
                <td className="py-1.5 pr-3">
                  <input
                    type="date"
                    className={INPUT}
                    aria-label={`The ${PLACES[i]} string was fitted on`}
                    max={today()}
                    value={string.fittedOn ?? ''}
                    onChange={({ target }) =>
                      setString(
                        i,
                        { fittedOn: target.value === '' ? null : target.value },
                        `${PLACES[i]} string fitted`,
                      )
                    }
                  />
                </td>
                <td className="py-1.5 pr-3">
                  <FigureCell
                    label={`Hours on the ${PLACES[i]} string`}
                    unit="h"
                    value={Math.round(stringHours(string, played))}
                    low={0}
                    high={5000}
                    onFigure={(hours) => setString(i, { hours, hoursOn: today() }, `hours of the ${PLACES[i]} string`)}
                  />
                </td>
                <td className="py-1.5 pr-3">
                  <FigureCell
                    label={`Tension of the ${PLACES[i]} string`}
                    unit="N"
                    value={string.newtons}
                    low={10}
                    high={120}
                    onFigure={(newtons) => setString(i, { newtons }, `tension of the ${PLACES[i]} string`)}
                  />
                </td>
                <td className="py-1.5 text-right">
                  <Button
                    look="small"
                    className="whitespace-nowrap"
                    onClick={() =>
                      setString(
                        i,
                        { fittedOn: today(), hours: 0, hoursOn: null, newtons: string.newtons },
                        `new ${PLACES[i]} string`,
                      )
                    }
                  >
                    new today
                  </Button>
                </td>
              </tr>
            ))}
          </SmallTable>
          <p className="text-hint text-muted">
            Hours that you log are added. Typical tensions are guesses ({TENSION_NEWTONS.join(', ')} N); the maker’s own
            are better.
          </p>
        </section>
        <HairGaps fiddle={fiddle} onSet={set} />
        <UpkeepSection fiddle={fiddle} played={played} onSet={set} />
        <div className="flex flex-wrap gap-2">
          <Button look="main" disabled={isCounted} onClick={onCount}>
            {isCounted ? 'Tunes are checked with it' : 'Check all tunes with this fiddle'}
          </Button>
          <Button
            onClick={() => {
              const made = newFiddle(crypto.randomUUID(), 'Another fiddle');
              onPegs({ ...pegs, fiddles: [...pegs.fiddles, made], chosen: made.id }, 'another fiddle');
            }}
          >
            Another fiddle
          </Button>
          {pegs.fiddles.length > 1 && (
            <Button
              onClick={() => {
                const fiddles = pegs.fiddles.filter(({ id }) => id !== fiddle.id);
                onPegs({ ...pegs, fiddles, chosen: fiddles[0]!.id }, `${fiddle.name} deleted`);
              }}
            >
              Delete this fiddle
            </Button>
          )}
        </div>
      </div>
    </Sheet>
  );
}

function NameField({ name, onName }: { readonly name: string; readonly onName: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const keep = () => {
    if (typed.trim() === '') setTyped(name);
    else if (typed.trim() !== name) onName(typed.trim());
  };
  return (
    <label className="flex items-center gap-2">
      <span className="font-bold">Name</span>
      <input
        data-autofocus
        className={`${INPUT} min-w-0 flex-1`}
        value={typed}
        maxLength={60}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={keep}
        onKeyDown={({ key }) => key === 'Enter' && keep()}
      />
    </label>
  );
}

function TextCell({
  label,
  value,
  onText,
}: {
  readonly label: string;
  readonly value: string;
  readonly onText: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <input
      className={`${INPUT} w-32`}
      aria-label={label}
      placeholder="not known"
      maxLength={60}
      value={typed ?? value}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={() => {
        if (typed !== null && typed !== value) onText(typed);
        setTyped(null);
      }}
    />
  );
}

interface FigureCellProps {
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly onFigure: (value: number) => void;
}

/** A figure in a table: kept when it is left, and only if it can be. */
function FigureCell({ label, unit, value, low, high, onFigure }: FigureCellProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = Number((typed ?? '').replace(',', '.'));
  const isWrong = typed !== null && (typed.trim() === '' || !(number >= low && number <= high));
  return (
    <span className="whitespace-nowrap">
      <input
        className={`w-20 rounded-md border bg-surface px-2 py-0.5 text-right tabular-nums ${isWrong ? 'border-madder' : 'border-line'}`}
        aria-label={label}
        aria-invalid={isWrong}
        title={isWrong ? `expected ${low} to ${high} ${unit}` : undefined}
        inputMode="decimal"
        value={typed ?? String(value)}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={() => {
          if (typed !== null && !isWrong && number !== value) onFigure(number);
          if (!isWrong) setTyped(null);
        }}
      />{' '}
      <span className="text-muted">{unit}</span>
      {isWrong && (
        <span className="block text-fine text-madder">
          expected {low} to {high}
        </span>
      )}
    </span>
  );
}

/** The gap between hair and stick at the middle, as it was measured. */
function HairGaps({
  fiddle,
  onSet,
}: {
  readonly fiddle: Fiddle;
  readonly onSet: (next: Partial<Fiddle>, label: string) => void;
}) {
  const [mm, setMm] = useState('');
  const [bpm, setBpm] = useState('');
  const tempo = bpm === '' ? null : Number(bpm.replace(',', '.'));
  const isTempoWrong = tempo !== null && !(tempo >= 10 && tempo <= 400);
  const number = Number(mm.replace(',', '.'));
  const isWrong = mm !== '' && !(number >= 0 && number <= 30);
  return (
    <section>
      <h3 className="mb-1 text-section">Hair gap at the middle of the bow</h3>
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (mm === '' || isWrong || isTempoWrong) return;
          onSet({ hairGaps: [...fiddle.hairGaps, { date: today(), mm: number, bpm: tempo }] }, `hair gap ${number} mm`);
          setMm('');
          setBpm('');
        }}
      >
        <label className="flex items-center gap-2">
          measured now
          <input
            className={`${INPUT} w-20 text-right`}
            inputMode="decimal"
            value={mm}
            aria-invalid={isWrong}
            onChange={({ target }) => setMm(target.value)}
          />
          mm
        </label>
        <label className="flex items-center gap-2">
          for playing at
          <input
            className={`${INPUT} w-20 text-right`}
            inputMode="decimal"
            placeholder="any"
            value={bpm}
            aria-invalid={isTempoWrong}
            onChange={({ target }) => setBpm(target.value)}
          />
          beats a minute
        </label>
        <Button look="small" type="submit" disabled={mm === '' || isWrong || isTempoWrong}>
          keep it
        </Button>
        {isWrong && <span className="text-hint text-madder">expected 0 to 30 mm</span>}
        {isTempoWrong && <span className="text-hint text-madder">expected 10 to 400 beats a minute</span>}
      </form>
      <GapChart gaps={fiddle.hairGaps} />
      <ul className="mt-1 flex flex-wrap gap-x-4 text-small text-muted">
        {fiddle.hairGaps.map(({ date, mm: gap, bpm: at }, i) => (
          <li key={`${date} ${i}`} className="flex items-center">
            {dayWords(date)}: {gap} mm{at !== null && ` at ${Math.round(at)}`}
            <SignButton
              label={`Delete the gap of ${gap} mm`}
              className="size-7"
              onClick={() => onSet({ hairGaps: fiddle.hairGaps.filter((_, k) => k !== i) }, 'hair gap deleted')}
            >
              <Trash2 size={14} aria-hidden />
            </SignButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
