import { useMemo } from 'react';
import type { Words } from '#contract/settings';
import { neighbourAngle } from '#core/crossing';
import { reusedRuns } from '#core/editing';
import { noteStates } from '#core/noteStates';
import { ORNAMENTS } from '#core/ornaments';
import type { TuneReport } from '#core/report';
import { meterName, type Tune, writtenBars } from '#core/tune';
import { ornamentName } from '#words/ornament';
import { writtenKey, writtenPitch } from '#words/pitch';
import { reuseWords } from '#words/spot';
import { beatWords } from '#words/tempo';
import { droneHeads } from '../score/droneHeads';
import type { LaneSettings } from '../score/Lanes';
import { scoreLines } from '../score/lines';
import type { ScoreMark } from '../score/markPaths';
import { StillLine } from '../score/StillLine';

/** Heights of the staff on paper, which is 40 px of the drawing; the usual one is large enough to be read from a stand. */
export const STAVES_MM = [7, 8, 9, 10] as const;
export type StaffMm = (typeof STAVES_MM)[number];
const USUAL_STAFF_MM = 8;
const STAFF_PX = 40;
export const mmPerPx = (staffMm: StaffMm = USUAL_STAFF_MM): number => staffMm / STAFF_PX;
export const CSS_PX_PER_MM = 96 / 25.4;
/** Bars of more notes than this get half a line each. */
const DENSE_BAR = 9;

/** What stands under the staff. */
export interface LineOptions {
  readonly fingers: boolean;
  readonly strings: boolean;
  readonly calls: boolean;
  readonly letters: boolean;
}

/** The lines of a tune as they are printed; each is marked, to be taken over into a file. */
export function HandoutLines(props: {
  readonly report: TuneReport;
  readonly width: number;
  readonly scale: number;
  readonly options: LineOptions;
}) {
  const { report, width, scale, options } = props;
  const { instrument } = report.settings;
  const lines = useMemo(
    () => scoreLines(report.tune, barsOnPaper(report.tune), droneHeads(report.tune, report.fingers)),
    [report],
  );
  const states = useMemo(() => noteStates(report, {}), [report]);
  const lanes: LaneSettings = useMemo(
    () => ({
      fingers: options.fingers,
      strings: options.strings,
      calls: options.calls,
      letters: options.letters,
      bow: false,
      arm: false,
      room: false,
      otherPasses: false,
      hair: { hairCm: instrument.hairCm, windowLowCm: 0, windowHighCm: instrument.hairCm },
      neighbourAngle: neighbourAngle(instrument),
      marginDegrees: instrument.marginDegrees,
    }),
    [options, instrument],
  );
  return lines.map((line) => (
    <div key={line.id} data-handout-line className="break-inside-avoid" style={{ zoom: scale }}>
      <StillLine line={line} width={width} states={states} lanes={lanes} tuning={report.tune.tuning} />
    </div>
  ));
}

function barsOnPaper(tune: Tune): number {
  const bars = [...writtenBars(tune).values()].flat();
  return bars.some(({ events }) => events.length > DENSE_BAR) ? 2 : 4;
}

/** `Wenna Tarr · reel · 4/4 · D major · tuned G3 D4 A4 E5 · 109 half notes a minute · AABB · starts down-bow`. */
export function headWords({ tune, settings, figures }: TuneReport): string {
  const form = tune.form.every((name) => name.length === 1) ? tune.form.join('') : tune.form.join(' ');
  return [
    ...(tune.composer ? [tune.composer] : []),
    ...(tune.danceType ? [tune.danceType] : []),
    meterName(tune.meter),
    writtenKey(tune.key),
    `tuned ${tune.tuning.map(writtenPitch).join(' ')}`,
    `${Math.round(settings.bpm)} ${beatWords(settings.beat)} a minute`,
    form,
    `starts ${figures.start.direction}-bow`,
  ].join(' · ');
}

/** What a sign on the sheet means; without one, words for themselves. */
export interface Legend {
  readonly sign: ScoreMark | null;
  readonly words: string;
}

/** What the signs on this sheet mean, and no other. */
export function legendOf(
  reports: readonly TuneReport[],
  options: LineOptions,
  names: Pick<Words, 'cut' | 'flick'>,
): Legend[] {
  const notes = reports
    .flatMap(({ tune }) => tune.parts.flatMap(({ events }) => events))
    .filter((event) => event.kind === 'note');
  const hasTwo = notes.some(({ drone, stops }) => drone !== undefined || (stops?.length ?? 0) > 0);
  const has = (link: string) => reports.some(({ figures }) => figures.bowed.some((bowed) => bowed.link === link));
  const words = [
    'Square sign: down-bow. Wedge: up-bow. A slur is one stroke.',
    ...(has('hook') ? ['A short line under a slur: the bow stops and goes on the same way.'] : []),
    ...(has('retake') ? ['Two signs alike in a row: the bow is lifted and set again.'] : []),
    ...(reports.every(({ figures }) => figures.ledger.oneDirection)
      ? []
      : ['A dot over a bow sign: the other way round another time through.']),
    ...(notes.some(({ lock }) => lock) ? ['A lock: this direction stays.'] : []),
    ...reports
      .flatMap(({ tune }) => reusedRuns(tune))
      .slice(0, 1)
      .map((run) => `“${reuseWords(run)}”: the notes of those bars once more.`),
    ...(options.fingers && notes.length > 0
      ? [
          `Figures under the staff: 0 is the open string, 1 to 4 the fingers${hasTwo ? '; of two, the lower one is the second note’s' : ''}.`,
        ]
      : []),
    ...(options.strings ? ['Letters under the staff: the string, where it changes.'] : []),
    ...(options.calls ? ['A letter over a figure: string and finger.'] : []),
  ];
  const marks = new Set(notes.flatMap((note) => note.marks ?? []));
  return [
    ...words.map((line): Legend => ({ sign: null, words: line })),
    ...ORNAMENTS.filter((ornament) => marks.has(ornament)).map((ornament): Legend => ({
      sign: ornament,
      words: ornamentName(ornament, names),
    })),
  ];
}
