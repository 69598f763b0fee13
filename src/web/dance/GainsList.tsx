import type { Words } from '#contract/settings';
import type { TuneReport } from '#core/report';
import type { Change, Gain } from '#core/standing';
import { changePlace, changeWords } from '#words/standing';
import { heldWords, holdsWords } from '#words/tempo';
import { problemWords } from '../threads/problemWords';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import type { Gains } from './useDanceWorker';

interface GainsListProps {
  readonly report: TuneReport;
  readonly gains: Gains;
  readonly words: Words;
  readonly onMake: (changes: readonly Change[], label: string) => void;
}

const SHOWN = 8;

/** What single changes at the tightest places buy, counted by making each. */
export function GainsList({ report, gains: { gains, isOld, problem }, words, onMake }: GainsListProps) {
  if (problem) return <Alert>{problemWords(problem)}</Alert>;
  if (!gains)
    return (
      // As high as the list will be: what stands below it does not move away under a pointer.
      <p className="text-muted lg:min-h-[26.5rem]" aria-busy>
        trying each change …
      </p>
    );
  if (gains.length === 0) return <p className="text-muted">No single change at the tightest places gives more time.</p>;
  return (
    <ol className={`flex flex-col ${isOld ? 'opacity-50' : ''}`} aria-busy={isOld} data-gains={isOld ? 'old' : 'new'}>
      {gains.slice(0, SHOWN).map((gain) => {
        const what = changeWords(gain.change, words);
        const where = changePlace(report, gain.change);
        return (
          <li
            key={gain.change.key}
            className="flex items-start justify-between gap-3 border-b border-line py-1.5 last:border-b-0"
          >
            <span>
              {what} <span className="text-muted">· {where}</span>
              <span className="block text-small text-muted">{gainWords(report, gain)}</span>
            </span>
            <Button
              look="small"
              className="shrink-0 whitespace-nowrap"
              disabled={isOld}
              aria-label={`Take it: ${what}, ${where}`}
              onClick={() => onMake([gain.change], `${what}, ${where}`)}
            >
              Take it
            </Button>
          </li>
        );
      })}
    </ol>
  );
}

/** `the place holds up to 115, the tune up to 96; then it no longer comes round`. */
function gainWords({ figures }: TuneReport, { hereBpm, ceilingBpm, comesRound }: Gain): string {
  const before = figures.check.ceiling?.ceilingBpm ?? null;
  const lifts = Math.floor(ceilingBpm ?? Infinity) > Math.floor(before ?? Infinity);
  const tune = `the tune ${lifts ? '' : 'still '}${heldWords(ceilingBpm)}`;
  const round =
    comesRound === figures.ledger.comesRound
      ? ''
      : comesRound
        ? '; then it comes round'
        : '; then it no longer comes round';
  return `the place ${holdsWords(hereBpm)}, ${tune}${round}`;
}
