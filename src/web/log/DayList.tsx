import { ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Attempt } from '#contract/log';
import { weekdayWords } from '#words/days';
import { failureWords } from '#words/failure';
import { minutesWords } from '#words/log';
import { counted } from '#words/plural';
import { attemptSpanWords } from '#words/practice';
import { DRILL_NAMES } from '#words/tuneDrill';
import type { Failure } from '../api/answer';
import { useAttemptsOfDayQuery } from '../api/logApi';
import { useTunePractice } from '../api/useTunePractice';
import { Button } from '../ui/Button';
import { NotRead } from '../ui/PageState';
import { AttemptTable } from './AttemptTable';
import { landmarkOf } from './spans';
import type { DayTune, LogDay } from './sums';
import type { Corrections } from './useCorrections';
import { useJudgedTune } from './useJudgedTune';

interface DayListProps {
  readonly days: readonly LogDay[];
  readonly words: string;
  readonly corrections: Corrections;
}

/** Days that are listed at first, and how many more at each press. */
const SHOWN = 10;

/** Days with what was played on them, the newest first; a tune opens to what was played of it, time by time. */
export function DayList({ days, words, corrections }: DayListProps) {
  const [shown, setShown] = useState(SHOWN);
  return (
    <>
      <ol aria-label="Days">
        {days.slice(0, shown).map(({ day, minutes, tunes }) => (
          <li key={day} className="mb-3" data-day={day}>
            <h3 className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-line text-section">
              {weekdayWords(day)}
              <span className="font-sans text-small font-normal text-muted">{minutesWords(minutes)}</span>
            </h3>
            <ul>
              {tunes.map((tune) => (
                <TuneOfDay key={tune.tuneId} day={day} tune={tune} words={words} corrections={corrections} />
              ))}
            </ul>
          </li>
        ))}
      </ol>
      {days.length > shown && (
        <Button look="link" onClick={() => setShown(shown + 3 * SHOWN)}>
          {counted(days.length - shown, 'earlier day')}
        </Button>
      )}
    </>
  );
}

interface TuneOfDayProps extends Omit<DayListProps, 'days'> {
  readonly day: string;
  readonly tune: DayTune;
}

function TuneOfDay({ day, tune, words, corrections }: TuneOfDayProps) {
  const [isOpen, setOpen] = useState(false);
  const { title, attempts, clean, cleanBpm, minutes } = tune;
  return (
    <li>
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="flex min-h-9 w-full items-baseline gap-2 rounded px-1 py-1 text-left hover:bg-surface"
      >
        <ChevronRight
          size={15}
          aria-hidden
          className={`shrink-0 self-center text-muted transition-transform ${isOpen ? 'rotate-90' : ''}`}
        />
        <span className="min-w-0 flex-1 font-serif font-bold break-words">{title}</span>
        <span className="shrink-0 text-right text-small text-muted tabular-nums">
          {clean} of {attempts} clean{cleanBpm !== null && `, up to ${Math.round(cleanBpm)}`} · {minutesWords(minutes)}
        </span>
      </button>
      {isOpen && <AttemptsOfDay day={day} tuneId={tune.tuneId} words={words} corrections={corrections} />}
    </li>
  );
}

function AttemptsOfDay(props: {
  readonly day: string;
  readonly tuneId: string;
  readonly words: string;
  readonly corrections: Corrections;
}) {
  const { day, tuneId, words, corrections } = props;
  const { data, error, refetch } = useAttemptsOfDayQuery({ day, tune: tuneId, words });
  const judged = useJudgedTune(tuneId);
  const { practice } = useTunePractice(tuneId);
  const nameOf = ({ span, drill, what }: Attempt): string => {
    if (drill !== null) return `${DRILL_NAMES[drill].name}, drill`;
    if (judged.kind !== 'here') return what === 'run-through' ? 'the whole tune' : `part ${span.part}`;
    return landmarkOf(practice.landmarks, span)?.name ?? attemptSpanWords(judged.report, span);
  };
  if (error !== undefined && !data)
    return <NotRead words={failureWords(error as Failure)} onRetry={() => void refetch()} />;
  if (!data) return <p className="py-2 pl-6 text-muted">Reading …</p>;
  return (
    <div className="pb-2 pl-6">
      <AttemptTable ofOneDay attempts={corrections.current(data)} nameOf={nameOf} onChange={corrections.change} />
      {judged.kind !== 'gone' && (
        <Link to={`/tunes/${tuneId}/practice`} className="text-small text-woad underline underline-offset-3">
          practise it
        </Link>
      )}
    </div>
  );
}
