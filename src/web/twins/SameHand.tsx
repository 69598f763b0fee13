import { useMemo } from 'react';
import { handTwins } from '#core/twins';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { noteNames, placeName } from './placeNames';

const TWINS_TOLD = 12;
const NOTES_NAMED = 8;

/** The same hand in the same rhythm on other strings. */
export function SameHand({ report, onShow }: Pick<SheetProps, 'report' | 'onShow'>) {
  const twins = useMemo(() => handTwins(report.tune, report.fingers), [report]);
  if (twins.length === 0)
    return <p className="text-muted">No fingering of four notes or more is repeated on another string.</p>;
  return (
    <>
      <p className="mb-3 text-small text-muted">
        What the fingers have learned on one string they know on the next: only the arm’s level is new.
      </p>
      <ol className="flex flex-col gap-2">
        {twins.slice(0, TWINS_TOLD).map((twin) => (
          <li key={twin.spots[0]!.notes[0]!.id} className="rounded-md border border-line px-3 py-2" data-hand-twin>
            <p className="text-small text-muted">
              {twin.length} notes
              {!twin.isBowedAlike && <span className="ml-3 font-bold text-weld-ink">bowed more than one way</span>}
            </p>
            <ul>
              {twin.spots.map(({ notes, string, semitones }) => (
                <li key={string} className="flex flex-wrap items-baseline gap-x-3">
                  <span className="font-serif text-lead font-bold">{noteNames(notes, NOTES_NAMED)}</span>
                  <span className="text-small text-muted">
                    from the {string} string
                    {semitones === null && ', another tune: the strings are not equally far apart'}
                    {semitones !== null &&
                      semitones !== 0 &&
                      `, ${Math.abs(semitones)} semitones ${semitones > 0 ? 'up' : 'down'}`}
                  </span>
                  <Button look="small" onClick={() => onShow(notes.map(({ id }) => id))}>
                    {placeName(report, notes)}
                    <span className="sr-only">, show it</span>
                  </Button>
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
      {twins.length > TWINS_TOLD && <p className="mt-2 text-muted">and {twins.length - TWINS_TOLD} shorter ones</p>}
    </>
  );
}
