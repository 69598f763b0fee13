import { planeName } from '#core/crossing';
import { applyDrones, type DroneChoice, droneLine, type DroneWish } from '#core/drones';
import { intervalName, pitchName } from '#core/pitch';
import { droneSceneOf, reportTune, type TuneReport } from '#core/report';
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
  {
    wish = 'pair',
    stopped,
    tune: wanted,
    json,
  }: { readonly wish?: string; readonly stopped?: boolean; readonly tune?: string; readonly json?: boolean },
  leftOut: string[],
): string {
  const known = WISHES[wish];
  if (!known) throw new UsageError(`--wish: expected ${Object.keys(WISHES).join(', ')}, got ${wish}`);
  const lines = readTunes(file, wanted, leftOut).map(({ tune }) => lineOf(tune, wish, known, stopped ?? false));
  if (json) return `${JSON.stringify(lines.length === 1 ? lines[0] : lines, null, 2)}\n`;
  return lines
    .map(
      ({ title, notes, crossings, armDegrees }) =>
        `${title}: ${notes.filter(({ partner }) => partner !== null).length} of ${notes.length} notes with a second string, crossings ${crossings.before} to ${crossings.after}, arm ${armDegrees.before}° to ${armDegrees.after}°\n`,
    )
    .join('');
}

function lineOf(tune: Tune, wish: string, known: DroneWish, stopped: boolean) {
  const report = reportTune(tune);
  const choices = choicesOf(report, known, stopped);
  const after = reportTune(applyDrones(tune, choices));
  return {
    title: tune.title,
    wish,
    notes: report.unrolled.notes.map(({ index, note }) => {
      const choice = choices.get(note.id);
      const partner = choice && partnerOf(choice);
      const plane = after.figures.arm.planes[index];
      return {
        index,
        id: note.id,
        partner: partner && { place: partner.place, finger: partner.finger, pitch: pitchName(partner.pitch) },
        open: partner ? partner.finger === 0 : false,
        pair: plane?.length === 2 ? planeName(plane).split('').join('-') : null,
        interval: partner && intervalName(partner.pitch, note.pitch).replace(/ (up|down)$/, ''),
        inChord: partner && partner.role !== 'other',
        rank: partner && rounded(partner.rank),
        terms: partner
          ? Object.fromEntries(Object.entries(partner.terms).map(([name, term]) => [name, rounded(term)]))
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

/** What sounds beside a note, open or stopped; null: nothing. */
function partnerOf(choice: DroneChoice) {
  if (choice.kind === 'none') return null;
  if (choice.kind !== 'stopped') return { ...choice.drone, finger: 0 };
  const { stop, pitch, role, rank, terms } = choice.double;
  return { place: stop.place, finger: stop.finger, pitch, role, rank, terms };
}

/** A written note is told by the first pass that plays it. */
function choicesOf(report: TuneReport, wish: DroneWish, stopped: boolean): Map<string, DroneChoice> {
  const choices = new Map<string, DroneChoice>();
  const scene = droneSceneOf(report);
  const partners = stopped ? report.timing : null;
  for (const { firstNote, endNote } of report.unrolled.passes)
    for (const [k, choice] of droneLine(scene, { from: firstNote, to: endNote }, wish, {
      partners,
    }).choices.entries()) {
      const { id } = report.unrolled.notes[firstNote + k]!.note;
      if (!choices.has(id)) choices.set(id, choice);
    }
  return choices;
}

const crossingsOf = ({ figures }: TuneReport) => figures.arm.sums.adjacent + figures.arm.sums.skip;
const rounded = (value: number) => Math.round(value * 1000) / 1000;
