import { useState } from 'react';
import type { Fiddle } from '#contract/pegs';
import { hoursSince, type PlayedDay, type UpkeepIntervals, USUAL_INTERVALS } from '#core/upkeep';
import { dayWords, today } from '#words/days';
import { Button } from '../ui/Button';
import { SmallTable } from '../ui/SmallTable';

interface UpkeepSectionProps {
  readonly fiddle: Fiddle;
  readonly played: readonly PlayedDay[];
  readonly onSet: (next: Partial<Fiddle>, label: string) => void;
}

/** What wears besides the strings, and after how much the player wants to be reminded: all figures are the player's own. */
export function UpkeepSection({ fiddle, played, onSet }: UpkeepSectionProps) {
  const { intervals, rosinedOn, rehairedOn } = fiddle;
  const setInterval = (name: keyof UpkeepIntervals, value: number | null) =>
    onSet({ intervals: { ...intervals, [name]: value } }, 'reminders');
  const field = (name: keyof UpkeepIntervals, label: string, unit: string) => (
    <IntervalField
      label={label}
      unit={unit}
      value={intervals[name]}
      usual={USUAL_INTERVALS[name]!}
      onValue={(value) => setInterval(name, value)}
    />
  );
  const done = [
    { name: 'Rosin', on: rosinedOn, key: 'rosinedOn', label: 'rosined today' },
    { name: 'Rehair', on: rehairedOn, key: 'rehairedOn', label: 'rehaired today' },
  ] as const;
  return (
    <section>
      <h3 className="mb-1 text-section">Remind me</h3>
      <SmallTable
        label="Reminders"
        minWidth="34rem"
        heads={['what', 'last done', 'played since', 'remind me after', { hidden: 'done today' }]}
      >
        <tr className="border-t border-line">
          <th scope="row" className="py-1.5 pr-3">
            Strings
          </th>
          <td className="pr-3 text-muted">see above</td>
          <td />
          <td className="pr-3">
            {field('stringHours', 'Strings: remind me after hours', 'h')}{' '}
            {field('stringMonths', 'Strings: remind me after months', 'months')}
          </td>
          <td />
        </tr>
        {done.map(({ name, on, key, label }) => (
          <tr key={name} className="border-t border-line">
            <th scope="row" className="py-1.5 pr-3">
              {name}
            </th>
            <td className="pr-3">{on === null ? <span className="text-muted">not told</span> : dayWords(on)}</td>
            <td className="pr-3 tabular-nums">{on === null ? '–' : `${hoursSince(played, on, false).toFixed(1)} h`}</td>
            <td className="pr-3">
              {name === 'Rosin'
                ? field('rosinHours', 'Rosin: remind me after hours', 'h')
                : [
                    <span key="hours">{field('rehairHours', 'Rehair: remind me after hours', 'h')} </span>,
                    <span key="months">{field('rehairMonths', 'Rehair: remind me after months', 'months')}</span>,
                  ]}
            </td>
            <td className="text-right">
              <Button
                look="small"
                className="whitespace-nowrap"
                disabled={on === today()}
                onClick={() => onSet({ [key]: today() }, label)}
              >
                {label}
              </Button>
            </td>
          </tr>
        ))}
        <tr className="border-t border-line">
          <th scope="row" className="py-1.5 pr-3">
            Hair gap
          </th>
          <td className="pr-3 text-muted">see above</td>
          <td />
          <td className="pr-3">{field('gapMm', 'Hair gap: remind me when it is off by', 'mm off')}</td>
          <td />
        </tr>
      </SmallTable>
      <p className="text-hint text-muted">
        Hours are those of your log, for the fiddle that is chosen. Empty a field to be left alone; the figures are
        guesses until you set your own.
      </p>
    </section>
  );
}

interface IntervalFieldProps {
  readonly label: string;
  readonly unit: string;
  /** null: never. */
  readonly value: number | null;
  readonly usual: number;
  readonly onValue: (value: number | null) => void;
}

/** After how much; empty: never. Kept when it is left, and only if it can be. */
function IntervalField({ label, unit, value, usual, onValue }: IntervalFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = Number((typed ?? '').replace(',', '.'));
  const isEmpty = typed !== null && typed.trim() === '';
  const isWrong = typed !== null && !isEmpty && !(number > 0 && number <= 5000);
  const keep = () => {
    if (typed !== null && !isWrong && (isEmpty ? null : number) !== value) onValue(isEmpty ? null : number);
    if (!isWrong) setTyped(null);
  };
  return (
    <span className="whitespace-nowrap">
      <input
        className={`w-16 rounded-md border bg-surface px-2 py-0.5 text-right tabular-nums ${isWrong ? 'border-madder' : 'border-line'}`}
        aria-label={label}
        aria-invalid={isWrong}
        placeholder="never"
        title={isWrong ? 'expected more than 0' : `usual: ${usual} ${unit}`}
        inputMode="decimal"
        value={typed ?? (value === null ? '' : String(value))}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={keep}
        onKeyDown={({ key }) => key === 'Enter' && keep()}
      />{' '}
      <span className="text-muted">{unit}</span>
      {isWrong && <span className="block text-fine text-madder">expected more than 0</span>}
    </span>
  );
}
