import { useState } from 'react';
import { setKeyFrom, setMeterFrom } from '#core/editing';
import { type Key, LETTERS, type Letter, MODES, type Mode } from '#core/pitch';
import { type Tune, meterName, writtenBars } from '#core/tune';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { ALTERS, METERS } from './TuneSheet';

interface BarSheetProps {
  readonly tune: Tune;
  readonly barId: string;
  /** `bar 6 of A`. */
  readonly where: string;
  readonly onEdit: (tune: Tune, label: string) => void;
  readonly onClose: () => void;
}

const INPUT = 'rounded-md border border-soft bg-surface px-2 py-1.5';

/** The meter and key that hold from a bar on. */
export function BarSheet({ tune, barId, where, onEdit, onClose }: BarSheetProps) {
  const bar = [...writtenBars(tune).values()].flat().find(({ event }) => event.id === barId)!;
  const [meter, setMeter] = useState(meterName(bar.meter));
  const [key, setKey] = useState<Key>(bar.key);
  const isMeter = /^([1-9]|[1-5]\d|6[0-4])\/(1|2|4|8|16|32)$/.test(meter);
  const keep = () => {
    const [num, den] = meter.split('/').map(Number) as [number, number];
    const metered = meter === meterName(bar.meter) ? tune : setMeterFrom(tune, barId, { num, den });
    const isOtherKey = key.letter !== bar.key.letter || key.alter !== bar.key.alter || key.mode !== bar.key.mode;
    const next = isOtherKey ? setKeyFrom(metered, barId, key) : metered;
    if (next !== tune) onEdit(next, `meter and key from ${where}`);
    onClose();
  };
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title={`From ${where}`}
      description="What is chosen here holds from this bar on, until it changes again. Notes keep their pitches."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (isMeter) keep();
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="font-bold">Meter</span>
          <input
            data-autofocus
            list="bar-meters"
            className={`${INPUT} max-w-32`}
            value={meter}
            aria-invalid={!isMeter}
            onChange={({ target }) => setMeter(target.value.trim())}
          />
          <datalist id="bar-meters">
            {METERS.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
          {!isMeter && (
            <span role="alert" className="text-[14px] text-madder">
              expected a meter such as 4/4 or 6/8
            </span>
          )}
        </label>
        <fieldset className="flex gap-1.5">
          <legend className="mb-1 font-bold">Key</legend>
          <select
            aria-label="Tonic"
            className={INPUT}
            value={key.letter}
            onChange={({ target }) => setKey({ mode: key.mode, alter: key.alter, letter: target.value as Letter })}
          >
            {LETTERS.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
          <select
            aria-label="Sharp or flat"
            className={INPUT}
            value={key.alter}
            onChange={({ target }) => setKey({ letter: key.letter, mode: key.mode, alter: Number(target.value) })}
          >
            {Object.entries(ALTERS).map(([sign, alter]) => (
              <option key={alter} value={alter}>
                {sign === '' ? 'natural' : sign}
              </option>
            ))}
          </select>
          <select
            aria-label="Mode"
            className={INPUT}
            value={key.mode}
            onChange={({ target }) => setKey({ letter: key.letter, alter: key.alter, mode: target.value as Mode })}
          >
            {MODES.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </fieldset>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={!isMeter}>
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
