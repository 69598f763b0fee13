import type { TuneReport } from '#core/report';
import { PLACES } from '#core/tune';
import { percentWords } from '#words/plural';
import { stringName } from '#words/strings';
import { takeVerdict } from '#words/take';
import { beatWords } from '#words/tempo';
import type { KeptTake } from './keptTakes';
import { OwnFactorsLine } from './OwnFactorsLine';
import { TakeFindings } from './TakeFindings';

/** A figure is told when it is so many times its uncertainty: a few of many figures are beyond one by chance. */
const SURE = 2;
/** A share of samples cut off that can be heard, and a drift, a lilt or a creep worth a line. */
const CLIPPED = 0.0005;
const LILT_MS = 8;
const CREEP_CENTS = 8;
const DRIFT_PERCENT = 1;

interface TakeSummaryProps {
  readonly take: KeptTake;
  readonly report: TuneReport;
  readonly tuneId: string;
  readonly onShow: (ids: readonly string[]) => void;
}

/** What was heard: one loud line, the figures, and each thing to mend with its place and its drill. */
export function TakeSummary({ take, report, tuneId, onShow }: TakeSummaryProps) {
  const { result } = take;
  const { figures, findings, clean } = result;
  return (
    <section aria-label="What was heard" data-take={clean ? 'clean' : 'to-mend'}>
      <p role="status" className={`font-serif text-section font-bold ${clean ? 'text-lichen-ink' : 'text-madder'}`}>
        {takeVerdict(clean, findings.length, figures.heardNotes, figures.notes)}
      </p>
      <ul className="mb-2 text-small text-muted">
        {figureLines(result, report).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <OwnFactorsLine take={take} tune={report.tune} />
      <TakeFindings findings={findings} report={report} tuneId={tuneId} onShow={onShow} />
    </section>
  );
}

const isSure = (figure: number, worth: number, unsure: number | null) =>
  unsure !== null && Math.abs(figure) >= Math.max(worth, SURE * unsure);
const withMargin = (figure: number, unsure: number | null) =>
  `${Math.round(Math.abs(figure))} ± ${Math.max(1, Math.round(unsure ?? 0))}`;

/** The figures of a take, a line each; what was not heard has none. */
function figureLines({ figures, clipped }: KeptTake['result'], { settings, tune, unrolled }: TuneReport): string[] {
  const { tempo, lilt, offbeatDecibels, holdFactor, silenceFactor, fingers, notes, heardNotes } = figures;
  const hasHolds = unrolled.notes.some(({ note }) => (note.hold ?? 1) > 1);
  const lines = [`${heardNotes} of ${notes} notes heard`];
  if (tempo.bpm !== null) {
    const { driftPercentPerMinute: drift, driftUncertainty: unsure } = tempo;
    const goes =
      drift === null || !isSure(drift, DRIFT_PERCENT, unsure)
        ? ''
        : `, ${withMargin(drift, unsure)} % a minute ${drift > 0 ? 'quicker' : 'slower'}`;
    const steady = tempo.steadinessMs === null ? '' : `, steady within ${Math.round(tempo.steadinessMs)} ms`;
    lines.push(`tempo ${Math.round(tempo.bpm)} ${beatWords(settings.beat)} a minute${steady}${goes}`);
  }
  for (const { position, offMs, uncertaintyMs } of lilt)
    if (position > 0 && Math.abs(offMs) > Math.max(LILT_MS, uncertaintyMs))
      lines.push(
        `${percentWords(position)} into the beat: ${Math.round(Math.abs(offMs))} ms ${offMs > 0 ? 'later' : 'earlier'} than planned`,
      );
  if (offbeatDecibels !== null)
    lines.push(
      `off the beat ${Math.abs(offbeatDecibels).toFixed(1)} dB ${offbeatDecibels > 0 ? 'louder' : 'softer'} than on it`,
    );
  if (holdFactor !== null)
    lines.push(`${hasHolds ? 'holds' : 'long notes'} last ${percentWords(holdFactor)} of what is planned`);
  if (silenceFactor !== null) lines.push(`rests last ${percentWords(silenceFactor)} of what is planned`);
  for (const { place, semitones, centsPerMinute, uncertainty } of fingers)
    if (isSure(centsPerMinute, CREEP_CENTS, uncertainty))
      lines.push(
        `${stringName(PLACES[place]!, tune.tuning)} string, ${semitones} semitones up: creeps ${withMargin(centsPerMinute, uncertainty)} cents a minute ${centsPerMinute > 0 ? 'up' : 'down'}`,
      );
  if (clipped > CLIPPED) lines.push(`${(100 * clipped).toFixed(1)} % is cut off: record more softly`);
  return lines;
}
