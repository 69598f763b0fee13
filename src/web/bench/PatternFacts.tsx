import { accentsAlternate, naturalAccents, type Pattern, rangeFigures } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { accentLength } from '#core/travel';
import { BowSign } from '../ui/signs';

interface PatternFactsProps {
  readonly pattern: Pattern;
  /** Of the tune with the pattern laid on it. */
  readonly report: TuneReport;
  readonly ids: ReadonlySet<string> | undefined;
  readonly where: string;
}

/** Parity over the range, directions beat by beat, and the accents that come by themselves. */
export function PatternFacts({ pattern, report, ids, where }: PatternFactsProps) {
  const range = rangeFigures(report.unrolled, report.figures.bowed, ids);
  if (!range) return null;
  return (
    <div className="text-hint text-muted" data-pattern-facts>
      <p>
        {range.strokes} strokes in {where}
        {ids === undefined
          ? `, all passes counted: ${roundWords(report)}`
          : `, ${range.turns} turns to what follows: ${range.parity}${range.parity === 'odd' ? ', so it flips' : ''}`}
      </p>
      <p>
        beats:{' '}
        {range.beats.map((bar, i) => (
          <span key={i} className="mr-2 inline-flex gap-1 text-ink">
            {bar.map((direction, k) => (
              <span key={k}>
                <BowSign direction={direction} />
                <span className="sr-only">{direction}</span>
              </span>
            ))}
            {i < range.beats.length - 1 && <span aria-hidden> |</span>}
          </span>
        ))}
      </p>
      <p>{accentWords(pattern, report)}</p>
    </div>
  );
}

function accentWords(pattern: Pattern, { tune }: TuneReport): string {
  if (accentsAlternate(pattern, tune.meter))
    return `accents fall on the down-bow and the up-bow in turn; first note to the others ${accentLength().toFixed(2)} : 1, home after two groups`;
  const accents = naturalAccents(pattern);
  if (accents.length === 0) return 'no accent comes by itself';
  const slots = accents.map(({ slot }) => slot).join(', ');
  return `accent on stroke ${slots} of the cycle: drawn ${Number(accents[0]!.ratio.toFixed(2))} times as fast, or the bow creeps away`;
}

function roundWords({ figures: { ledger } }: TuneReport): string {
  const { comesRound, flippedParts } = ledger;
  if (comesRound) return 'it comes round';
  if (flippedParts.length === 0) return 'it flips when begun again';
  return `${flippedParts.join(', ')} ${flippedParts.length > 1 ? 'flip' : 'flips'}`;
}
