import type { Finding, TuneReport } from '#core/report';
import { roundWords } from '#words/round';
import { eventName } from '#words/standing';
import { beatWords } from '#words/tempo';

const LINK = 'font-bold text-ink underline decoration-soft underline-offset-3 hover:decoration-ink';

/** The one loud sentence: does it work. */
export function Verdict(props: {
  readonly report: TuneReport;
  readonly onShow: (index: number) => void;
  readonly onShowFinding: (finding: Finding) => void;
}) {
  const { report, onShow, onShowFinding } = props;
  const flip = report.findings.find(({ code }) => code === 'part-flips' || code === 'tune-flips-again');
  const { figures, settings, tune } = report;
  const { ledger, check } = figures;
  const { ceiling } = check;
  const stands = ceiling === null || ceiling.ceilingBpm >= settings.bpm;
  const isGood = ledger.comesRound && stands;
  const { low, high } = report.band;
  return (
    <div
      className="flex flex-wrap items-baseline gap-x-6 gap-y-0.5 bg-paper py-2 md:sticky md:top-0 md:z-20"
      aria-live="polite"
    >
      <h2 className={`text-sheet leading-tight ${isGood ? 'text-lichen-ink' : 'text-madder'}`} data-verdict>
        {roundWords(report)}
        {ledger.comesRound && !stands && ' It breaks at dance tempo.'}
      </h2>
      {flip && (
        <p className="text-muted">
          <button type="button" className={LINK} onClick={() => onShowFinding(flip)}>
            {flip.mends.length > 0 ? `see ${flip.mends.length === 1 ? 'its mend' : 'its mends'}` : 'see where'}
          </button>
        </p>
      )}
      <p className="text-muted">
        {ceiling ? (
          <>
            holds up to <b className="text-ink">{Math.floor(ceiling.ceilingBpm)}</b>, you want{' '}
            <b className="text-ink">{Math.round(settings.bpm)}</b>
          </>
        ) : (
          'holds at any tempo'
        )}{' '}
        <span className="whitespace-nowrap">
          ({beatWords(settings.beat)} a minute; {tune.danceType ? `${tune.danceType} band` : 'guessed band'} {low}–
          {high})
        </span>
      </p>
      {ceiling && (
        <p className="text-muted">
          tightest:{' '}
          <button type="button" className={LINK} onClick={() => onShow(ceiling.index)}>
            {placeOf(report, ceiling.index)}
          </button>
          , {eventName(ceiling.kind, figures.arm.crossings[ceiling.index] ?? null)}
        </p>
      )}
    </div>
  );
}

function placeOf({ unrolled }: TuneReport, index: number): string {
  const { part, bar } = unrolled.notes[index]!;
  return bar === 0 ? `pickup of ${part}` : `bar ${bar} of ${part}`;
}
