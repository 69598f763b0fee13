import { format, subDays } from 'date-fns';
import { Search } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { restsOnWords } from '#words/ability';
import { failureWords } from '#words/failure';
import { minutesWords, WHAT_WORDS, WRONG_WORDS } from '#words/log';
import { counted } from '#words/plural';
import type { Failure } from '../api/answer';
import { useHistoryQuery, useLogSumsQuery } from '../api/logApi';
import { useAbility } from '../api/useAbility';
import { Button } from '../ui/Button';
import { NotRead, PageOpening, PageProblem } from '../ui/PageState';
import { SearchField } from '../ui/SearchField';
import { Select } from '../ui/Select';
import { useTitle } from '../ui/useTitle';
import { useUndoKeys } from '../ui/useUndoKeys';
import { DayList } from './DayList';
import { LogFiles } from './LogFiles';
import { SumBars } from './SumBars';
import { daysOf, minutesByAspect, timesWrong, tunesOf } from './sums';
import { TuneProgress } from './TuneProgress';
import { useCorrections } from './useCorrections';

/** How far back is looked. */
const PERIODS = [
  { value: 28, name: 'four weeks' },
  { value: 90, name: 'three months' },
  { value: 365, name: 'a year' },
  { value: 3650, name: 'all of it' },
];
const USUAL_DAYS = 90;

/** What was played, how it comes on, and where it leads. */
export default function LogPage() {
  const [now] = useState(() => new Date());
  const [params, setParams] = useSearchParams();
  const corrections = useCorrections();
  const { ability, isLearning } = useAbility();
  useTitle('Log');
  useUndoKeys(corrections.undo, () => undefined);
  const words = params.get('words') ?? '';
  const back = PERIODS.find(({ value }) => String(value) === params.get('days'))?.value ?? USUAL_DAYS;
  const since = format(subDays(now, back), 'yyyy-MM-dd');
  const set = (name: string, value: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const { data: all, error, refetch } = useLogSumsQuery({ since });
  const search = useLogSumsQuery({ since, words }, { skip: words === '' });
  const found = search.currentData;
  const tunes = useMemo(() => tunesOf(all ?? []), [all]);
  const days = useMemo(() => daysOf((words === '' ? all : found) ?? []), [words, all, found]);
  const asked = params.get('tune');
  const shown = tunes.find(({ tuneId }) => tuneId === asked) ?? tunes[0];
  const history = useHistoryQuery({ tune: shown?.tuneId ?? '', since }, { skip: !shown });
  if (!all && error === undefined) return <PageOpening>Reading your log …</PageOpening>;
  if (!all)
    return (
      <PageProblem title="Your log cannot be read" onRetry={() => void refetch()}>
        <p>{failureWords(error as Failure)}</p>
      </PageProblem>
    );
  return (
    <main className="relative h-full overflow-y-auto px-5 py-4 lg:px-8">
      <header className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <div className="mr-auto">
          <h1 className="text-page leading-tight">Log</h1>
          <p className="text-muted">What you have played, and where it leads</p>
        </div>
        <label className="flex items-center gap-2">
          the last
          <Select
            value={back}
            options={PERIODS}
            onChange={(value) => set('days', value === USUAL_DAYS ? '' : String(value))}
          />
        </label>
        {corrections.last && (
          <Button look="small" onClick={corrections.undo}>
            Undo: {corrections.last.now.isWithdrawn ? 'remove an attempt' : 'correct an attempt'}
          </Button>
        )}
        {corrections.waiting > 0 && (
          <span role="status" className="text-small text-muted">
            {counted(corrections.waiting, 'entry', 'entries')} on the way to the log
          </span>
        )}
      </header>
      {!shown ? (
        <EmptyLog hasOlder={back < 3650} onAll={() => set('days', '3650')} />
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
          <div className="flex min-w-0 flex-col gap-6">
            <section aria-labelledby="progress">
              <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
                <h2 id="progress" className="text-xl">
                  How it is coming on
                </h2>
                <Select
                  label="Tune"
                  className="min-h-9 max-w-80 min-w-0 rounded-md border border-line bg-surface px-2"
                  value={shown.tuneId}
                  options={tunes.map(({ tuneId, title }) => ({ value: tuneId, name: title }))}
                  onChange={(tuneId) => set('tune', tuneId)}
                />
              </div>
              {history.currentData ? (
                <TuneProgress tuneId={shown.tuneId} days={history.currentData} now={now} />
              ) : history.error !== undefined ? (
                <NotRead words={failureWords(history.error as Failure)} onRetry={() => void history.refetch()} />
              ) : (
                <p className="py-4 text-muted">Reading …</p>
              )}
            </section>
            <div className="grid gap-x-10 gap-y-6 sm:grid-cols-2">
              <SumBars
                id="aspects"
                title="Where the time went"
                shares={minutesByAspect(all)}
                nameOf={(what) => WHAT_WORDS[what]}
                amountWords={minutesWords}
                none="Nothing yet."
              />
              <SumBars
                id="wrongs"
                title="What goes wrong"
                shares={timesWrong(all)}
                nameOf={(wrong) => WRONG_WORDS[wrong]}
                amountWords={(times) => counted(times, 'time')}
                none="Nothing was marked: say what went wrong when you log a miss."
              />
              <section aria-labelledby="hands" aria-busy={isLearning}>
                <h2 id="hands" className="mb-1 text-xl">
                  Your hands
                </h2>
                <p className={isLearning ? 'opacity-60' : ''}>{restsOnWords(ability)}</p>
                <p className="mt-1 text-small">
                  <Link to="/settings#limits" className="text-woad underline underline-offset-3">
                    limit by limit
                  </Link>
                  {isLearning && <span className="text-muted"> · being counted again …</span>}
                </p>
              </section>
            </div>
          </div>
          <div className="flex min-w-0 flex-col gap-6">
            <section aria-labelledby="days">
              <h2 id="days" className="mb-2 text-xl">
                Day by day
              </h2>
              <SearchField
                label="Search the log"
                shortcut="/"
                Icon={Search}
                value={words}
                onChange={(next) => set('words', next)}
                className="mb-3"
              />
              {words !== '' && !found ? (
                search.error !== undefined ? (
                  <NotRead words={failureWords(search.error as Failure)} onRetry={() => void search.refetch()} />
                ) : (
                  <p className="text-muted">Looking …</p>
                )
              ) : days.length === 0 ? (
                <p className="text-muted">
                  Nothing in {PERIODS.find(({ value }) => value === back)!.name} has “{words}” in a title, a note or
                  what went wrong.
                </p>
              ) : (
                <DayList days={days} words={words} corrections={corrections} />
              )}
            </section>
            <LogFiles />
          </div>
        </div>
      )}
    </main>
  );
}

/** A log without entries: where they come from. */
function EmptyLog({ hasOlder, onAll }: { readonly hasOlder: boolean; readonly onAll: () => void }) {
  return (
    <div className="max-w-xl py-6">
      <p className="mb-3 text-lead">
        Nothing is logged {hasOlder ? 'in this time' : 'yet'}. What you practise is: each time through with one key,
        clean or not yet.
      </p>
      <p className="flex flex-wrap items-center gap-4">
        <Link to="/practice" className="rounded-md border border-woad bg-woad px-3 py-1.5 font-medium text-on-woad">
          Practise
        </Link>
        {hasOlder && (
          <Button look="link" onClick={onAll}>
            look further back
          </Button>
        )}
      </p>
      <div className="mt-8">
        <LogFiles />
      </div>
    </div>
  );
}
