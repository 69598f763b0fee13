import { type DroneChoice, type DroneWish, applyDrones, droneLine } from '#core/drones';
import { planeName } from '#core/crossing';
import { intervalName, pitchName } from '#core/pitch';
import { type TuneReport, droneSceneOf, reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { readTunes } from './readInput';
import { UsageError } from './usage';

/** Wishes as they are called on the command line. */
const WISHES: Readonly<Record<string, DroneWish>> = {
  pair: 'one-pair',
  stressed: 'stressed',
  'phrase-ends': 'phrase-ends',
  throughout: 'throughout',
};

/** `drones FILE --wish pair`: the drone line that would be proposed for the whole tune. */
export function drones(
  file: string,
  { wish = 'pair', tune: wanted, json }: { readonly wish?: string; readonly tune?: string; readonly json?: boolean },
): string {
  const known = WISHES[wish];
  if (!known) throw new UsageError(`--wish: expected ${Object.keys(WISHES).join(', ')}, got ${wish}`);
  const lines = readTunes(file, wanted).map(({ tune }) => lineOf(tune, wish, known));
  if (json) return `${JSON.stringify(lines.length === 1 ? lines[0] : lines, null, 2)}\n`;
  return lines
    .map(
      ({ title, notes, crossings, armDegrees }) =>
        `${title}: ${notes.filter(({ partner }) => partner !== null).length} of ${notes.length} notes with a second string, crossings ${crossings.before} to ${crossings.after}, arm ${armDegrees.before}° to ${armDegrees.after}°\n`,
    )
    .join('');
}

function lineOf(tune: Tune, wish: string, known: DroneWish) {
  const report = reportTune(tune);
  const choices = choicesOf(report, known);
  const after = reportTune(applyDrones(tune, choices));
  return {
    title: tune.title,
    wish,
    notes: report.unrolled.notes.map(({ index, note }) => {
      const choice = choices.get(note.id);
      const drone = choice && choice.kind !== 'none' && choice.kind !== 'stopped' ? choice.drone : null;
      const plane = after.figures.arm.planes[index];
      return {
        index,
        id: note.id,
        partner: drone && { place: drone.place, finger: 0, pitch: pitchName(drone.pitch) },
        open: drone !== null,
        pair: plane?.length === 2 ? planeName(plane).split('').join('-') : null,
        interval: drone && intervalName(drone.pitch, note.pitch).replace(/ (up|down)$/, ''),
        inChord: drone && drone.role !== 'other',
        rank: drone && rounded(drone.rank),
        terms: drone
          ? Object.fromEntries(Object.entries(drone.terms).map(([name, term]) => [name, rounded(term)]))
          : {},
      };
    }),
    crossings: { before: crossingsOf(report), after: crossingsOf(after) },
    armDegrees: {
      before: rounded(report.figures.arm.sums.armDegrees),
      after: rounded(after.figures.arm.sums.armDegrees),
    },
  };
}

/** A written note is told by the first pass that plays it. */
function choicesOf(report: TuneReport, wish: DroneWish): Map<string, DroneChoice> {
  const choices = new Map<string, DroneChoice>();
  for (const { firstNote, endNote } of report.unrolled.passes)
    for (const [k, choice] of droneLine(droneSceneOf(report), firstNote, endNote, wish).choices.entries()) {
      const { id } = report.unrolled.notes[firstNote + k]!.note;
      if (!choices.has(id)) choices.set(id, choice);
    }
  return choices;
}

const crossingsOf = ({ figures }: TuneReport) => figures.arm.sums.adjacent + figures.arm.sums.skip;
const rounded = (value: number) => Math.round(value * 1000) / 1000;
