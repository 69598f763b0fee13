import { useMemo } from 'react';
import { phraseIndex } from '#core/twins';
import { counted } from '#words/plural';
import { barSpan } from '#words/spot';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { noteNames } from './placeNames';

const NOTES_NAMED = 12;

/** Each phrase by the shortest beginning that no other phrase has. */
export function PhraseList({ report, onShow }: Pick<SheetProps, 'report' | 'onShow'>) {
  const phrases = useMemo(() => phraseIndex(report.tune), [report]);
  if (phrases.length === 0) return <p className="text-muted">This tune has no notes yet.</p>;
  const name = (i: number) => `${phrases[i]!.part} ${barSpan(phrases[i]!.from, phrases[i]!.to)}`;
  return (
    <>
      <p className="mb-3 text-small text-muted">
        Four bars each, by the shortest beginning that sets it apart from the others: know these and you know where you
        are.
      </p>
      <ol className="flex flex-col">
        {phrases.map(({ beginning, sameAs }, i) => (
          <li key={name(i)} className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-1.5 last:border-0">
            <Button look="small" onClick={() => onShow(beginning.map(({ id }) => id))}>
              {name(i)}
              <span className="sr-only">, show its beginning</span>
            </Button>
            {sameAs === null ? (
              <>
                <span className="font-serif text-lead font-bold">{noteNames(beginning, NOTES_NAMED)}</span>
                <span className="text-small text-muted">{counted(beginning.length, 'note')}</span>
              </>
            ) : (
              <span className="text-muted">the same as {name(sameAs)}</span>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}
