import { Settings2 } from 'lucide-react';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { type Fiddle, type Pegs, type SavedPegs, withChecks } from '#contract/pegs';
import { creepScale, type Minutes, simulatedFiddle } from '#core/creep';
import { type Place, PLACES } from '#core/tune';
import { parseTuning, retunePlan, STANDARD_TUNING, tuningName } from '#core/tuning';
import { implausibleWords } from '#formats/text';
import { failureWords } from '#words/failure';
import { writtenPitch } from '#words/pitch';
import { dueWords } from '#words/upkeep';
import type { Failure } from '../api/answer';
import { usePegsQuery, useSavePegsMutation } from '../api/pegsApi';
import { useSaveSettingsMutation } from '../api/settingsApi';
import { useRecordUndo } from '../api/useRecordUndo';
import { useUpkeep } from '../api/useUpkeep';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { SignButton } from '../ui/Button';
import { PageOpening, PageProblem } from '../ui/PageState';
import { Select } from '../ui/Select';
import { UndoRedo } from '../ui/UndoRedo';
import { useTitle } from '../ui/useTitle';
import { useUndoKeys } from '../ui/useUndoKeys';
import { FiddleSheet } from './FiddleSheet';
import { type Listening, PitchPanel } from './PitchPanel';
import { FiddleSource, MicrophoneSource, type PitchSource } from './pitchSource';
import { PlanPanel } from './PlanPanel';
import { readCents } from './readPitch';
import { TuningChoice } from './TuningChoice';
import {
  changeOf,
  checkedDrifts,
  checkOf,
  forecastOf,
  isNewString,
  keptReadings,
  NO_SESSIONS,
  type Sessions,
  targetMidi,
  tuningOf,
  withReading,
  withTuned,
  withTurned,
} from './tuningSession';

/** Pegs: from the tuning the fiddle stands in to another, and how long it will hold. */
export default function PegsPage() {
  const { data: record, error, isLoading, refetch } = usePegsQuery();
  const [save, { error: saveError }] = useSavePegsMutation();
  useTitle('Pegs');
  const steps = useRecordUndo<Pegs, SavedPegs>('pegs', save);
  useUndoKeys(
    () => void steps.undo(),
    () => void steps.redo(),
  );

  if (isLoading && error === undefined) return <PageOpening>Opening the peg box …</PageOpening>;
  if (!record)
    return (
      <PageProblem title="Your fiddles cannot be shown" onRetry={() => void refetch()}>
        <p>{error ? failureWords(error as Failure) : ''}</p>
      </PageProblem>
    );
  const { pegs } = record;
  const fiddle = pegs.fiddles.find(({ id }) => id === pegs.chosen)!;
  return (
    <main className="h-full overflow-y-auto px-5 py-4 lg:px-8">
      {saveError !== undefined && (
        <Alert look="banner">
          {(saveError as Failure).code === 'stale-save'
            ? 'Your fiddles were changed in another window, and those are shown now. Make your change again.'
            : `Not saved. ${failureWords(saveError as Failure)}`}
        </Alert>
      )}
      <PegBox
        key={fiddle.id}
        pegs={pegs}
        fiddle={fiddle}
        undo={
          <UndoRedo
            undoes={steps.undoes}
            redoes={steps.redoes}
            onUndo={() => void steps.undo()}
            onRedo={() => void steps.redo()}
          />
        }
        onPegs={(next, label) => void steps.change({ before: pegs, next }, label)}
      />
    </main>
  );
}

interface PegBoxProps {
  readonly pegs: Pegs;
  readonly fiddle: Fiddle;
  readonly undo: ReactNode;
  readonly onPegs: (pegs: Pegs, label: string) => void;
}

