import { Play, Plus, Printer, Square, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { Link } from 'react-router';
import type { TuneSet } from '#contract/sets';
import { MAX_SET_NAME } from '#contract/sets';
import { type BowThrough, bowThrough, handOver } from '#core/sets';
import { counted } from '#words/plural';
import { handOverWords, lengthWords, setWords } from '#words/set';
import { TunePicker } from '../findTune/TunePicker';
import { readListenSettings } from '../player/listenSettings';
import { type Leg, SetPlayer } from '../player/setPlayer';
import { selectPlayer, selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Button, SignButton } from '../ui/Button';
import { SortableList } from '../ui/SortableList';
import { hasRoom, movedTune, placeKeys, withoutTune, withTimes, withTune } from './editSet';
import { SaveSet } from './SaveSet';
import { SetRow } from './SetRow';
import { LOADING, useSetTunes } from './useSetTunes';

interface SetPanelProps {
  readonly set: TuneSet;
  readonly onChange: (set: TuneSet, label: string) => void;
  readonly onDelete: () => void;
}

/** A set: its tunes in order, what lies between each two of them, and ways to hear, print and save it. */
export function SetPanel({ set, onChange, onDelete }: SetPanelProps) {
  const player = useAppSelector(selectPlayer);
  const ids = [...new Set(set.tunes.map(({ tuneId }) => tuneId))];
  const { states, again } = useSetTunes(ids, player);
  const throughs = useMemo(
    () =>
      set.tunes.map(({ tuneId, times }): BowThrough | null => {
        const state = states.get(tuneId);
        return state?.kind === 'ready' ? bowThrough(state.report, times) : null;
      }),
    [set.tunes, states],
  );
  const overs = throughs.map((to, i) => {
    const from = throughs[i - 1];
    return to && from ? handOver(from, to) : null;
  });
  const listening = useSetPlayer(throughs);
  const keys = placeKeys(set.tunes);
  const titleOf = (at: number) => {
    const state = states.get(set.tunes[at]!.tuneId);
    return state?.kind === 'ready' ? state.report.tune.title : 'a tune';
  };
  const move = (from: number, to: number) => {
    const moved = movedTune(set, from, to);
    if (moved !== set) onChange(moved, `move “${titleOf(from)}”`);
  };
  const isPlaying = listening.state.status !== 'idle';
  const isKnown = throughs.length > 0 && throughs.every((through) => through !== null);
  const hasFailed = ids.some((id) => states.get(id)?.kind === 'failed');
  return (
    <section aria-label={set.name} className="min-w-0 flex-1" data-set={isKnown ? 'known' : 'part'}>
      <div className="mb-1 flex flex-wrap items-start gap-x-3 gap-y-2">
        <SetName
          key={set.name}
          name={set.name}
          onRename={(name) => onChange({ ...set, name }, `rename to “${name}”`)}
        />
        <SignButton label={`Delete the set “${set.name}”`} onClick={onDelete}>
          <Trash2 size={17} aria-hidden />
        </SignButton>
      </div>
      {set.tunes.length > 0 && (
        <>
          <p className="text-lead" role="status" data-verdict>
            {isKnown ? setWords(overs.flatMap((over) => over ?? [])) : 'Checking the tunes …'}
          </p>
          <p className="mb-3 text-muted">
            {counted(set.tunes.length, 'tune')}
            {isKnown && `, ${lengthWords(throughs.reduce((sum, through) => sum + through!.seconds, 0))}`}
          </p>
          <div className="mb-3 flex flex-wrap items-center gap-2">
            <Button
              look="main"
              className="flex items-center gap-1.5"
              disabled={!isKnown}
              onClick={() => (isPlaying ? listening.player.stop() : listening.playFrom(0))}
            >
              {isPlaying ? (
                <Square size={15} fill="currentColor" aria-hidden />
              ) : (
                <Play size={16} fill="currentColor" aria-hidden />
              )}
              {isPlaying ? 'Stop' : 'Play the set'}
            </Button>
            <Link
              to="/printed-book"
              state={{ choice: { ids: set.tunes.map(({ tuneId }) => tuneId), inOrder: true }, title: set.name }}
              className="flex items-center gap-1.5 rounded-md border border-line bg-surface px-3 py-1.5 text-control hover:border-soft"
            >
              <Printer size={16} aria-hidden /> Print it
            </Link>
            <SaveSet set={set} />
            <span role="status" className="text-small text-muted">
              {listening.state.isSilent && 'no sound device: only the marker moves'}
            </span>
          </div>
        </>
      )}
      {hasFailed && (
        <p className="mb-2">
          Some tunes could not be fetched.{' '}
          <Button look="link" onClick={again}>
            Try again
          </Button>
        </p>
      )}
      <SortableList ids={keys} onMove={move}>
        <ol className="flex flex-col" aria-label="Tunes of the set">
          {set.tunes.map((tune, at) => (
            <SetRow
              key={keys[at]}
              id={keys[at]!}
              at={at}
              count={set.tunes.length}
              tune={tune}
              state={states.get(tune.tuneId) ?? LOADING}
              before={overs[at] ? handOverWords(overs[at]) : []}
              bow={overs[at]?.bow ?? null}
              time={listening.state.leg?.tune === at ? listening.state.leg.time : null}
              onTimes={(times) => onChange(withTimes(set, at, times), `“${titleOf(at)}” ${counted(times, 'time')}`)}
              onMove={(to) => move(at, to)}
              onRemove={() => onChange(withoutTune(set, at), `remove “${titleOf(at)}”`)}
              onPlay={isKnown ? () => listening.playFrom(at) : null}
            />
          ))}
        </ol>
      </SortableList>
      {set.tunes.length === 0 && (
        <p className="my-3 text-muted">An empty set. Add tunes in the order in which they are played.</p>
      )}
      <div className="mt-3">
        <TunePicker
          picksMany
          disabled={!hasRoom(set)}
          onPick={({ id, title }) => onChange(withTune(set, id), `add “${title}”`)}
        >
          <Plus size={16} aria-hidden /> Add a tune
        </TunePicker>
      </div>
    </section>
  );
}

function SetName({ name, onRename }: { readonly name: string; readonly onRename: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const clean = typed.trim();
  const take = () => {
    if (clean !== '' && clean !== name) onRename(clean);
    else setTyped(name);
  };
  return (
    <h2 className="min-w-0 flex-1">
      <input
        aria-label="Name of the set"
        value={typed}
        maxLength={MAX_SET_NAME}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={take}
        onKeyDown={({ key, currentTarget }) => {
          if (key === 'Enter') currentTarget.blur();
          if (key === 'Escape') setTyped(name);
        }}
        className="-ml-2 w-full rounded-md border border-transparent bg-transparent px-2 font-serif text-room font-bold hover:border-line focus:border-soft"
      />
    </h2>
  );
}

/** A player for as long as the set is open; what is changed while it plays is heard when it is played again. */
function useSetPlayer(throughs: readonly (BowThrough | null)[]) {
  const [player] = useState(() => new SetPlayer());
  const { a4 } = useAppSelector(selectSettings).settings.listening;
  const state = useSyncExternalStore(player.subscribe, player.snapshot);
  useEffect(() => () => player.close(), [player]);
  useEffect(() => player.stop(), [player, throughs]);
  const playFrom = (tune: number) => {
    const legs = throughs.flatMap((through, i) =>
      (through?.times ?? []).map((report, time): Leg => ({ tune: i, time: time + 1, report })),
    );
    void player.play(
      legs,
      legs.findIndex((leg) => leg.tune === tune),
      { ...readListenSettings(), a4 },
    );
  };
  return { player, state, playFrom };
}
