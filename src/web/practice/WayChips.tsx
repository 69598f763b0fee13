import { Check } from 'lucide-react';
import { type Way, WAYS } from '#core/drills';
import { WAY_WORDS } from '#words/tuneDrill';
import { Button } from '../ui/Button';

interface WayChipsProps {
  readonly way: Way;
  /** Ways in which it came out clean already. */
  readonly clean: ReadonlySet<Way>;
  readonly onChoose: (way: Way) => void;
}

/** The ways to do it, the least load first; what was clean in one of them is ticked. */
export function WayChips({ way, clean, onChoose }: WayChipsProps) {
  return (
    <div role="group" aria-label="Way to do it" className="flex flex-wrap items-center gap-2">
      {WAYS.map((one) => (
        <Button
          key={one}
          look="small"
          aria-pressed={way === one}
          className="flex items-center gap-1 aria-pressed:border-woad aria-pressed:bg-band aria-pressed:font-bold"
          onClick={() => onChoose(one)}
        >
          {clean.has(one) && <Check size={14} aria-label="clean before:" className="text-lichen-ink" />}
          {WAY_WORDS[one]}
        </Button>
      ))}
      {clean.size === 0 && <span className="text-small text-muted">new to you: the least load first</span>}
    </div>
  );
}
