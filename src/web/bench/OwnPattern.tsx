import { useId, useState } from 'react';
import type { Pattern } from '#core/bowing';
import type { Meter } from '#core/tune';
import { Button } from '../ui/Button';
import { PatternSign } from '../ui/signs';
import { ownPattern, readSlots } from './ownPatterns';

interface OwnPatternProps {
  readonly meter: Meter;
  readonly onAdd: (pattern: Pattern) => void;
  /** The player's own pattern that is chosen, where one is. */
  readonly chosen: Pattern | null;
  readonly onDelete: (pattern: Pattern) => void;
}

/** A pattern of the player's own, typed as the lengths of its strokes. */
export function OwnPattern({ meter, onAdd, chosen, onDelete }: OwnPatternProps) {
  const [typed, setTyped] = useState('');
  const hint = useId();
  const slots = readSlots(typed);
  const isWrong = typed.trim() !== '' && slots === null;
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!slots) return;
        onAdd(ownPattern(slots, meter));
        setTyped('');
      }}
    >
      <label className="flex min-w-0 flex-1 items-center gap-2">
        <span className="whitespace-nowrap">your own</span>
        <input
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          placeholder="3 1 2 2"
          aria-invalid={isWrong}
          aria-describedby={hint}
          className="w-full min-w-24 rounded-md border border-soft bg-surface px-2 py-1"
        />
      </label>
      <Button type="submit" disabled={!slots}>
        Add
      </Button>
      {chosen && (
        <Button type="button" onClick={() => onDelete(chosen)}>
          Delete {chosen.slots?.join(' ')}
        </Button>
      )}
      <div
        className="flex w-full flex-wrap items-center gap-1"
        role="group"
        aria-label="Add a stroke to your own pattern"
      >
        {[1, 2, 3, 4].map((units) => (
          <Button key={units} type="button" look="small" onClick={() => setTyped(`${typed.trim()} ${units}`.trim())}>
            <PatternSign slots={[units]} width={52} />
            <span className="sr-only">a stroke of {units}</span>
          </Button>
        ))}
        <Button
          type="button"
          look="small"
          disabled={typed.trim() === ''}
          onClick={() =>
            setTyped(
              typed
                .trim()
                .split(/[\s,]+/)
                .slice(0, -1)
                .join(' '),
            )
          }
        >
          remove the last
        </Button>
      </div>
      <p id={hint} className={`w-full text-hint ${isWrong ? 'text-madder' : 'text-muted'}`}>
        {isWrong
          ? 'expected lengths of strokes in grid units, 1 to 16, such as 3 1 2 2'
          : 'Lengths of its strokes in grid units; it starts again at each bar line.'}
      </p>
    </form>
  );
}
