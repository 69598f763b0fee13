import { type ReactNode, useId, useState } from 'react';

interface NumberFieldProps {
  readonly name: string;
  readonly unit: string;
  readonly why: string;
  readonly value: number;
  readonly usual: number;
  readonly low: number;
  readonly high: number;
  /** null: back to the usual. */
  readonly onChange: (value: number | null) => void;
  /** Another way to come by the figure. */
  readonly beside?: ReactNode;
}

const written = (value: number) => String(Math.round(value * 100) / 100);

/** A figure with its unit; kept when it is left or Enter is pressed, and only if it can be. */
export function NumberField({ name, unit, why, value, usual, low, high, onChange, beside }: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const hint = useId();
  const number = Number((typed ?? '').replace(',', '.'));
  const isWrong = typed !== null && (typed.trim() === '' || !(number >= low && number <= high));
  const keep = () => {
    if (typed !== null && !isWrong && number !== Number(written(value))) onChange(number === usual ? null : number);
    if (!isWrong) setTyped(null);
  };
  const isOwn = written(value) !== written(usual);
  return (
    <div className="flex flex-wrap items-center gap-x-2">
      <label className="flex min-w-0 flex-1 items-center gap-x-2 max-sm:w-full max-sm:flex-none max-sm:flex-wrap">
        <span className="min-w-0 flex-1 max-sm:w-full max-sm:flex-none">
          {name} <span className="text-hint text-muted">{why}</span>
        </span>
        <input
          inputMode="decimal"
          value={typed ?? written(value)}
          aria-invalid={isWrong}
          aria-describedby={isWrong ? hint : undefined}
          onChange={({ target }) => setTyped(target.value)}
          onBlur={keep}
          onKeyDown={({ key }) => {
            if (key === 'Enter') keep();
            if (key === 'Escape') setTyped(null);
          }}
          className={`w-20 rounded-md border bg-surface px-2 py-0.5 text-right tabular-nums ${isWrong ? 'border-madder' : 'border-line'}`}
        />
        <span className="w-20 text-muted">{unit}</span>
      </label>
      {beside}
      <button
        type="button"
        disabled={!isOwn}
        onClick={() => onChange(null)}
        className="w-24 text-left text-hint text-woad underline disabled:text-muted disabled:no-underline disabled:opacity-70"
        aria-label={`${name}: back to ${written(usual)} ${unit}`}
      >
        {isOwn ? `back to ${written(usual)}` : 'as usual'}
      </button>
      {isWrong && (
        <p id={hint} className="w-full text-hint text-madder">
          expected {low} to {high} {unit}; {written(value)} still holds
        </p>
      )}
    </div>
  );
}
