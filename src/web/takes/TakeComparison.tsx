import { momentWords } from '#words/days';
import { SmallTable } from '../ui/SmallTable';
import type { KeptTake } from './keptTakes';

interface TakeComparisonProps {
  readonly one: KeptTake;
  readonly other: KeptTake;
}

type Figure = (take: KeptTake) => number | null;

/** What two takes are compared by. */
const ROWS: readonly { readonly name: string; readonly unit: string; readonly of: Figure; readonly digits: number }[] =
  [
    { name: 'to mend', unit: '', of: ({ result }) => result.findings.length, digits: 0 },
    { name: 'notes heard', unit: '', of: ({ result }) => result.figures.heardNotes, digits: 0 },
    { name: 'tempo', unit: '', of: ({ result }) => result.figures.tempo.bpm, digits: 0 },
    { name: 'steady within', unit: 'ms', of: ({ result }) => result.figures.tempo.steadinessMs, digits: 0 },
    { name: 'drift a minute', unit: '%', of: ({ result }) => result.figures.tempo.driftPercentPerMinute, digits: 1 },
    { name: 'off pitch, the middle note', unit: 'cents', of: middleCents, digits: 0 },
    { name: 'noise before the pitch', unit: 'ms', of: ({ result }) => result.figures.biteMs, digits: 0 },
  ];

/** Two takes figure by figure. */
export function TakeComparison({ one, other }: TakeComparisonProps) {
  const [first, second] = one.at <= other.at ? [one, other] : [other, one];
  return (
    <section aria-label="Compared">
      <h3 className="font-bold">Compared</h3>
      <SmallTable
        label="Two takes compared"
        heads={[{ hidden: 'figure' }, { figures: momentWords(first.at) }, { figures: momentWords(second.at) }]}
        className="text-small"
      >
        {ROWS.map(({ name, unit, of, digits }) => (
          <tr key={name} className="border-t border-line">
            <th scope="row" className="py-0.5 font-normal">
              {name}
            </th>
            {[first, second].map((take) => {
              const value = of(take);
              return (
                <td key={take.id} className="py-0.5 text-right tabular-nums">
                  {value === null ? 'not heard' : `${value.toFixed(digits)} ${unit}`.trim()}
                </td>
              );
            })}
          </tr>
        ))}
      </SmallTable>
    </section>
  );
}

function middleCents({ result }: KeptTake): number | null {
  const cents = result.notes
    .filter(({ heard, cents: own }) => heard && Number.isFinite(own))
    .map(({ cents: own }) => Math.abs(own))
    .sort((a, b) => a - b);
  return cents.length > 0 ? cents[cents.length >> 1]! : null;
}