function PegBox({ pegs, fiddle, undo, onPegs }: PegBoxProps) {
  const [params, setParams] = useSearchParams();
  const { settings } = useAppSelector(selectSettings);
  const [saveSettings, { error: countError }] = useSaveSettingsMutation();
  const [isEditing, setEditing] = useState(false);
  const asked = params.get('to');
  const to = asked !== null && parseTuning(asked) ? tuningName(parseTuning(asked)!) : fiddle.tuning;
  const from = tuningOf(fiddle);
  const target = parseTuning(to)!;
  const tensions = fiddle.strings.map(({ newtons }) => newtons);
  const plan = useMemo(
    () => retunePlan(parseTuning(fiddle.tuning)!, parseTuning(to)!, tensions, STANDARD_TUNING),
    // Tensions are numbers of the fiddle: it is what changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [fiddle, to],
  );
  const [at, setAt] = useState(0);
  const session = useSession(fiddle, plan.ok ? plan.steps[Math.min(at, plan.steps.length - 1)]?.place : undefined, to);
  const { place } = session;
  const string = PLACES.indexOf(place);
  const kept = keptReadings(fiddle, place);
  const isNew = isNewString(fiddle, string, session.openedAt);
  const own = session.sessions[place];
  const planned = plan.ok ? changeOf(plan, place) : 0;
  // Where nothing is to be changed any more, it still drifts back from what was changed before.
  const change = planned !== 0 ? planned : (own.change ?? kept?.change ?? 0);
  const scale = useMemo(() => creepScale(checkedDrifts(fiddle)), [fiddle]);
  const forecast = useMemo(() => forecastOf(change, isNew, own, [], scale), [change, isNew, own, scale]);
  const setFiddle = (next: Fiddle, label: string) =>
    onPegs({ ...pegs, fiddles: pegs.fiddles.map((one) => (one.id === fiddle.id ? next : one)) }, label);
  const goTo = (next: number) => {
    const step = plan.ok ? plan.steps[at] : undefined;
    if (next > at && step && session.sessions[step.place].readings.length > 0)
      session.stands(step.place, plan.ok ? changeOf(plan, step.place) : 0);
    if (plan.ok && next >= plan.steps.length) {
      setFiddle({ ...fiddle, tuning: to }, `tuned ${target.map(writtenPitch).join(' ')}`);
      setAt(0);
      return;
    }
    setAt(next);
    if (plan.ok) session.bow(plan.steps[next]!.place);
  };
  const { due, played } = useUpkeep(fiddle, session.openedAt);
  const told = due.map(dueWords);
  const isCounted =
    (settings.instrument.stringLengthMm ?? 328) === fiddle.stringLengthMm &&
    (settings.instrument.bridgeRadiusMm ?? 42) === fiddle.bridgeRadiusMm &&
    (settings.instrument.hairCm ?? 63) === fiddle.hairCm;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="text-page leading-tight">Pegs</h1>
        <div className="flex flex-wrap items-center gap-2">
          {pegs.fiddles.length > 1 ? (
            <Select
              label="Fiddle"
              value={fiddle.id}
              options={pegs.fiddles.map(({ id, name }) => ({ value: id, name }))}
              onChange={(chosen) => onPegs({ ...pegs, chosen }, 'fiddle chosen')}
            />
          ) : (
            <span className="font-bold">{fiddle.name}</span>
          )}
          <SignButton label="Fiddle and strings" onClick={() => setEditing(true)}>
            <Settings2 size={18} aria-hidden />
          </SignButton>
          {undo}
          <span className="text-muted">is in {from.map(writtenPitch).join(' ')}</span>
        </div>
        <TuningChoice
          pegs={pegs}
          to={to}
          onPegs={onPegs}
          onTo={(strings) => {
            setParams({ to: strings }, { replace: true });
            setAt(0);
          }}
        />
      </header>
      {asked !== null && !parseTuning(asked) && (
        <Alert look="banner">
          “{asked.slice(0, 60)}” is no tuning: expected four pitches low to high with octaves, such as A3 E4 A4 E5.
        </Alert>
      )}
      {countError !== undefined && (
        <Alert look="banner">The tunes are checked as before. {failureWords(countError as Failure)}</Alert>
      )}
      {told.length > 0 && (
        <ul className="mb-3 rounded-md bg-band px-4 py-2 text-small" aria-label="Reminders">
          {told.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,23rem)_minmax(0,1fr)]">
        {plan.ok ? (
          <PlanPanel plan={plan} at={at} leftHanded={settings.leftHanded} isOld={fiddle.isOld} onAt={goTo} />
        ) : (
          <section role="alert" className="text-madder">
            <h2 className="mb-1 text-xl">This cannot be done</h2>
            <ul>
              {plan.implausible.map((found) => (
                <li key={implausibleWords(found)}>{implausibleWords(found)}.</li>
              ))}
            </ul>
          </section>
        )}
        <div>
          <PitchPanel
            listening={session.listening}
            problem={session.problem}
            place={place}
            tuning={target}
            session={own}
            now={session.now}
            forecast={forecast}
            leftHanded={settings.leftHanded}
            speed={session.speed}
            onListen={session.listen}
            onPlace={session.bow}
            onTurn={session.turn}
            onSpeed={session.setSpeed}
            onStands={() => session.stands(place, change)}
            onCheck={() => {
              const check = checkOf(place, own, { minutes: session.now, change, isNew, now: Date.now() });
              if (check) setFiddle(withChecks(fiddle, [check]), `check of the ${place} string`);
            }}
          />
          <NextChecks
            scale={scale}
            sessions={session.sessions}
            now={session.now}
            fiddle={fiddle}
            openedAt={session.openedAt}
          />
        </div>
      </div>
      {isEditing && (
        <FiddleSheet
          pegs={pegs}
          fiddle={fiddle}
          played={played}
          isCounted={isCounted}
          onPegs={onPegs}
          onClose={() => setEditing(false)}
          onCount={() =>
            void saveSettings({
              before: settings,
              next: {
                ...settings,
                instrument: {
                  ...settings.instrument,
                  stringLengthMm: fiddle.stringLengthMm,
                  bridgeRadiusMm: fiddle.bridgeRadiusMm,
                  hairCm: fiddle.hairCm,
                },
              },
            })
          }
        />
      )}
    </>
  );
}

/** Checks older than this say nothing of tonight. */
const KEPT_HOURS = 12;

