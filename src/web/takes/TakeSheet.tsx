import { Mic, Square } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { placesOf, PLAYER_NAMES, type PlayerName } from '#core/simulatedPlayer';
import { MISTAKE_KINDS, type MistakeKind } from '#core/take';
import { mistakeName } from '#words/take';
import { selectOpen } from '../openTune/openTuneSlice';
import type { SheetProps } from '../openTune/sheetProps';
import { readPractice } from '../player/practiceTempo';
import { spanOf } from '../player/spans';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { useWork } from '../threads/useWork';
import { workerTask } from '../threads/workerTask';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';
import type { HearWorker, SimulatedWish, Sound, TakeSubject } from './hearProtocol';
import { keepTake, type KeptTake, takesOf, type TakeSource } from './keptTakes';
import { LevelLine } from './LevelLine';
import { microphoneInputs } from './microphone';
import { readSound, SoundFileProblem } from './readSound';
import { showTake, useShownTake } from './shownTake';
import { TakeComparison } from './TakeComparison';
import { TakeList } from './TakeList';
import type { TakeResult } from './takeResult';
import { TakeSummary } from './TakeSummary';
import { startHearing, useRecorder } from './useRecorder';
import { useLookedUp, useTakeSubject } from './useTakeSubject';

const SOURCES: readonly { readonly value: TakeSource; readonly name: string }[] = [
  { value: 'microphone', name: 'the microphone' },
  { value: 'file', name: 'a sound file' },
  { value: 'simulated', name: 'the simulated player' },
];
const FIRST_PASSES: Readonly<Record<string, number>> = {};
const NO_TAKES: readonly KeptTake[] = [];

type TakeSheetProps = Pick<SheetProps, 'id' | 'report' | 'ids' | 'onShow' | 'onClose'>;

/** Plays the tune, or lets it be played, and says what was heard. */
export default function TakeSheet({ id, report, ids, onShow, onClose }: TakeSheetProps) {
  const [source, setSource] = useState<TakeSource>('microphone');
  const [isPart, setPart] = useState(false);
  const { own } = useAppSelector(selectSettings).settings.listening;
  const passInView = useAppSelector(selectOpen)?.passInView ?? FIRST_PASSES;
  const span = ids.length > 1 && isPart ? spanOf(report, ids, passInView, true) : null;
  const subjectOf = useTakeSubject(report, span, { percentOf: () => readPractice(id) });
  const look = useCallback(() => takesOf(id), [id]);
  const [takes, lookAgain] = useLookedUp(look, NO_TAKES);
  const [problem, setProblem] = useState<string | null>(null);
  const [compared, setCompared] = useState<KeptTake | null>(null);
  const { take: shown } = useShownTake(id);
  const keep = async ({ sound, result, subject }: Taken, from: TakeSource) => {
    const take = {
      id: crypto.randomUUID(),
      tuneId: id,
      at: new Date().toISOString(),
      source: from,
      bpm: subject.bpm,
      span: subject.span,
      result,
      isAccepted: false,
      own,
      sampleRate: sound.sampleRate,
    };
    setCompared(null);
    try {
      showTake(await keepTake(take, sound.samples));
    } catch {
      showTake({ ...take, bytes: 0 });
      setProblem('The browser has no room to keep this take: it is shown until the page is left. Delete older takes.');
    }
    lookAgain();
  };
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Take check"
      description="Play it through: what was heard stands under the score. Nothing leaves this machine."
    >
      <div className="flex flex-col gap-3">
        <label className="flex flex-wrap items-center gap-2">
          Listen to
          <Select label="Listen to" value={source} options={SOURCES} onChange={setSource} />
        </label>
        {ids.length > 1 && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={isPart}
              onChange={({ target }) => setPart(target.checked)}
              className="size-4 accent-woad"
            />
            only the notes selected
          </label>
        )}
        {source === 'microphone' && <FromMicrophone subjectOf={subjectOf} onTake={keep} onProblem={setProblem} />}
        {source === 'file' && <FromFile subjectOf={subjectOf} onTake={keep} onProblem={setProblem} />}
        {source === 'simulated' && (
          <FromPlayer
            report={report}
            seed={takes.length + 1}
            subjectOf={subjectOf}
            onTake={keep}
            onProblem={setProblem}
          />
        )}
        {problem && <Alert>{problem}</Alert>}
        {shown && <TakeSummary key={shown.id} take={shown} report={report} tuneId={id} onShow={onShow} />}
        {shown && compared && <TakeComparison one={compared} other={shown} />}
        <TakeList takes={takes} shown={shown} compared={compared} onCompare={setCompared} onChanged={lookAgain} />
      </div>
    </Sheet>
  );
}

