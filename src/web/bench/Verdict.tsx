import type { Finding, TuneReport } from '#core/report';
import { noteSpotWords } from '#words/spot';
import { eventName } from '#words/standing';
import { beatWords } from '#words/tempo';
import { reportVerdict } from '#words/verdict';
import { OwnCeilingLine } from '../openTune/OwnCeilingLine';
import { Termed } from '../openTune/Termed';
import type { OwnTempo } from '../openTune/useOwnCeiling';

const LINK = 'font-bold text-ink underline decoration-soft underline-offset-3 hover:decoration-ink';

interface VerdictProps {
  readonly report: TuneReport;
  /** While notes are entered nothing is judged aloud: half a part is no plan yet. */
  readonly isEntering: boolean;
  /** What a choice that is only looked at would come to. */
  readonly preview?: TuneReport | null;
  /** Up to which tempo it holds for this player. */
  readonly ownTempo?: OwnTempo | null;
  readonly onShow: (index: number) => void;
  readonly onShowFinding: (finding: Finding) => void;
}

/** The one loud sentence: does it work. */
export function Verdict({ report, isEntering, preview = null, ownTempo = null, onShow, onShowFinding }: VerdictProps) {
  const { kind, words } = reportVerdict(report);
  const { figures, settings, tune, band } = report;
  const flip = report.findings.find(({ code }) => code === 'part-flips' || code === 'tune-flips-again');
  const { ceiling } = figures.check;
  if (isEntering)
    return (
      <div className="py-2 text-muted" data-verdict="quiet">
        {kind === 'empty'
          ? 'Nothing entered yet.'
          : `So far: ${words.replace(/^(It|The) /, (first) => first.toLowerCase())}`}
      </div>
    );
  return (
    <div
      className="flex flex-wrap items-baseline gap-x-6 gap-y-0.5 bg-paper py-2 md:sticky md:top-0 md:z-20"
      aria-live="polite"
    >
      <h2
        className={`text-sheet leading-tight max-md:group-data-tool/bench:text-lead ${TONES[kind]}`}
        data-verdict={kind}
      >
        <Termed>{words}</Termed>
      </h2>
      {preview && (
        <p className="text-woad" data-verdict-preview>
          with this: <b>{reportVerdict(preview).words}</b>
        </p>
      )}
      {flip && !preview && (
        <p className="text-muted max-md:group-data-tool/bench:hidden">
          <button type="button" className={LINK} onClick={() => onShowFinding(flip)}>
            {flip.mends.length > 0 ? `see ${flip.mends.length === 1 ? 'its mend' : 'its mends'}` : 'see where'}
          </button>
        </p>
      )}
      <p className="text-muted max-md:group-data-tool/bench:hidden">
        you want <b className="text-ink">{Math.round(settings.bpm)}</b> {beatWords(settings.beat)} a minute{' '}
        <span className="whitespace-nowrap">
          ({tune.danceType ? `a ${tune.danceType} is danced at` : 'such tunes are danced at'} {band.low}–{band.high})
        </span>
      </p>
      {ceiling && (
        <p className="text-muted max-md:group-data-tool/bench:hidden">
          <Termed>tightest</Termed>:{' '}
          <button type="button" className={LINK} onClick={() => onShow(ceiling.index)}>
            {noteSpotWords(report.unrolled.notes[ceiling.index]!)}
          </button>
          , {eventName(ceiling.kind, figures.arm.crossings[ceiling.index] ?? null)}
        </p>
      )}
      {ownTempo && <OwnCeilingLine {...ownTempo} className="max-md:group-data-tool/bench:hidden" />}
    </div>
  );
}

const TONES = { good: 'text-lichen-ink', bad: 'text-madder', empty: 'text-muted' } as const;
