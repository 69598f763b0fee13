import { Fragment, useMemo } from 'react';
import { type Agreement, type AlignedBar, alignVariants, type BeatNote, type VariantBar } from '#core/likeness';
import type { Pitch } from '#core/pitch';
import type { Tune } from '#core/tune';
import { agreementWords, keyShiftWords } from '#words/alignment';
import { ordinal } from '#words/ordinal';

const SIGNS: Record<Agreement, string> = { same: '', 'on-the-beat': '≈', different: '≠', alone: '+' };
const LOOKS: Record<Agreement, string> = {
  same: 'text-muted',
  'on-the-beat': 'border-b-2 border-dotted border-weld',
  different: 'border-b-2 border-madder font-bold',
  alone: 'border-b-2 border-dashed border-soft',
};

interface AlignedBarsProps {
  readonly one: Tune;
  readonly other: Tune;
  readonly names: readonly [string, string];
  /** Bars shown; the others are told by their number. */
  readonly max?: number;
}

/** Two settings bar under bar, each beat with a sign of how far they agree on it. */
export function AlignedBars({ one, other, names, max = Infinity }: AlignedBarsProps) {
  const { bars, counts, semitones } = useMemo(() => alignVariants(one, other), [one, other]);
  const shown = bars.slice(0, max);
  return (
    <div>
      <p className="mb-2 text-small">
        {agreementWords(counts)}
        {semitones !== 0 && ` ${keyShiftWords(semitones)}`} Above: {names[0]}; below: {names[1]}.
      </p>
      <ol
        className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,10.5rem),1fr))] gap-1.5 lg:grid-cols-4"
        aria-label={`${names[0]} and ${names[1]}, bar by bar`}
      >
        {shown.map((bar, i) => (
          <BarPair key={i} bar={bar} names={names} beginsPart={partOf(bar) !== partOf(shown[i - 1] ?? bar)} />
        ))}
      </ol>
      {bars.length > shown.length && (
        <p className="mt-1 text-small text-muted">
          and {bars.length - shown.length} more bar{bars.length - shown.length === 1 ? '' : 's'}
        </p>
      )}
    </div>
  );
}

const partOf = ({ one, other }: AlignedBar) => (one ?? other)!.part;

function BarPair(props: {
  readonly bar: AlignedBar;
  readonly names: readonly [string, string];
  readonly beginsPart: boolean;
}) {
  const { bar, names, beginsPart } = props;
  const { one, other, beats } = bar;
  const label = one ?? other!;
  return (
    <li
      className={`min-w-0 overflow-x-auto rounded-md border border-line bg-surface px-2 py-1 ${beginsPart ? 'col-start-1' : ''}`}
    >
      <p className="text-fine text-muted">
        {label.part} {label.bar === 0 ? 'pickup' : label.bar}
        {label.onPlays && `, ${label.onPlays.map(ordinal).join(' and ')} time`}
        {one &&
          other &&
          (other.part !== one.part || other.bar !== one.bar) &&
          ` · ${other.part} ${other.bar || 'pickup'}`}
      </p>
      <div
        className="grid items-baseline gap-x-3 text-control"
        style={{ gridTemplateColumns: `repeat(${beats.length}, minmax(max-content, 1fr))` }}
      >
        {[one, other].map((setting, row) => (
          <Fragment key={row}>
            {beats.map((agreement, i) => (
              <span key={i} className="whitespace-nowrap">
                <span className="sr-only">
                  {i === 0 ? `${names[row]}: ` : ''}
                  {row === 0 ? AGREEMENTS[agreement] : ''}
                </span>
                <span className={LOOKS[agreement]}>{setting ? beatLetters(setting, i, beats.length) : '–'}</span>
                {row === 1 && SIGNS[agreement] !== '' && (
                  <span aria-hidden className="ml-0.5 text-fine text-muted">
                    {SIGNS[agreement]}
                  </span>
                )}
              </span>
            ))}
          </Fragment>
        ))}
      </div>
    </li>
  );
}

const AGREEMENTS: Record<Agreement, string> = {
  same: '',
  'on-the-beat': 'agrees on the beat: ',
  different: 'differs: ',
  alone: 'stands alone: ',
};

function beatLetters({ bar, beats }: VariantBar, index: number, count: number): string {
  const own = beats[bar === 0 ? index - (count - beats.length) : index];
  if (!own) return '–';
  return own.length === 0 ? '·' : own.map(noteLetters).join(' ');
}

/** `F♯`, with a stroke for each octave above the fourth and a comma for each below. */
function noteLetters({ pitch }: BeatNote): string {
  return letters(pitch);
}

function letters({ letter, alter, octave }: Pitch): string {
  const sign = alter > 0 ? '♯'.repeat(alter) : '♭'.repeat(-alter);
  const height = octave > 4 ? '′'.repeat(octave - 4) : ','.repeat(4 - octave);
  return `${letter}${sign}${height}`;
}