/** A take, what it was listened to for, and what was heard. */
interface Taken {
  readonly subject: TakeSubject;
  readonly sound: Sound;
  readonly result: TakeResult;
}

interface FromProps {
  readonly subjectOf: () => Promise<TakeSubject>;
  readonly onTake: (taken: Taken, source: TakeSource) => Promise<void>;
  readonly onProblem: (words: string | null) => void;
}

function FromMicrophone({ subjectOf, onTake, onProblem }: FromProps) {
  const { state, start, stop } = useRecorder();
  const [inputs, lookAgain] = useLookedUp(microphoneInputs, NO_INPUTS);
  const [input, setInput] = useState<string | null>(null);
  const isOpen = state.kind === 'recording';
  const begun = useRef<TakeSubject | null>(null);
  const toggle = async () => {
    onProblem(null);
    if (!isOpen) {
      const subject = await subjectOf();
      begun.current = subject;
      await start(subject, input);
      lookAgain();
      return;
    }
    const take = await stop();
    const subject = begun.current;
    if (!take || !subject) return;
    if (take.lost > 0)
      onProblem(`${take.lost} blocks of sound were lost on the way: what is told near them may be wrong.`);
    await onTake({ subject, sound: take, result: take.result }, 'microphone');
  };
  return (
    <div className="flex flex-col gap-2">
      {inputs.length > 1 && (
        <label className="flex flex-wrap items-center gap-2">
          Input
          <Select
            label="Input"
            value={input}
            options={[
              { value: null, name: 'as the system has it' },
              ...inputs.map(({ id, name }) => ({ value: id, name })),
            ]}
            onChange={setInput}
          />
        </label>
      )}
      <Button
        look="main"
        className="flex min-h-10 items-center justify-center gap-2"
        disabled={state.kind === 'starting' || state.kind === 'hearing'}
        onClick={() => void toggle()}
        data-autofocus
      >
        {isOpen ? <Square size={16} fill="currentColor" aria-hidden /> : <Mic size={18} aria-hidden />}
        {isOpen
          ? 'Stop'
          : state.kind === 'starting'
            ? 'Waiting for the microphone …'
            : state.kind === 'hearing'
              ? 'Listening …'
              : 'Record'}
      </Button>
      {isOpen && <LevelLine level={state.level} seconds={state.seconds} isSilent={state.isSilent} />}
      {state.kind === 'failed' && <Alert>{state.words}</Alert>}
    </div>
  );
}

const NO_INPUTS: Awaited<ReturnType<typeof microphoneInputs>> = [];

function FromFile({ subjectOf, onTake, onProblem }: FromProps) {
  const work = useWork<Taken>();
  const [isReading, setReading] = useState(false);
  useTaken(work, 'file', onTake);
  const read = async (file: File) => {
    onProblem(null);
    setReading(true);
    try {
      const sound = await readSound(file);
      if (sound.promisedSeconds !== null)
        onProblem(
          `The file ends early: it promised ${sound.promisedSeconds.toFixed(1)} s. What is there was listened to.`,
        );
      const subject = await subjectOf();
      work.begin((signal, onDone) => hearWhole(subject, sound, signal, onDone));
    } catch (error) {
      onProblem(error instanceof SoundFileProblem ? error.message : 'The file could not be read.');
    } finally {
      setReading(false);
    }
  };
  return (
    <div className="flex flex-col gap-2">
      <label className="flex flex-col gap-1">
        <span className="font-bold">Sound file</span>
        <input
          type="file"
          accept="audio/*,.wav"
          className="text-small"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) void read(file);
            target.value = '';
          }}
        />
        <span className="text-hint text-muted">WAV, or what this browser reads; up to ten minutes.</span>
      </label>
      {isReading && <p className="text-muted">Reading …</p>}
      <Progress work={work} />
    </div>
  );
}

