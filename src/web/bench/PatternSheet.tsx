import { useMemo, useState } from 'react';
import { formatFraction, fraction } from '#core/base';
import {
  applyPattern,
  findPattern,
  gridUnit,
  lockConflicts,
  type Pattern,
  patternFigures,
  PATTERNS,
} from '#core/bowing';
import { reportTune } from '#core/report';
import { barNumbers, isCompound, type Meter, meterName, type Tune, writtenBars } from '#core/tune';
import { patternWords } from '#words/pattern';
import { reportVerdict } from '#words/verdict';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreview } from '../openTune/usePreview';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';
import { PatternSign } from '../ui/signs';
import { Why } from '../ui/Why';
import { OwnPattern } from './OwnPattern';
import { keepOwnPatterns, readOwnPatterns } from './ownPatterns';
import { PatternFacts } from './PatternFacts';
import { PatternsNow } from './PatternsNow';
import { StrokePreview } from './StrokePreview';

const UNITS = [
  { value: '1/8', name: 'eighth' },
  { value: '1/16', name: 'sixteenth' },
];

type Scope = 'selection' | 'bars' | 'part' | 'tune';

/** Chooses a pattern and a range, and shows what would come of it before it is applied. */
export function PatternSheet({
  report,
  ids: selected,
  part: partAtStart,
  settings: { words },
  onClose,
  onApply,
  onPreview,
  onHear,
}: Pick<SheetProps, 'report' | 'ids' | 'part' | 'settings' | 'onClose' | 'onApply' | 'onPreview' | 'onHear'>) {
  const { tune } = report;
  const [pattern, setPattern] = useState<Pattern>(() => defaultPattern(tune.meter));
  const [scope, setScope] = useState<Scope>(selected.length > 1 ? 'selection' : 'part');
  const [part, setPart] = useState(partAtStart);
  const bars = useMemo(() => numberedBars(tune, part), [tune, part]);
  const lowest = bars[0]?.number ?? 1;
  const highest = Math.max(...bars.map(({ number }) => number));
  const [range, setRange] = useState({ from: 1, to: Math.min(4, highest) });
  const [own, setOwn] = useState(readOwnPatterns);
  const [runsOn, setRunsOn] = useState<boolean | null>(null);
  const ownUnit = useMemo(() => gridUnit(tune), [tune]);
  const [unit, setUnit] = useState(ownUnit);

  const ids = useMemo(() => {
    if (scope === 'tune') return undefined;
    if (scope === 'selection') return new Set(selected);
    const chosen = scope === 'part' ? bars : bars.filter(({ number }) => number >= range.from && number <= range.to);
    return new Set(chosen.flatMap(({ events }) => events.map(({ id }) => id)));
  }, [scope, selected, bars, range]);
  const result = useMemo(
    () => applyPattern(tune, pattern, { ids, unit, runsOn: runsOn ?? pattern.runsOn }),
    [tune, pattern, ids, unit, runsOn],
  );
  const after = useMemo(() => reportTune(result, report.settings), [result, report]);
  usePreview(onPreview, result, result !== tune);
  const broken = lockConflicts(after.unrolled, after.figures.bowed).length;
  const figures = patternFigures(pattern);
  const verdict = reportVerdict(after);
  const where = {
    selection: 'the selection',
    bars: `bars ${range.from}–${range.to} of ${part}`,
    part: `part ${part}`,
    tune: 'the tune',
  }[scope];

  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Bowing patterns"
      description="It follows the rhythm, not the number of notes."
      wide
    >
      <PatternsNow tune={tune} words={words} />
      <div className="grid gap-5 @xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
        <div className="flex flex-col gap-2">
          <div
            role="radiogroup"
            aria-label="Pattern"
            className="max-h-56 overflow-y-auto rounded-md border border-line @xl:max-h-[58dvh]"
          >
            {[...own, ...PATTERNS].map((candidate) => (
              <label
                key={candidate.name}
                className="flex cursor-pointer items-center gap-3 border-b border-line px-3 py-1.5 last:border-b-0 has-checked:bg-band has-focus-visible:outline-2 has-focus-visible:-outline-offset-2 has-focus-visible:outline-woad"
              >
                <input
                  type="radio"
                  name="pattern"
                  className="sr-only"
                  data-autofocus={candidate === pattern || undefined}
                  checked={candidate === pattern}
                  onChange={() => setPattern(candidate)}
                />
                <PatternSign slots={candidate.slots ?? [1, 1, 1, 1]} />
                <span className={candidate === pattern ? 'font-bold' : ''}>{patternWords(candidate.name, words)}</span>
                <span className="ml-auto text-hint text-muted">{candidate.slots?.join(' ') ?? 'each note'}</span>
              </label>
            ))}
          </div>
          <details className="text-small">
            <summary className="w-fit cursor-pointer rounded-sm text-muted hover:text-ink">
              a pattern of your own
            </summary>
            <OwnPattern
              meter={tune.meter}
              onAdd={(added) => {
                const next = [added, ...own.filter(({ name }) => name !== added.name)];
                keepOwnPatterns(next);
                setOwn(next);
                setPattern(added);
              }}
              chosen={own.includes(pattern) ? pattern : null}
              onDelete={(forgotten) => {
                const next = own.filter((other) => other !== forgotten);
                keepOwnPatterns(next);
                setOwn(next);
                setPattern(defaultPattern(tune.meter));
              }}
            />
          </details>
        </div>
        <div className="flex flex-col gap-3">
          <fieldset className="flex flex-col gap-1.5">
            <legend className="font-bold">Where</legend>
            <div className="flex flex-wrap gap-x-4 gap-y-1">
              {(['selection', 'bars', 'part', 'tune'] as const).map((value) => (
                <label key={value} className="flex items-center gap-1.5">
                  <input
                    type="radio"
                    name="scope"
                    className="accent-woad"
                    checked={scope === value}
                    disabled={value === 'selection' && selected.length < 2}
                    onChange={() => setScope(value)}
                  />
                  {{ selection: 'selection', bars: 'bars', part: 'part', tune: 'whole tune' }[value]}
                </label>
              ))}
            </div>
            {(scope === 'part' || scope === 'bars') && (
              <div className="flex flex-wrap items-center gap-2">
                <label className="flex items-center gap-1.5">
                  part
                  <Select value={part} options={tune.parts.map(({ name }) => name)} onChange={setPart} />
                </label>
                {scope === 'bars' && (
                  <>
                    <BarField
                      label="from bar"
                      value={range.from}
                      min={lowest}
                      max={highest}
                      onChange={(from) => setRange({ from, to: Math.max(from, range.to) })}
                    />
                    <BarField
                      label="to bar"
                      value={range.to}
                      min={lowest}
                      max={highest}
                      onChange={(to) => setRange({ from: Math.min(range.from, to), to })}
                    />
                  </>
                )}
              </div>
            )}
          </fieldset>
          <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <label className="flex items-center gap-1.5">
              grid unit
              <Select
                value={formatFraction(unit)}
                options={UNITS}
                onChange={(name) => setUnit(name === '1/16' ? fraction(1, 16) : fraction(1, 8))}
              />
            </label>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-woad"
                checked={runsOn ?? pattern.runsOn}
                onChange={(event) => setRunsOn(event.target.checked)}
              />
              runs on over the bar line
            </label>
          </div>
          <div className="rounded-md bg-band px-3 py-2" aria-live="polite">
            <p
              className={`font-serif text-section leading-snug font-bold ${verdict.kind === 'good' ? 'text-lichen-ink' : 'text-madder'}`}
            >
              {verdict.words}
            </p>
            <StrokePreview report={after} ids={ids} />
            <Why>
              <p>
                {after.figures.ledger.passes
                  .map(({ part, pass, strokes }) => `${part}${pass}: ${strokes} strokes`)
                  .join(' · ')}
              </p>
              <p>
                On running notes {figures.strokesPerBar} strokes a bar of {meterName(pattern.meter)} (
                {figures.parityPerBar}), drift {figures.driftUnits}{' '}
                {Math.abs(figures.driftUnits) === 1 ? 'unit' : 'units'}.
              </p>
              <PatternFacts pattern={pattern} report={after} ids={ids} where={where} />
            </Why>
            {broken > 0 && (
              <p className="text-madder">
                {broken} locked {broken === 1 ? 'note' : 'notes'} would come out the other way. Locks stay, and each
                clash is listed.
              </p>
            )}
          </div>
          <div className="sticky -bottom-4 -mx-4 flex flex-wrap justify-end gap-2 border-t border-line bg-surface px-4 py-2">
            <Button onClick={() => onHear(result)}>Hear it</Button>
            <Button
              look="main"
              disabled={result === tune}
              onClick={() => onApply(result, `${patternWords(pattern.name, words).toLowerCase()} on ${where}`)}
            >
              {result === tune ? 'It is bowed this way already' : `Take it for ${where}`}
            </Button>
          </div>
        </div>
      </div>
    </Sheet>
  );
}

/** A part's bars with their numbers as played, 0 for a pickup. */
function numberedBars(tune: Tune, part: string) {
  const bars = writtenBars(tune).get(part) ?? [];
  const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
  return bars.map((bar, i) => ({ ...bar, number: numbers.get(bar.event.id) ?? i + 1 }));
}

/** The pattern offered first in a meter. */
function defaultPattern(meter: Meter): Pattern {
  const name = isCompound(meter) ? 'two-and-one' : meter.num === 3 ? 'waltz-beats' : 'pair-first-shuffle';
  return findPattern(name)!;
}

function BarField(props: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}) {
  const { label, value, min, max, onChange } = props;
  // While it is typed a number may be half there: only a whole one in range counts.
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <label className="flex items-center gap-1.5">
      {label}
      <input
        type="number"
        min={min}
        max={max}
        value={typed ?? value}
        onChange={({ target }) => {
          setTyped(target.value);
          const number = Number(target.value);
          if (target.value !== '' && Number.isInteger(number) && number >= min && number <= max) onChange(number);
        }}
        onBlur={() => setTyped(null)}
        className="w-16 rounded-md border border-line bg-surface px-2 py-1"
      />
    </label>
  );
}
