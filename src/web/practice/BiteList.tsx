import { Play } from 'lucide-react';
import type { SpanDay, TunePractice } from '#contract/log';
import type { Bite, CoverageStep } from '#core/practice';
import { dayWords } from '#words/days';
import { counted, percentWords } from '#words/plural';
import { tempoWords } from '#words/tempo';
import { isSameSpan } from '../log/spans';
import { Button } from '../ui/Button';
import { bestBpm } from './useTuneInBites';

interface BiteListProps {
  readonly bites: readonly Bite[];
  readonly coverage: readonly CoverageStep[];
  readonly names: ReadonlyMap<string, string>;
  readonly chosen: string | null;
  readonly goalBpm: number;
  readonly daysOf: (bite: Bite) => readonly SpanDay[];
  /** Bites that hurt, and rest. */
  readonly resting: TunePractice['resting'];
  readonly onChoose: (id: string) => void;
  readonly onStart: (id: string) => void;
}

/** The bites in the order in which they are learnt, with what is known of each. */
export function BiteList({
  bites,
  coverage,
  names,
  chosen,
  goalBpm,
  daysOf,
  resting,
  onChoose,
  onStart,
}: BiteListProps) {
  const byId = new Map(bites.map((bite) => [bite.id, bite]));
  return (
    <ol className="flex flex-col" aria-label="Bites in the order in which they are learnt">
      {coverage.map(({ bite: id, newNotes, total }) => {
        const bite = byId.get(id)!;
        const best = bestBpm(daysOf(bite));
        const rests = resting.find((one) => isSameSpan(one, bite));
        const isTight = bite.ceilingBpm !== null && bite.ceilingBpm < goalBpm;
        return (
          <li
            key={id}
            className={`flex flex-wrap items-center gap-x-3 gap-y-0.5 border-b border-line py-1.5 ${chosen === id ? 'bg-band' : ''}`}
          >
            <button
              type="button"
              aria-pressed={chosen === id}
              onClick={() => onChoose(id)}
              className="min-w-0 flex-1 rounded px-1 text-left hover:bg-band"
            >
              <b className="font-serif">{names.get(id)}</b>{' '}
              <span className="block text-small text-muted">
                {best === null ? 'not practised yet' : `clean at ${Math.floor(best)}`} ·{' '}
                {newNotes > 0 ? counted(newNotes, 'new note') : 'nothing new'}
                {rests && <span className="text-madder"> · it hurt on {dayWords(rests.since)}: resting</span>}
                {bite.loop === 'flips' && ' · flips when looped'}
                {isTight && <span className="text-madder"> · breaks above {tempoWords(bite.ceilingBpm)}</span>}
              </span>
            </button>
            <span className="text-right text-small text-muted" title="Share of the tune you can then play">
              {percentWords(total)}
            </span>
            <Button look="small" className="flex items-center gap-1" onClick={() => onStart(id)}>
              <Play size={13} aria-hidden /> Practise<span className="sr-only"> {names.get(id)}</span>
            </Button>
          </li>
        );
      })}
    </ol>
  );
}