/** Mistakes offered first; the others are in the same list. */
function FromPlayer({
  report,
  seed,
  subjectOf,
  onTake,
  onProblem,
}: FromProps & Pick<TakeSheetProps, 'report'> & { readonly seed: number }) {
  const work = useWork<Taken>();
  useTaken(work, 'simulated', onTake);
  const [player, setPlayer] = useState<PlayerName>('plain');
  const [noise, setNoise] = useState(35);
  const [room, setRoom] = useState(0.2);
  const [mistakes, setMistakes] = useState<readonly MistakeKind[]>([]);
  const possible = MISTAKE_KINDS.filter((kind) => placesOf(report, kind).length > 0);
  const play = async () => {
    onProblem(null);
    const subject = await subjectOf();
    const wish: SimulatedWish = { player, mistakes, signalToNoise: noise, room, seed };
    work.begin(async (signal, onDone) => {
      const sound = await workerTask<HearWorker, Sound>(
        startHearing,
        async (remote) => {
          const { proxy } = await import('comlink');
          return remote.simulate(
            subject,
            wish,
            proxy((share) => onDone(share / 2)),
          );
        },
        { signal },
      );
      return hearWhole(subject, sound, signal, (share) => onDone(0.5 + share / 2));
    });
  };
  return (
    <div className="flex flex-col gap-2">
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        <label className="flex items-center gap-1.5">
          plays
          <Select label="How it plays" value={player} options={PLAYER_NAMES} onChange={setPlayer} />
        </label>
        <label className="flex items-center gap-1.5">
          noise
          <Select label="Noise of the room" value={noise} options={NOISES} onChange={setNoise} />
        </label>
        <label className="flex items-center gap-1.5">
          room
          <Select label="Echo of the room" value={room} options={ROOMS} onChange={setRoom} />
        </label>
      </div>
      <fieldset>
        <legend className="font-bold">Mistakes it makes</legend>
        <div className="grid max-h-32 grid-cols-2 gap-x-3 overflow-y-auto rounded-md border border-line px-2 py-1">
          {possible.map((kind) => (
            <label key={kind} className="flex min-h-6 items-center gap-1.5 text-small">
              <input
                type="checkbox"
                className="size-4 accent-woad"
                checked={mistakes.includes(kind)}
                onChange={({ target }) =>
                  setMistakes(target.checked ? [...mistakes, kind] : mistakes.filter((one) => one !== kind))
                }
              />
              {mistakeName(kind)}
            </label>
          ))}
        </div>
      </fieldset>
      <Button
        look="main"
        className="min-h-10"
        disabled={work.state.kind === 'going'}
        onClick={() => void play()}
        data-autofocus
      >
        Let it play
      </Button>
      <Progress work={work} />
    </div>
  );
}

const NOISES = [
  { value: 40, name: 'quiet' },
  { value: 35, name: 'usual' },
  { value: 25, name: 'some' },
  { value: 15, name: 'loud' },
];
const ROOMS = [
  { value: 0, name: 'dry' },
  { value: 0.2, name: 'a room' },
  { value: 0.4, name: 'a hall' },
];

type TakeWork = ReturnType<typeof useWork<Taken>>;

/** Hands a take on once, when it has been heard. */
function useTaken({ state }: TakeWork, source: TakeSource, onTake: FromProps['onTake']): void {
  const answer = state.kind === 'done' ? state.answer : null;
  useEffect(() => {
    if (answer) void onTake(answer, source);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once for each answer
  }, [answer]);
}

async function hearWhole(subject: TakeSubject, sound: Sound, signal: AbortSignal, onDone: (share: number) => void) {
  const { proxy } = await import('comlink');
  const result = await workerTask<HearWorker, TakeResult>(
    startHearing,
    (remote) => remote.check(subject, sound, proxy(onDone)),
    { signal, timeLimitMs: LONGEST_MS },
  );
  return { subject, sound, result };
}

/** A take of ten minutes on a slow machine. */
const LONGEST_MS = 300_000;

function Progress({ work: { state, cancel } }: { readonly work: TakeWork }) {
  if (state.kind === 'going')
    return (
      <p className="flex items-center gap-3" role="status">
        <progress value={state.progress} aria-label="Listening" className="h-1.5 flex-1 accent-woad" />
        <span className="text-small text-muted">Listening …</span>
        <Button look="link" onClick={cancel}>
          Stop
        </Button>
      </p>
    );
  if (state.kind === 'cancelled') return <p className="text-muted">Stopped.</p>;
  if (state.kind === 'failed')
    return (
      <Alert>
        {state.problem === 'too-long'
          ? 'Listening took too long and was given up.'
          : 'The take could not be listened to.'}
      </Alert>
    );
  return null;
}
