import { Link } from 'react-router';
import type { TuneReport } from '#core/report';
import type { TakeFinding } from '#core/take';
import { barWords, countWords } from '#words/spot';
import { marginWords, mistakeWords } from '#words/take';
import { DRILL_NAMES } from '#words/tuneDrill';
import { passShown } from '../openTune/openTuneSlice';
import { useAppDispatch } from '../store/store';

interface TakeFindingsProps {
  readonly findings: readonly TakeFinding[];
  readonly report: TuneReport;
  readonly tuneId: string;
  readonly onShow: (ids: readonly string[]) => void;
}

/** Things to mend of a take, each beside its place. */
export function TakeFindings({ findings, report, tuneId, onShow }: TakeFindingsProps) {
  const dispatch = useAppDispatch();
  if (findings.length === 0) return null;
  return (
    <ul className="flex flex-col gap-2">
      {findings.map((finding) => {
        const { code, notes, loop, seconds, drill } = finding;
        const played = report.unrolled.notes[notes[0]!];
        return (
          <li key={`${code} ${loop} ${notes[0]} ${seconds}`} className="leading-snug" data-take-finding={code}>
            {played && (
              <button
                type="button"
                className="font-serif text-lead font-bold text-madder hover:underline"
                onClick={() => {
                  dispatch(passShown({ part: played.part, pass: played.pass }));
                  onShow([played.note.id]);
                }}
              >
                {played.part}
                {played.pass}, {barWords(played)}, {countWords(played)}:
              </button>
            )}{' '}
            {mistakeWords(finding)}.
            <span className="block text-hint text-muted">
              {marginWords(finding)}, {seconds.toFixed(1)} s into the take
              {drill && (
                <>
                  {' · '}
                  <Link
                    className="text-woad underline underline-offset-2"
                    to={`/tunes/${tuneId}/practice/drill-${drill}`}
                  >
                    {DRILL_NAMES[drill].name}
                  </Link>
                </>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
