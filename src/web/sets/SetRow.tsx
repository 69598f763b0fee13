import { ArrowDown, ArrowUp, Play, Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { MAX_TIMES, type SetTune } from '#contract/sets';
import type { HandOver } from '#core/sets';
import { STANDARD_TUNING, tuningName } from '#core/tuning';
import { failureWords } from '#words/failure';
import { writtenKey, writtenPitch } from '#words/pitch';
import { beatWords } from '#words/tempo';
import { reportVerdict } from '#words/verdict';
import { SignButton } from '../ui/Button';
import { Select } from '../ui/Select';
import { BowSign } from '../ui/signs';
import { SortableRow } from '../ui/SortableList';
import type { SetTuneState } from './useSetTunes';

const TIMES = Array.from({ length: MAX_TIMES }, (_, i) => ({ value: i + 1, name: `× ${i + 1}` }));

interface SetRowProps {
  readonly id: string;
  /** Its place in the set, from 0, of so many. */
  readonly at: number;
  readonly count: number;
  readonly tune: SetTune;
  readonly state: SetTuneState;
  /** What it takes to come to it from the tune before. */
  readonly before: readonly string[];
  readonly bow: HandOver['bow'];
  /** Which time through sounds now; null: it does not. */
  readonly time: number | null;
  readonly onTimes: (times: number) => void;
  readonly onMove: (to: number) => void;
  readonly onRemove: () => void;
  /** null: it cannot be played yet. */
  readonly onPlay: (() => void) | null;
}

/** A tune of a set, with what lies between it and the one before. */
export function SetRow(props: SetRowProps) {
  const { id, at, count, tune, state, before, bow, time, onTimes, onMove, onRemove, onPlay } = props;
  const title = titleOf(state);
  return (
    <SortableRow id={id} name={`“${title}”`}>
      {(handle) => (
        <>
          {at > 0 && (
            <p className="my-1 ml-4 flex min-h-6 items-center gap-2 border-l-2 border-line pl-4 text-small text-muted">
              {bow && (
                <span className={`flex items-center gap-0.5 ${bow.way === 'lift' ? 'text-weld-ink' : ''}`} aria-hidden>
                  <BowSign direction={bow.last} />
                  <BowSign direction={bow.first} />
                </span>
              )}
              <span>{before.join(' ')}</span>
            </p>
          )}
          <div
            aria-current={time !== null || undefined}
            className={`flex flex-wrap items-center gap-x-3 gap-y-1 rounded-md border bg-surface px-2 py-1.5 ${time === null ? 'border-line' : 'border-woad'}`}
          >
            {handle}
            <span className="w-5 text-right text-muted">{at + 1}</span>
            <div className="min-w-0 flex-1 max-sm:basis-[70%]">
              <Link
                to={`/tunes/${tune.tuneId}`}
                className="line-clamp-2 font-serif text-section leading-tight font-bold break-words hover:text-woad hover:underline"
              >
                {title}
              </Link>
              <Facts state={state} />
            </div>
            {time !== null && (
              <span role="status" className="text-small font-medium text-woad">
                {tune.times === 1 ? 'playing' : `playing, ${time} of ${tune.times}`}
              </span>
            )}
            <Select label={`Times through “${title}”`} value={tune.times} options={TIMES} onChange={onTimes} />
            <span className="flex">
              <SignButton label={`Play from “${title}”`} disabled={!onPlay} onClick={() => onPlay?.()}>
                <Play size={16} aria-hidden />
              </SignButton>
              <SignButton label={`Move “${title}” up`} disabled={at === 0} onClick={() => onMove(at - 1)}>
                <ArrowUp size={16} aria-hidden />
              </SignButton>
              <SignButton label={`Move “${title}” down`} disabled={at === count - 1} onClick={() => onMove(at + 1)}>
                <ArrowDown size={16} aria-hidden />
              </SignButton>
              <SignButton label={`Remove “${title}” from the set`} onClick={onRemove}>
                <Trash2 size={16} aria-hidden />
              </SignButton>
            </span>
          </div>
        </>
      )}
    </SortableRow>
  );
}

function titleOf(state: SetTuneState): string {
  if (state.kind === 'ready') return state.report.tune.title;
  if (state.kind === 'too-long') return state.tune.title;
  return state.kind === 'loading' ? '…' : 'A tune that is missing';
}

function Facts({ state }: { readonly state: SetTuneState }) {
  if (state.kind === 'loading') return <p className="text-small text-muted">Fetching the tune …</p>;
  if (state.kind === 'failed') return <p className="text-small text-madder">{failureWords(state.failure)}</p>;
  if (state.kind === 'too-long')
    return <p className="text-small text-weld-ink">Far longer than any tune that is played: it is not checked.</p>;
  const { tune, settings } = state.report;
  const verdict = reportVerdict(state.report);
  const isUsual = tuningName(tune.tuning) === tuningName(STANDARD_TUNING);
  return (
    <p className="text-small text-muted">
      {[
        tune.danceType,
        writtenKey(tune.key),
        isUsual ? null : `tuned ${tune.tuning.map(writtenPitch).join(' ')}`,
        `${Math.round(settings.bpm)} ${beatWords(settings.beat)}`,
      ]
        .filter(Boolean)
        .join(' · ')}
      {' · '}
      <span className={verdict.kind === 'bad' ? 'text-madder' : ''}>{verdict.words}</span>
    </p>
  );
}
