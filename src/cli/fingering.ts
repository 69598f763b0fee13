import { fingeringTerms, searchFingering } from '#core/fingering';
import { pitchName } from '#core/pitch';
import { reportTune } from '#core/report';
import { type Tune, unroll } from '#core/tune';
import { readTunes } from './readInput';

/** `fingering FILE`: the fingering that would be proposed, note by note as played. */
export function fingering(
  file: string,
  { tune: wanted, json }: { readonly tune?: string; readonly json?: boolean },
  leftOut: string[],
) {
  const found = readTunes(file, wanted, leftOut).map(({ tune }) => fingered(tune));
  if (json) return `${JSON.stringify(found.length === 1 ? found[0] : found, null, 2)}\n`;
  return found
    .map(
      ({ title, notes, cost }) =>
        `${title}: ${cost} mm\n${notes.map(({ pitch, place, finger, position }) => `  ${pitch} ${place === null ? 'out of reach' : `${place}:${finger}${position === 1 ? '' : ` in position ${position}`}`}`).join('\n')}\n`,
    )
    .join('');
}

function fingered(tune: Tune) {
  const { hand, instrument } = reportTune(tune).settings;
  const unrolled = unroll(tune);
  const result = searchFingering(tune, unrolled, hand, instrument);
  const terms = fingeringTerms(tune, unrolled, result, hand, instrument);
  let before: { index: number; position: number } | null = null;
  const shifts: { index: number; from: number; to: number }[] = [];
  const notes = unrolled.notes.map(({ index, note }) => {
    const top = result.notes.get(note.id)?.chord?.[0];
    const own = terms.get(note.id);
    if (top) {
      if (before && before.position !== top.position) shifts.push({ index, from: before.position, to: top.position });
      before = { index, position: top.position };
    }
    return {
      index,
      id: note.id,
      pitch: pitchName(note.pitch),
      place: top?.place ?? null,
      finger: top?.finger ?? null,
      position: top?.position ?? null,
      cost: own ? rounded(own.stop + own.move) : null,
      terms: own ? { stop: rounded(own.stop), move: rounded(own.move) } : {},
    };
  });
  return { title: tune.title, notes, cost: rounded(result.cost), shifts };
}

const rounded = (value: number) => Math.round(value * 1000) / 1000;
