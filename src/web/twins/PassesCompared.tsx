import { useMemo, useState } from 'react';
import { type BowOf, type PassBarDifference, passDifferences } from '#core/difference';
import type { Link } from '#core/tune';
import { countWords } from '#words/spot';
import type { SheetProps } from '../openTune/sheetProps';
import { Select } from '../ui/Select';

const LINK_WORDS: Record<Link, string> = {
  start: 'turned to',
  change: 'turned to',
  slur: 'slurred',
  hook: 'hooked',
  retake: 'retaken',
};

/** Two times through a part, bar by bar: only what differs. */
export function PassesCompared({ report }: Pick<SheetProps, 'report'>) {
  const { unrolled, figures } = report;
  const pairs = useMemo(
    () =>
      unrolled.passes.flatMap(({ part, pass }, other) => {
        const one = unrolled.passes.findIndex((candidate) => candidate.part === part);
        return one === other ? [] : [{ one, other, part, pass }];
      }),
    [unrolled],
  );
  const [chosen, setChosen] = useState(0);
  const pair = pairs[chosen];
  const differences = useMemo(
    () => (pair ? passDifferences(unrolled, figures.bowed, pair.one, pair.other) : []),
    [pair, unrolled, figures],
  );
  if (!pair) return <p className="text-muted">No part is played more than once.</p>;
  return (
    <>
      <label className="mb-3 flex items-center gap-2">
        compare
        <Select
          value={chosen}
          options={pairs.map(({ part, pass }, i) => ({ value: i, name: `${part}1 with ${part}${pass}` }))}
          onChange={setChosen}
        />
      </label>
      {differences.length === 0 ? (
        <p data-passes="same">The two are the same, note for note and bow for bow.</p>
      ) : (
        <dl className="flex flex-col" data-passes="differ">
          {differences.map((difference) => (
            <div key={difference.bar} className="flex gap-3 border-b border-line py-1.5 last:border-0">
              <dt className="w-20 shrink-0 font-serif font-bold">
                {difference.bar === 0 ? 'Pickup' : `Bar ${difference.bar}`}
              </dt>
              <dd>{differenceWords(difference)}</dd>
            </div>
          ))}
        </dl>
      )}
    </>
  );
}

function differenceWords({ isFlipped, bowed, notes }: PassBarDifference): string {
  if (notes) return `${notes.was || 'nothing'} the first time, ${notes.is || 'nothing'} then`;
  if (isFlipped) return 'every note goes the other way';
  return bowed.map(({ was, is, ...at }) => `${countWords(at)}: ${bowWords(was)}, then ${bowWords(is)}`).join('; ');
}

function bowWords({ link, bow }: BowOf): string {
  const word = LINK_WORDS[link];
  return link === 'change' || link === 'start' ? `${word} the ${bow}-bow` : `${word} on the ${bow}-bow`;
}
