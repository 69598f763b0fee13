import { useState } from 'react';
import type { Words } from '#contract/settings';
import type { TuneReport } from '#core/report';
import type { Change } from '#core/standing';
import { counted } from '#words/plural';
import { noteSpotWords } from '#words/spot';
import { changePlace, changeWords, eventName } from '#words/standing';
import { holdsWords, tempoWords } from '#words/tempo';
import { problemWords } from '../threads/problemWords';
import { Button } from '../ui/Button';
import type { DanceRequest } from './danceProtocol';
import { type FoundStanding, useStanding } from './useDanceWorker';

interface StandFormProps {
  readonly report: TuneReport;
  readonly request: DanceRequest;
  readonly words: Words;
  readonly beatWords: string;
  readonly onMake: (changes: readonly Change[], label: string) => void;
}

const MIN_BPM = 20;
const MAX_BPM = 400;

/** "Make it hold at N": the fewest changes, found by search, looked at, and taken or left. */
export function StandForm({ report, request, words, beatWords, onMake }: StandFormProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const { state, search, cancel } = useStanding(request);
  const text = typed ?? String(Math.round(report.settings.bpm));
  const bpm = Number(text);
  const found = state.answer;
  const isTempo = text.trim() !== '' && bpm >= MIN_BPM && bpm <= MAX_BPM;
  return (
    <div data-standing={state.kind}>
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (isTempo) search(bpm);
        }}
      >
        <label className="flex items-center gap-2">
          at
          <input
            className="w-20 rounded-md border border-line bg-surface px-2 py-1 text-right"
            inputMode="decimal"
            value={text}
            aria-invalid={!isTempo}
            aria-describedby="stand-problem"
            onChange={({ target }) => setTyped(target.value)}
          />
          {beatWords} a minute
        </label>
        {state.kind === 'going' ? (
          <Button onClick={cancel}>Cancel</Button>
        ) : (
          <Button look="main" type="submit" disabled={!isTempo}>
            Find the fewest changes
          </Button>
        )}
      </form>
      <p id="stand-problem" className="text-small text-madder" role="alert">
        {isTempo ? '' : `expected a tempo from ${MIN_BPM} to ${MAX_BPM}`}
      </p>
      <div role="status" className="mt-1">
        {state.kind === 'going' && <p className="text-muted">searching … {counted(state.progress, 'plan')} counted</p>}
        {state.problem && <p className="text-madder">{problemWords(state.problem)}</p>}
        {state.kind === 'done' &&
          found &&
          (found.of !== request ? (
            <p className="text-muted">The tune has changed since: search again.</p>
          ) : (
            <Found
              report={report}
              words={words}
              bpm={found.bpm}
              standing={found.standing}
              onMake={(changes) => onMake(changes, `make it hold at ${Math.round(found.bpm)}`)}
            />
          ))}
      </div>
    </div>
  );
}

function Found(props: {
  readonly report: TuneReport;
  readonly words: Words;
  readonly bpm: number;
  readonly standing: FoundStanding['standing'];
  readonly onMake: (changes: readonly Change[]) => void;
}) {
  const { report, words, bpm, standing, onMake } = props;
  const { reached, changes, ceilingBpm, comesRound, isProven, tried, stays } = standing;
  const { unrolled, figures } = report;
  if (reached && changes.length === 0) return <p>It holds at {bpm} as it is.</p>;
  const trials = `${tried} plans tried`;
  return (
    <>
      {reached ? (
        <p>
          <b>{counted(changes.length, 'change')}</b>: then it {holdsWords(ceilingBpm)}
          {comesRound
            ? ' and comes round'
            : figures.ledger.comesRound
              ? ', but no longer comes round'
              : ', and does not come round'}
          .{' '}
          <span className="text-muted">
            {isProven ? `Fewer will not do it (${trials}).` : `Fewer might do it: the search was stopped (${trials}).`}
          </span>
        </p>
      ) : (
        <p>
          {changes.length > 0 ? 'These changes cannot make it hold there. ' : 'None of these changes gets it there. '}
          {stays && (
            <>
              What stays: {eventName(stays.kind, figures.arm.crossings[stays.index] ?? null)} at{' '}
              {unrolled.notes[stays.index] ? noteSpotWords(unrolled.notes[stays.index]!) : 'a note'}, which{' '}
              {holdsWords(stays.ceilingBpm)}.{' '}
            </>
          )}
          {changes.length > 0 && (
            <>
              The best found lifts it to <b>{tempoWords(ceilingBpm)}</b>:
            </>
          )}
        </p>
      )}
      {changes.length > 0 && (
        <>
          <ol className="my-1.5 list-decimal pl-6">
            {changes.map((change) => (
              <li key={change.key}>
                {changeWords(change, words)} <span className="text-muted">· {changePlace(report, change)}</span>
              </li>
            ))}
          </ol>
          <Button look="main" onClick={() => onMake(changes)}>
            Take {changes.length === 1 ? 'it' : `all ${changes.length}`}
          </Button>
        </>
      )}
    </>
  );
}