/** When to look after each string: those tuned in this sitting, and those whose checks are not old yet. */
function NextChecks(props: {
  readonly sessions: Sessions;
  readonly now: Minutes;
  readonly fiddle: Fiddle;
  readonly openedAt: number;
  readonly scale: number;
}) {
  const { sessions, now, fiddle, openedAt, scale } = props;
  const rows = PLACES.flatMap((name, i) => {
    const own = sessions[name];
    const isNew = isNewString(fiddle, i, openedAt);
    if (own.tunedAt !== null)
      return [{ name, since: now - own.tunedAt, check: forecastOf(own.change ?? 0, isNew, own, [], scale).check }];
    const kept = keptReadings(fiddle, name);
    if (!kept) return [];
    const since = (openedAt - Date.parse(kept.tunedAt)) / 60_000 + now;
    if (since > 60 * KEPT_HOURS) return [];
    return [{ name, since, check: forecastOf(kept.change, isNew, NO_SESSIONS[name], kept.readings, scale).check }];
  });
  if (rows.length === 0) return null;
  return (
    <section className="mt-4" aria-labelledby="next-checks">
      <h2 id="next-checks" className="mb-1 text-xl">
        When to check again
      </h2>
      <ul className="grid gap-x-6 sm:grid-cols-2" data-next-checks>
        {rows.map(({ name, since, check }) => (
          <li key={name} className="border-t border-line py-1">
            <b>{name}</b>:{' '}
            {check === null ? 'it will stay' : check <= since ? 'now' : `in ${(check - since).toFixed(1)} minutes`}
            <span className="text-small text-muted">, tuned {sinceWords(since)}</span>
          </li>
        ))}
      </ul>
      {scale !== 1 && (
        <p className="text-hint text-muted">
          By your own checks this fiddle’s strings drift {scale.toFixed(1)} times as far as is guessed.
        </p>
      )}
    </section>
  );
}

function sinceWords(minutes: number): string {
  if (minutes < 60) return `${minutes.toFixed(1)} minutes ago`;
  return `${(minutes / 60).toFixed(1)} hours ago`;
}

/** What is heard: the source, readings by string, and the source's clock. */
function useSession(fiddle: Fiddle, wanted: Place | undefined, to: string) {
  const { a4 } = useAppSelector(selectSettings).settings.listening;
  const [openedAt] = useState(() => Date.now());
  const [listening, setListening] = useState<Listening>('off');
  const [problem, setProblem] = useState<string | null>(null);
  const [place, setPlace] = useState<Place>(wanted ?? 'A');
  const [sessions, setSessions] = useState<Sessions>(NO_SESSIONS);
  const [now, setNow] = useState<Minutes>(0);
  const [speed, setSpeed] = useState(1);
  const source = useRef<PitchSource | null>(null);
  const heard = useRef({ place, target: targetMidi(parseTuning(to)!, place) });
  useEffect(() => {
    heard.current = { place, target: targetMidi(parseTuning(to)!, place) };
  }, [place, to]);
  // Another target: what was read against the one before is nothing to it.
  const [shownTo, setShownTo] = useState(to);
  if (shownTo !== to) {
    setShownTo(to);
    setSessions(NO_SESSIONS);
    if (wanted) setPlace(wanted);
  }
  useEffect(() => () => source.current?.stop(), []);
  const listen = (next: Listening) => {
    source.current?.stop();
    source.current = null;
    setListening('off');
    setProblem(null);
    setSessions(NO_SESSIONS);
    if (next === 'off') return;
    const fresh = PLACES.filter((_, i) => isNewString(fiddle, i, openedAt));
    const opened =
      next === 'simulated'
        ? new FiddleSource(simulatedFiddle(tuningOf(fiddle), openedAt % 100_000, fresh), place, a4)
        : new MicrophoneSource();
    source.current = opened;
    if (opened instanceof FiddleSource) opened.speed = speed;
    opened
      .start((frame, rate, minutes) => {
        const { place: bowed, target } = heard.current;
        const cents = readCents(frame, rate, target, a4);
        setNow(minutes);
        if (cents !== null) setSessions((before) => withReading(before, bowed, minutes, cents));
      })
      .then(
        () => {
          if (source.current === opened) setListening(next);
        },
        (reason: unknown) => {
          if (source.current !== opened) return;
          source.current = null;
          setProblem(
            `The microphone cannot be heard: ${reason instanceof Error ? reason.message : 'it was refused'} The simulated fiddle is used instead.`,
          );
        },
      );
  };
  return {
    openedAt,
    listening,
    problem,
    place,
    sessions,
    now,
    speed,
    listen,
    setSpeed: (next: number) => {
      setSpeed(next);
      if (source.current instanceof FiddleSource) source.current.speed = next;
    },
    bow: (next: Place) => {
      setPlace(next);
      if (source.current instanceof FiddleSource) source.current.bowed = next;
    },
    turn: (cents: number) => {
      if (!(source.current instanceof FiddleSource)) return;
      source.current.turn(place, cents);
      // What was read before the turn says nothing about after it.
      setSessions((before) => withTurned(before, place));
    },
    stands: (of: Place, change: number) => setSessions((before) => withTuned(before, of, now, change)),
  };
}
