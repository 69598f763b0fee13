import { arrayMove } from '@dnd-kit/sortable';
import { ArrowDown, ArrowUp, Check, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type SessionItem, sessionOf } from '#core/practice';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { candidateWords, ITEM_NAMES, itemWords } from '#words/practice';
import { dueWords } from '#words/upkeep';
import { usePegsQuery } from '../api/pegsApi';
import { useUpkeep } from '../api/useUpkeep';
import { TunePicker } from '../findTune/TunePicker';
import { LogFiles } from '../log/LogFiles';
import { Alert } from '../ui/Alert';
import { Button, SignButton } from '../ui/Button';
import { PageOpening, PageProblem } from '../ui/PageState';
import { Select } from '../ui/Select';
import { SortableList, SortableRow } from '../ui/SortableList';
import { useTitle } from '../ui/useTitle';
import { BodyCheck } from './BodyCheck';
import { type TuneCandidate, useToday } from './useToday';

const MINUTES = [10, 15, 20, 30, 45, 60].map((value) => ({ value, name: `${value} minutes` }));
const USUAL_MINUTES = 30;
const KEY = 'morrin.session-minutes';

/** Today's session: what, how long and why; in another order, or without some of it, as the player likes. */
export default function TodayPage() {
  const [now] = useState(() => new Date());
  const { candidates, tunes, isLoading, failure, missing, again } = useToday(now);
  const [minutes, setMinutes] = useState(readMinutes);
  const [leftOut, setLeftOut] = useState<readonly string[]>([]);
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const navigate = useNavigate();
  const { data: pegs } = usePegsQuery();
  const fiddle = pegs?.pegs.fiddles.find(({ id }) => id === pegs.pegs.chosen) ?? null;
  const { due } = useUpkeep(fiddle, now.getTime());
  useTitle('Practice');
  const session = useMemo(
    () =>
      sessionOf(
        candidates.filter((candidate) => !leftOut.includes(keyOf(candidate))),
        minutes,
      ),
    [candidates, leftOut, minutes],
  );
  if (isLoading) return <PageOpening>Looking at what was practised …</PageOpening>;
  if (failure)
    return (
      <PageProblem title="Your log cannot be read" onRetry={again}>
        <p>{failureWords(failure)}</p>
      </PageProblem>
    );
  const items = inOrder(session.items, order);
  const keys = items.map(itemKey);
  const move = (from: number, to: number) => {
    if (to >= 0 && to < keys.length && from !== to) setOrder(arrayMove([...keys], from, to));
  };
  const open = ({ id }: { readonly id: string }) => void navigate(`/tunes/${id}/practice`);
  return (
    <main className="h-full overflow-y-auto px-5 py-4 lg:px-8">
      <header className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <div className="mr-auto">
          <h1 className="text-page leading-tight">Practice</h1>
          <p className="text-muted">
            What to play today, and why ·{' '}
            <Link to="/practice/technique" className="text-woad underline underline-offset-3">
              begin with a technique
            </Link>
          </p>
        </div>
        <label className="flex items-center gap-2">
          I have
          <Select
            value={minutes}
            options={MINUTES}
            onChange={(next) => {
              keepMinutes(next);
              setMinutes(next);
              setOrder(null);
            }}
          />
        </label>
        <TunePicker onPick={open}>Practise another tune</TunePicker>
      </header>
      {missing && (
        <Alert look="banner">
          Some of your tunes could not be fetched, so they are not in this session. {failureWords(missing)}{' '}
          <Button look="small" onClick={again}>
            Try again
          </Button>
        </Alert>
      )}
      {due.length > 0 && (
        <p className="mb-3 rounded-md bg-band px-4 py-2 text-small" data-due={due.length}>
          Before you begin: {due.map(dueWords).join(' ')}{' '}
          <Link to="/pegs" className="text-woad underline underline-offset-3">
            to the pegs
          </Link>
        </p>
      )}
      {tunes.length === 0 ? (
        !missing && (
          <div className="max-w-xl py-6">
            <p className="mb-3 text-lead">
              Nothing is logged yet. Choose a tune: it comes in bites, and the first one is a minute away.
            </p>
            <TunePicker onPick={open}>Choose a tune</TunePicker>
            <div className="mt-8">
              <LogFiles />
            </div>
          </div>
        )
      ) : (
        <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_18rem]">
          <section aria-labelledby="session">
            <h2 id="session" className="mb-1 text-xl">
              Today, {counted(session.minutes, 'minute')}
            </h2>
            <SortableList ids={keys} onMove={move}>
              <ol className="flex flex-col gap-1.5" aria-label="Today’s session">
                {items.map((item, i) => (
                  <ItemRow
                    key={keys[i]}
                    id={keys[i]!}
                    item={item}
                    isFirstCheck={items.findIndex(({ checksBefore }) => checksBefore) === i}
                    isFirst={i === 0}
                    isLast={i === items.length - 1}
                    through={tunes[0]!}
                    onMove={(by) => move(i, i + by)}
                    onLeaveOut={() => item.candidate && setLeftOut([...leftOut, keyOf(item.candidate)])}
                  />
                ))}
              </ol>
            </SortableList>
            {(leftOut.length > 0 || order !== null) && (
              <Button
                look="link"
                className="mt-2"
                onClick={() => {
                  setLeftOut([]);
                  setOrder(null);
                }}
              >
                As it was proposed
              </Button>
            )}
          </section>
          <aside className="flex flex-col gap-5">
            <section aria-labelledby="tunes">
              <h2 id="tunes" className="mb-1 text-xl">
                Tunes in hand
              </h2>
              <ul>
                {tunes.map(({ id, title }) => (
                  <li key={id} className="border-t border-line py-1">
                    <Link
                      to={`/tunes/${id}/practice`}
                      className="font-serif font-bold text-ink hover:text-woad hover:underline"
                    >
                      {title}
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
            <p>
              <Link to="/log" className="text-woad underline underline-offset-3">
                What you have played so far
              </Link>
            </p>
            {session.left.length > 0 && (
              <details>
                <summary className="cursor-pointer text-muted">{session.left.length} for another day</summary>
                <ul className="mt-1 text-small">
                  {session.left.map((candidate) => (
                    <li key={keyOf(candidate)} className="border-t border-line py-1">
                      <b>{candidate.title}</b>, {candidate.name}.{' '}
                      <span className="text-muted">{candidateWords(candidate)}</span>
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </aside>
        </div>
      )}
    </main>
  );
}

type Item = SessionItem<TuneCandidate>;

const keyOf = ({ what, tuneId, address }: TuneCandidate) => `${what} ${tuneId} ${address}`;
const itemKey = ({ what, candidate }: Item) => (candidate ? keyOf(candidate) : what);

/** Items in the player's own order; what came since is at the end. */
function inOrder(items: readonly Item[], order: readonly string[] | null): readonly Item[] {
  if (!order) return items;
  const place = (item: Item) => {
    const at = order.indexOf(itemKey(item));
    return at < 0 ? order.length : at;
  };
  return [...items].sort((a, b) => place(a) - place(b));
}

interface ItemRowProps {
  readonly id: string;
  readonly item: Item;
  /** The body check is told in full the first time. */
  readonly isFirstCheck: boolean;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  /** The tune that is run through. */
  readonly through: { readonly id: string; readonly title: string };
  readonly onMove: (by: 1 | -1) => void;
  readonly onLeaveOut: () => void;
}

/** One thing of the session. */
function ItemRow({ id, item, isFirstCheck, isFirst, isLast, through, onMove, onLeaveOut }: ItemRowProps) {
  const { what, candidate, minutes, checksBefore } = item;
  const title = candidate?.title ?? through.title;
  const name = candidate ? `${title}, ${candidate.name}` : what === 'warm-up' ? 'Warm-up' : title;
  const to =
    candidate !== null
      ? `/tunes/${candidate.tuneId}/practice/${candidate.address}`
      : what === 'warm-up'
        ? `/tunes/${through.id}/practice/drill-pattern`
        : `/tunes/${through.id}/practice/through`;
  return (
    <SortableRow id={id} name={`“${name}”`}>
      {(handle) => (
        <>
          {checksBefore && (
            <div className="my-1 ml-4 border-l-2 border-line pl-4 text-small text-muted">
              {isFirstCheck ? (
                <BodyCheck />
              ) : (
                'Fiddle down, the body check once more: elbow, wrist, fingers, shoulder, grip, jaw.'
              )}
            </div>
          )}
          <div className="flex flex-wrap items-center gap-x-3 gap-y-1 rounded-md border border-line bg-surface px-2 py-1.5">
            {handle}
            <span className="w-16 text-right tabular-nums">
              <b>{minutes}</b> <span className="text-small text-muted">min</span>
            </span>
            <div className="min-w-0 flex-1 basis-60">
              <p>
                <b className="font-serif text-section leading-tight">
                  {candidate ? candidate.title : ITEM_NAMES[what]}
                </b>{' '}
                <span>{candidate ? candidate.name : what === 'run-through' ? through.title : ''}</span>{' '}
                {candidate?.isDone && (
                  <span className="inline-flex items-center gap-1 text-small text-lichen-ink">
                    <Check size={14} aria-hidden /> practised today
                  </span>
                )}
              </p>
              <p className="text-small text-muted">
                {candidate && <span className="font-medium">{ITEM_NAMES[what]}. </span>}
                {itemWords(item)}
              </p>
            </div>
            <span className="flex items-center">
              <SignButton label={`Move “${name}” up`} disabled={isFirst} onClick={() => onMove(-1)}>
                <ArrowUp size={16} aria-hidden />
              </SignButton>
              <SignButton label={`Move “${name}” down`} disabled={isLast} onClick={() => onMove(1)}>
                <ArrowDown size={16} aria-hidden />
              </SignButton>
              <SignButton label={`Leave “${name}” out today`} disabled={candidate === null} onClick={onLeaveOut}>
                <X size={16} aria-hidden />
              </SignButton>
            </span>
            <Link
              to={to}
              className="rounded-md border border-woad px-3 py-1.5 text-control font-medium text-woad hover:bg-band"
              aria-label={`Start ${name}`}
            >
              Start
            </Link>
          </div>
        </>
      )}
    </SortableRow>
  );
}

function readMinutes(): number {
  try {
    const kept = Number(localStorage.getItem(KEY));
    return MINUTES.some(({ value }) => value === kept) ? kept : USUAL_MINUTES;
  } catch {
    return USUAL_MINUTES;
  }
}

function keepMinutes(minutes: number): void {
  try {
    localStorage.setItem(KEY, String(minutes));
  } catch {
    // Without storage it holds until the page is left.
  }
}
