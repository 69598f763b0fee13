import { useId, useState } from 'react';
import { setEnding, setKeyFrom, setMeterFrom } from '#core/editing';
import { type Key, LETTERS, MODES } from '#core/pitch';
import { meterName, writtenBars } from '#core/tune';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';
import { ALTERS, METERS } from './TuneSheet';

/** Numbers of plays in rising order; null where the text is none. */
function readPlays(text: string): number[] | null {
  const words = text.split(/[\s,]+/).filter(Boolean);
  if (words.length > 64 || !words.every((word) => /^[1-9]\d{0,2}$/.test(word))) return null;
  return [...new Set(words.map(Number))].sort((a, b) => a - b);
}

/** The meter and key that hold from a bar on, and the plays on which the chosen bars sound. */
export function BarSheet({
  tune,
  barIds,
  where,
  onEdit,
  onClose,
}: Pick<SheetProps, 'tune' | 'barIds' | 'where' | 'onEdit' | 'onClose'>) {
  const barId = barIds[0]!;
  const bar = [...writtenBars(tune).values()].flat().find(({ event }) => event.id === barId)!;
  const [meter, setMeter] = useState(meterName(bar.meter));
  const hint = useId();
  const [key, setKey] = useState<Key>(bar.key);
  const writtenPlays = bar.event.ending ? bar.event.onPlays!.join(', ') : '';
  const [plays, setPlays] = useState(writtenPlays);
  const endingPlays = readPlays(plays);
  const isMeter = /^([1-9]|[1-5]\d|6[0-4])\/(1|2|4|8|16|32)$/.test(meter);
  const keep = () => {
    const [num, den] = meter.split('/').map(Number) as [number, number];
    const metered = meter === meterName(bar.meter) ? tune : setMeterFrom(tune, barId, { num, den });
    const isOtherKey = key.letter !== bar.key.letter || key.alter !== bar.key.alter || key.mode !== bar.key.mode;
    const keyed = isOtherKey ? setKeyFrom(metered, barId, key) : metered;
    const isOtherEnding = plays.trim() !== writtenPlays && endingPlays !== null;
    const ending = endingPlays && endingPlays.length > 0 ? endingPlays : null;
    const next = isOtherEnding ? setEnding(keyed, new Set(barIds), ending) : keyed;
    const changed = [...(keyed === tune ? [] : ['meter and key']), ...(next === keyed ? [] : ['ending'])];
    if (next !== tune) onEdit(next, `${changed.join(' and ')} from ${where}`);
    onClose();
  };
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title={`From ${where}`}
      description="Meter and key hold from this bar on, until they change again. Notes keep their pitches."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (isMeter && endingPlays) keep();
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
            <span role="alert" className="text-small text-madder">
              expected a meter such as 4/4 or 6/8
            </span>
          )}
        </label>
        <fieldset className="flex gap-1.5">
          <legend className="mb-1 font-bold">Key</legend>
          <Select
            label="Tonic"
            className={INPUT}
            value={key.letter}
            options={LETTERS}
            onChange={(letter) => setKey({ mode: key.mode, alter: key.alter, letter })}
          />
          <Select
            label="Sharp or flat"
            className={INPUT}
            value={key.alter}
            options={Object.entries(ALTERS).map(([sign, alter]) => ({
              value: alter as number,
              name: sign || 'natural',
            }))}
            onChange={(alter) => setKey({ letter: key.letter, mode: key.mode, alter })}
          />
          <Select
            label="Mode"
            className={INPUT}
            value={key.mode}
            options={MODES}
            onChange={(mode) => setKey({ letter: key.letter, alter: key.alter, mode })}
          />
        </fieldset>
        <label className="flex flex-col gap-1">
          <span className="font-bold">Ending</span>
          <input
            className={`${INPUT} max-w-32`}
            value={plays}
            placeholder="none"
            inputMode="numeric"
            aria-invalid={endingPlays === null}
            aria-describedby={hint}
            onChange={({ target }) => setPlays(target.value)}
          />
          <span id={hint} className={`text-small ${endingPlays ? 'text-muted' : 'text-madder'}`}>
            {endingPlays
              ? `Times through the part on which the chosen bar${barIds.length === 1 ? ' sounds' : 's sound'}, such as 1 or 1, 3. Empty: on all.`
              : 'expected which times through, such as 1 or 1, 3'}
          </span>
        </label>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={!isMeter || !endingPlays}>
            Save
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
