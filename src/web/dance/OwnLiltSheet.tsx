import { useState } from 'react';
import { findLilt, type Lilt, LILT_NAME, liltFault } from '#core/tempo';
import { liltFaultWords } from '#words/lilt';
import { Button } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Sheet } from '../ui/Sheet';

interface OwnLiltSheetProps {
  /** The one that is changed; null: a new one. */
  readonly lilt: Lilt | null;
  readonly taken: readonly string[];
  readonly onKeep: (lilt: Lilt) => void;
  /** null where there is none to take away. */
  readonly onRemove: (() => void) | null;
  readonly onClose: () => void;
}

/** A template of one's own: shares of the notes in a beat, and how they flatten. One that lets a note grow is refused. */
export function OwnLiltSheet({ lilt, taken, onKeep, onRemove, onClose }: OwnLiltSheetProps) {
  const [name, setName] = useState(lilt?.name ?? '');
  const [simple, setSimple] = useState(written(lilt?.simple ?? [0.56, 0.44]));
  const [compound, setCompound] = useState(written(lilt ? lilt.compound : [0.38, 0.29, 0.33]));
  const [fullTo, setFullTo] = useState(String(lilt?.fullTo ?? 110));
  const [flattening, setFlattening] = useState(String(lilt?.flattening ?? 1));
  const made: Lilt = {
    name: name.trim(),
    simple: sharesOf(simple),
    compound: sharesOf(compound),
    fullTo: numberOf(fullTo),
    flattening: numberOf(flattening),
  };
  const problem = problemOf(made, taken, lilt?.name ?? null);
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title={lilt ? `The lilt “${lilt.name}”` : 'A lilt of your own'}
      description="Shares in percent of the notes that divide a beat evenly on the page. It is saved with your settings, and tunes refer to it by name."
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (problem === null) onKeep(made);
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="font-bold">Name</span>
          <input
            data-autofocus
            className={`${INPUT} max-w-60`}
            value={name}
            disabled={lilt !== null}
            placeholder="small letters"
            onChange={({ target }) => setName(target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-bold">Shares of a quarter</span>
          <input
            className={INPUT}
            value={simple}
            placeholder="none: even"
            onChange={({ target }) => setSimple(target.value)}
          />
          <span className="text-small text-muted">two for eighths, four for sixteenths: 56 44, or 28 22 27 23</span>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-bold">Shares of a dotted quarter</span>
          <input
            className={INPUT}
            value={compound}
            placeholder="none: even"
            onChange={({ target }) => setCompound(target.value)}
          />
          <span className="text-small text-muted">three for eighths: 38 29 33</span>
        </label>
        <div className="flex flex-wrap gap-4">
          <label className="flex items-center gap-2">
            full up to
            <input
              className={`${INPUT} w-20 text-right`}
              inputMode="decimal"
              value={fullTo}
              onChange={({ target }) => setFullTo(target.value)}
            />
            beats a minute
          </label>
          <label className="flex items-center gap-2">
            flattens by the power
            <input
              className={`${INPUT} w-20 text-right`}
              inputMode="decimal"
              value={flattening}
              onChange={({ target }) => setFlattening(target.value)}
            />
          </label>
        </div>
        <p role="alert" className="min-h-6 text-madder" data-lilt-problem>
          {problem ?? ''}
        </p>
        <div className="flex justify-end gap-2">
          {onRemove && (
            <Button className="mr-auto" onClick={onRemove}>
              Delete it
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={problem !== null}>
            Save
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

function written(shares: readonly number[] | null): string {
  return shares ? shares.map((share) => Math.round(1000 * share) / 10).join(' ') : '';
}

/** Percent as they are typed, brought to a sum of 1 where only rounding is off; null for none. */
function sharesOf(typed: string): number[] | null {
  const words = typed
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean);
  if (words.length === 0) return null;
  const shares = words.map((word) => Number(word.replace('%', '')) / 100);
  const sum = shares.reduce((total, share) => total + share, 0);
  return Math.abs(sum - 1) < ROUNDING ? shares.map((share) => share / sum) : shares;
}

const ROUNDING = 0.006;

function numberOf(typed: string): number {
  return typed.trim() === '' ? Number.NaN : Number(typed.replace(',', '.'));
}

function problemOf(lilt: Lilt, taken: readonly string[], own: string | null): string | null {
  if (!LILT_NAME.test(lilt.name)) return 'name: expected small letters, digits and hyphens, up to 24';
  if (own === null && (taken.includes(lilt.name) || findLilt(lilt.name))) return `name: “${lilt.name}” is taken`;
  if (!(lilt.fullTo >= 20 && lilt.fullTo <= 400)) return 'full up to: expected 20 to 400 beats a minute';
  if (!(lilt.flattening >= 0.1 && lilt.flattening <= 4)) return 'power: expected 0.1 to 4';
  if (!lilt.simple && !lilt.compound) return 'expected shares of a quarter, of a dotted quarter, or of both';
  const fault = liltFault(lilt);
  return fault && liltFaultWords(fault);
}
