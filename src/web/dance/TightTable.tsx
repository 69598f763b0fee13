import { Play } from 'lucide-react';
import { Link } from 'react-router';
import type { TuneReport } from '#core/report';
import type { TightSpot } from '#core/standing';
import { noteSpotWords } from '#words/spot';
import { eventName } from '#words/standing';
import { tempoWords } from '#words/tempo';
import { SignButton } from '../ui/Button';
import { SmallTable } from '../ui/SmallTable';

interface TightTableProps {
  readonly report: TuneReport;
  readonly tuneId: string;
  readonly places: readonly TightSpot[];
  readonly chosen: number | null;
  /** Chooses a place and plays its bar over and over. */
  readonly onHear: (index: number) => void;
  /** Puts the selection there, for the bench. */
  readonly onChoose: (index: number) => void;
}

const CELL = 'py-1.5 pr-3 align-top';

/** The tightest places with what they have and need. */
export function TightTable({ report, tuneId, places, chosen, onHear, onChoose }: TightTableProps) {
  const { unrolled, figures, settings } = report;
  return (
    <SmallTable
      label="The tightest places"
      heads={[
        'place',
        'what',
        { figures: 'has' },
        { figures: 'needs' },
        { figures: 'holds up to' },
        { hidden: 'listen' },
      ]}
      minWidth="30rem"
    >
      {places.map((place) => {
        const { index, kind, availableMs, neededMs, ceilingBpm } = place;
        const isShort = ceilingBpm < settings.bpm;
        const words = noteSpotWords(unrolled.notes[index]!);
        return (
          <tr
            key={`${place.id} ${kind}`}
            className={`border-b border-line last:border-b-0 ${chosen === index ? 'bg-band' : ''}`}
            data-tight={kind}
          >
            <td className={CELL}>
              <Link
                to={`/tunes/${tuneId}`}
                state={{ note: place.id }}
                className="text-woad underline underline-offset-3"
                onClick={() => onChoose(index)}
              >
                {words}
              </Link>
            </td>
            <td className={CELL}>{eventName(kind, figures.arm.crossings[index] ?? null)}</td>
            <td className={`${CELL} text-right whitespace-nowrap tabular-nums`}>{Math.round(availableMs)} ms</td>
            <td className={`${CELL} text-right whitespace-nowrap tabular-nums`}>{Math.round(neededMs)} ms</td>
            <td className={`${CELL} text-right font-bold tabular-nums ${isShort ? 'text-madder' : ''}`}>
              {isShort && <span className="sr-only">breaks below the tempo wanted: </span>}
              {tempoWords(ceilingBpm)}
            </td>
            <td className="py-0.5 text-right">
              <SignButton label={`Hear ${words}, over and over`} className="size-8" onClick={() => onHear(index)}>
                <Play size={15} aria-hidden />
              </SignButton>
            </td>
          </tr>
        );
      })}
    </SmallTable>
  );
}
