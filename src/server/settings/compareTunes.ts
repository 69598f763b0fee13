import type { ChangedTune } from '#contract/settings';
import { turningOf } from '#core/crossing';
import type { Fingering } from '#core/fingering';
import { type PlayerSettings, reportTune, type TuneReport } from '#core/report';
import { planFigures } from '#core/search';
import type { Tune } from '#core/tune';
import { positionWords } from '#words/position';
import { figuresOf, type TuneFigures } from '../counting/figures';
import { type TuneHead, tuneHead } from '../tunes/tuneHead';

/** A tune as it stands under other settings, with what they changed in it. */
export interface ComparedTune {
  readonly head: TuneHead;
  readonly figures: TuneFigures;
  readonly change: ChangedTune | null;
}

/** Counts documents by the settings of before and of now, and tells what changed in each. */
export function compareTunes(
  tunes: readonly { readonly id: string; readonly document: string }[],
  before: PlayerSettings,
  after: PlayerSettings,
): ComparedTune[] {
  return tunes.map(({ id, document }) => {
    const tune = JSON.parse(document) as Tune;
    const report = reportTune(tune, after);
    return {
      head: tuneHead(tune, after),
      figures: figuresOf(report),
      change: compareReports(id, reportTune(tune, before), report),
    };
  });
}

function compareReports(id: string, was: TuneReport, is: TuneReport): ChangedTune | null {
  const ceilingBpm = {
    before: was.figures.check.ceiling?.ceilingBpm ?? null,
    after: is.figures.check.ceiling?.ceilingBpm ?? null,
  };
  /** Codes of findings of one report at notes for which the other has none of the kind. */
  const codesOnlyIn = ({ findings }: TuneReport, other: TuneReport) =>
    findings
      .filter(({ code, ids: [first] }) => !other.findings.some((one) => one.code === code && one.ids[0] === first))
      .map(({ code }) => code);
  const both = (figure: (report: typeof was) => number) => ({ before: figure(was), after: figure(is) });
  const change: ChangedTune = {
    id,
    title: is.tune.title,
    ceilingBpm,
    armDegrees: both(({ figures, settings }) => rounded(turningOf(figures.arm.sums, settings.schools.arm))),
    strayCm: both((report) => rounded(planFigures(report).driftCm)),
    refingered: refingered(was, is),
    came: codesOnlyIn(is, was),
    went: codesOnlyIn(was, is),
  };
  const figures = [change.ceilingBpm, change.armDegrees, change.strayCm];
  const isSame = figures.every(({ before: one, after: other }) => one === other);
  const isPlain = change.came.length === 0 && change.went.length === 0 && change.refingered.notes === 0;
  return isSame && isPlain ? null : change;
}

/** Notes told one by one of those that are fingered otherwise. */
const NOTES_TOLD = 4;

function refingered(was: TuneReport, is: TuneReport): ChangedTune['refingered'] {
  const seen = new Set<string>();
  const first: ChangedTune['refingered']['first'][number][] = [];
  for (const { note, part, bar } of is.unrolled.notes) {
    if (seen.has(note.id)) continue;
    const [before, after] = [callWords(was.fingers.get(note.id)!), callWords(is.fingers.get(note.id)!)];
    if (before === after) continue;
    seen.add(note.id);
    if (first.length < NOTES_TOLD) first.push({ part, bar, before, after });
  }
  return { notes: seen.size, first };
}

/** `D:2`, with its position where that is not the first; a note that the hand may not have is told as such. */
function callWords({ reachable, place, finger, position, goesAgainst }: Fingering): string {
  if (!reachable) return 'out of reach';
  const against = goesAgainst ? ', against the hand' : '';
  return `${place}:${finger}${position === 1 ? '' : ` in ${positionWords(position ?? 1)} position`}${against}`;
}

const rounded = (value: number) => Math.round(value * 10) / 10;
