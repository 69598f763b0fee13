import { Play, Square } from 'lucide-react';
import { type ButtonHTMLAttributes, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { type Attempt, WRONGS } from '#contract/log';
import { CELL_RESTS, nextRung } from '#core/practice';
import type { TuneReport } from '#core/report';
import { JOINT_WORDS } from '#words/bodyCheck';
import { counted } from '#words/plural';
import { mistakeWords } from '#words/take';
import { beatWords } from '#words/tempo';
import { WAY_WORDS } from '#words/tuneDrill';
import type { OpenTune } from '../openTune/openTuneSlice';
import { readListenSettings } from '../player/listenSettings';
import { loopWay } from '../player/loopWay';
import type { Player } from '../player/player';
import { PlayMark } from '../player/PlayMark';
import { usePlayer } from '../player/usePlayer';
import { PlainScore } from '../score/PlainScore';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import type { LoopSource } from '../takes/listenLoop';
import { takeMarks } from '../takes/takeMarks';
import { mattersMost } from '../takes/takeResult';
import { useListeningLadder } from '../takes/useListeningLadder';
import { Button } from '../ui/Button';
import { useMedia } from '../ui/useMedia';
import { isForPage, usePageKeys } from '../ui/usePageKeys';
import { useTitle } from '../ui/useTitle';
import { BodyCheck } from './BodyCheck';
import { readBodyCue } from './bodyCue';
import { cleanWaysOf } from './cleanBefore';
import { EarButton, EarLine } from './EarLine';
import { PainSheet } from './PainSheet';
import type { RunChoices } from './runChoices';
import { layeredReport, playedReport, type RunItem, stageWords } from './runItem';
import { RunMenu } from './RunMenu';
import { type Running, useRun } from './useRun';
import { WayChips } from './WayChips';
import { WRONG_OF } from './wrongOf';

interface RunScreenProps {
  readonly open: OpenTune;
  readonly report: TuneReport;
  readonly item: RunItem;
  /** What the log has of the tune. */
  readonly attempts: readonly Attempt[];
  /** It hurt, and was not taken up again. */
  readonly isResting: boolean;
  readonly onRest: (rests: boolean) => void;
  readonly choices: RunChoices;
  readonly onChoose: (choices: RunChoices) => void;
}

/** One thing over and over: what is played, how fast, and one key for each time. */
export function RunScreen({
  open,
  report: whole,
  item,
  attempts,
  isResting,
  onRest,
  choices,
  onChoose,
}: RunScreenProps) {
  const report = useMemo(() => layeredReport(whole, choices.layer), [whole, choices.layer]);
  const isHeld = useAppSelector(selectSettings).settings.hand.bans.some(({ reason }) => reason === 'pain');
  const running = useRun(item, report, { id: open.id, revision: open.revision }, choices, { isResting, isHeld });
  const { run, stage, isDone } = running;
  useTitle(item.name, open.tune.title);
  const tune = useMemo(() => item.tuneAt(report, run, stage), [item, report, run, stage]);
  const played = useMemo(() => playedReport(tune, report), [tune, report]);
  const [isHurting, setHurting] = useState(false);
  /** What the last body check found. */
  const [cue] = useState(readBodyCue);
  const loops = item.what !== 'run-through';
  const [fixed] = useState(() => ({
    ...readListenSettings(),
    loop: loops,
    answer: false,
    climb: 0,
    compare: null,
    countIn: 1,
  }));
  const listening = usePlayer(played, { fixed });
  const span = { from: 0, to: played.unrolled.notes.length };
  const toggle = () => listening.toggle(span);
  const { ear, heardMarks, speaks, setSpeaks, listen, isHeard } = useEar(
    running,
    item,
    choices,
    played,
    listening.player,
  );
  const way = loops ? loopWay(played, span) : 'round';
  const backTo = `/tunes/${open.id}/practice`;

  usePageKeys((event) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey || !isForPage(event)) return;
    const { key } = event;
    const wrong = WRONGS[Number(key) - 1];
    if (key === ' ') toggle();
    else if (CLEAN_KEYS.has(key)) running.repeat(true);
    else if (MISS_KEYS.has(key)) running.repeat(false);
    else if (key === 'Backspace') running.takeBack();
    else if (key.toLowerCase() === 'a') running.apart();
    else if (key.toLowerCase() === 'h') setHurting(true);
    else if (wrong) running.tellWrong(wrong);
    else return;
    event.preventDefault();
  });

  // What is taken apart has a beat of its own; it is told in that of the tune.
  const shown = item.drill ? played.settings : { bpm: run.ladder.bpm, beat: report.settings.beat };
  const isThrough = item.what === 'run-through';
  const bars = played.unrolled.bars.length;
  const sized = useScoreSize(bars, ear.isOn);
  const isPlaying = listening.state.status !== 'idle';
  const stillTold = stageWords(item, stage);
  return (
    <main
      className="flex h-full min-h-0 flex-col overflow-y-auto px-5 pt-3 lg:px-10"
      data-run={isDone ? 'done' : run.cell ? 'cell' : item.what}
    >
      <header className="flex flex-wrap items-start gap-x-6 gap-y-1">
        <div className="min-w-0 flex-1 basis-0">
          <p className="text-muted">
            <Link to={backTo} className="text-woad underline underline-offset-3">
              {open.tune.title}
            </Link>
          </p>
          <h1 className="text-[clamp(1.6rem,3.4vw,2.6rem)] leading-tight">
            {run.cell ? 'Taken apart' : capital(item.name)}
          </h1>
          <p className="text-[clamp(1.05rem,1.7vw,1.35rem)]">
            {stillTold ?? watchWords(item, run.cell !== null, way)}
            {cue !== null && <b className="font-medium"> {JOINT_WORDS[cue].cue}</b>}
          </p>
        </div>
        <p className="text-right leading-none" aria-live="polite" data-bpm={shown.bpm.toFixed(1)}>
          <b className="font-serif text-[clamp(3.5rem,8vw,6rem)] lining-nums tabular-nums">{Math.round(shown.bpm)}</b>
          <span className="block text-muted">
            {beatWords(shown.beat)}
            {item.drill === null && item.what !== 'run-through' && ` · goal ${Math.round(item.wishBpm)}`}
          </span>
        </p>
      </header>
      {isDone ? (
        <Done running={running} item={item} backTo={backTo} />
      ) : (
        <>
          {!item.drill && !isThrough && (
            <div className="mt-2">
              <WayChips
                way={choices.way}
                clean={cleanWaysOf(attempts, item.span)}
                onChoose={(way) => onChoose({ ...choices, way })}
              />
            </div>
          )}
          <div className="relative my-3 shrink-0">
            <PlainScore
              report={played}
              {...sized}
              lanes={{ bow: true, fingers: true }}
              take={heardMarks}
              label={`${item.name}: ${counted(played.unrolled.notes.length, 'note')}`}
            />
            <PlayMark player={listening.player} state={listening.state} onPass={() => undefined} />
          </div>
          <div className="sticky bottom-0 mt-auto flex flex-col gap-3 bg-paper py-1">
            <p role="status" className="text-[clamp(1.1rem,2vw,1.5rem)]" data-said>
              {saidWords(running, item)}
              {isHeld && !run.hurts && !item.drill && ' The tempo stays while a finger hurts.'}
            </p>
            <EarLine ear={ear} />
            <WrongChoice running={running} />
            <div className="flex flex-wrap items-stretch gap-3">
              <Button className="flex items-center gap-2 px-5 text-lead" onClick={toggle}>
                {isPlaying ? (
                  <Square size={18} fill="currentColor" aria-hidden />
                ) : (
                  <Play size={20} fill="currentColor" aria-hidden />
                )}
                {isPlaying ? 'Stop' : 'Play along'}
              </Button>
              {isHeard && <EarButton ear={ear} speaks={speaks} onSpeaks={setSpeaks} onListen={listen} />}
              <BigButton className="bg-woad text-on-woad" disabled={run.hurts} onClick={() => running.repeat(true)}>
                Clean <span aria-hidden>→</span>
              </BigButton>
              <BigButton
                className="border-2 border-madder bg-surface text-madder"
                disabled={run.hurts}
                onClick={() => running.repeat(false)}
              >
                Not yet <span aria-hidden>←</span>
              </BigButton>
            </div>
            <Controls
              running={running}
              item={item}
              choices={choices}
              onChoose={onChoose}
              onPain={() => setHurting(true)}
              onBetter={() => {
                running.hurts(null);
                onRest(false);
              }}
            />
          </div>
        </>
      )}
      {isHurting && (
        <PainSheet
          report={report}
          stretch={item.stretch}
          onClose={() => setHurting(false)}
          onHurts={(pain) => {
            setHurting(false);
            listening.player.stop();
            running.hurts(pain);
            onRest(true);
          }}
        />
      )}
    </main>
  );
}

const notesOf = ({ unrolled }: TuneReport) => unrolled.notes.map(({ note }) => note.id).join(' ');

/** The ladder that listens, for what is practised: what it heard is one repetition. */
function useEar(running: Running, item: RunItem, choices: RunChoices, played: TuneReport, player: Player) {
  const [speaks, setSpeaks] = useState(false);
  // What is done in silence cannot be listened to.
  const isHeard = (item.drill?.stages[running.stage]?.way ?? choices.way) !== 'silent';
  const ear = useListeningLadder({
    report: played,
    drill: item.drill?.kind ?? null,
    isDone: running.isDone || running.run.hurts || !isHeard,
    speaks,
    onHeard: (isClean, { findings }, source) => {
      const most = mattersMost(findings);
      const note = most ? mistakeWords(most) : '';
      running.repeat(isClean, { note, wrong: most && WRONG_OF[most.code], isOwn: source === 'microphone' });
    },
  });
  const listen = (source: LoopSource) => {
    player.stop();
    ear.start(source);
  };
  const { heard } = ear;
  // Of what is played now, and not of what was before it was taken apart.
  const isOfThis = heard !== null && notesOf(heard.report) === notesOf(played);
  const heardMarks = useMemo(() => (isOfThis ? takeMarks(heard.report, heard, {}) : null), [isOfThis, heard]);
  return { ear, heardMarks, speaks, setSpeaks, listen, isHeard };
}

/** How large the score stands: read from two metres, a short one on a line of its own; with room for what was heard. */
function useScoreSize(bars: number, isListening: boolean): { readonly zoom: number; readonly barsPerLine?: number } {
  const isNarrow = useMedia('(width < 640px)');
  const isWide = useMedia('(width >= 1600px)');
  if (isNarrow) return bars === 1 ? { zoom: 1, barsPerLine: 1 } : { zoom: 1 };
  const isShort = bars <= SHORT_BARS;
  return {
    zoom: (isShort ? (isListening ? 1.2 : 1.5) : 1.1) * (isWide ? 1.4 : 1),
    ...(isShort ? { barsPerLine: bars } : {}),
  };
}

interface ControlsProps extends Pick<RunScreenProps, 'item' | 'choices' | 'onChoose'> {
  readonly running: Running;
  readonly onPain: () => void;
  readonly onBetter: () => void;
}

/** What is pressed now and then. */
function Controls({ running, item, choices, onChoose, onPain, onBetter }: ControlsProps) {
  const { run } = running;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-2 text-muted">
      <RunMenu choices={choices} isDrill={item.what === 'drill'} onChoose={onChoose} />
      <Button look="small" disabled={running.count === 0} onClick={running.takeBack}>
        Take the last back
      </Button>
      {item.at !== null && !run.cell && (
        <Button look="small" onClick={running.apart}>
          Take it apart
        </Button>
      )}
      {run.cell && (
        <Button look="small" onClick={running.together}>
          Back to the whole
        </Button>
      )}
      {run.hurts ? (
        <Button look="small" onClick={onBetter}>
          It is better: go on
        </Button>
      ) : (
        <Button look="small" onClick={onPain}>
          This hurts
        </Button>
      )}
      <Button look="small" onClick={running.stop}>
        Enough
      </Button>
      <span className="ml-auto text-small" data-waiting={running.queue.waiting}>
        {queueWords(running.queue)}
      </span>
    </div>
  );
}

/** What went wrong in the last one, where it was not clean. */
function WrongChoice({ running: { last, tellWrong } }: { readonly running: Running }) {
  if (!last || last.clean) return null;
  return (
    <div role="group" aria-label="What went wrong" className="flex flex-wrap items-center gap-2">
      <span className="text-muted">what went wrong?</span>
      {WRONGS.map((wrong, i) => (
        <Button
          key={wrong}
          aria-pressed={last.wrong === wrong}
          className="aria-pressed:border-woad aria-pressed:bg-band aria-pressed:font-bold"
          onClick={() => tellWrong(wrong)}
        >
          <span className="text-muted">{i + 1}</span> {wrong}
        </Button>
      ))}
    </div>
  );
}

/** One of the two answers: hit without looking, read from two metres. */
function BigButton({ className, ...rest }: ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type="button"
      className={`min-h-16 flex-1 basis-40 rounded-md text-[clamp(1.4rem,2.8vw,2rem)] font-medium disabled:opacity-50 ${className}`}
      {...rest}
    />
  );
}

/** Keys of a pedal, too: they send pages or arrows. */
const CLEAN_KEYS: ReadonlySet<string> = new Set(['ArrowRight', 'PageDown', 'c', 'C']);
const MISS_KEYS: ReadonlySet<string> = new Set(['ArrowLeft', 'PageUp', 'n', 'N']);

/** Up to so many bars fill one line, large. */
const SHORT_BARS = 2;

const capital = (text: string) => (text[0] ?? '').toUpperCase() + text.slice(1);

function watchWords({ watch, what }: RunItem, isApart: boolean, way: ReturnType<typeof loopWay>): string {
  if (isApart) return 'The step by itself: the rest before it shrinks, then it grows again.';
  const loop =
    way === 'retake'
      ? ' Lift the bow at the end and set it again.'
      : way === 'both-ways'
        ? ' It flips: once from each bow.'
        : way === 'flips'
          ? ' It flips every time.'
          : '';
  return what === 'run-through' ? watch : `${watch}${loop}`;
}

/** Where the run is, in words. */
function saidWords({ run, stage, stageCleans, count }: Running, item: RunItem): string {
  if (run.hurts)
    return 'The block is over. Rest; see a teacher or a doctor if it stays. Nothing goes on until you say so.';
  if (item.drill) {
    const own = item.drill.stages[stage]!;
    const way = own.way === 'bowed' ? '' : `${WAY_WORDS[own.way]}, `;
    return `Stage ${stage + 1} of ${item.drill.stages.length}: ${way}clean ${stageCleans} of ${own.clean}`;
  }
  const { cleanInARow } = run.ladder.wish;
  if (run.cell) {
    const { rest, grown, cleans } = run.cell;
    const beats = CELL_RESTS[rest]!;
    const what =
      grown > 0
        ? 'growing again'
        : beats > 0
          ? `${beats === 0.5 ? 'half a beat' : beats === 0.25 ? 'a quarter of a beat' : counted(beats, 'beat')} of rest`
          : 'no rest';
    return `${capital(what)}: clean ${cleans} of ${cleanInARow}`;
  }
  if (item.what === 'run-through') return 'Say at the end whether it went through.';
  return count === 0
    ? `Three clean at the honest tempo beat thirty above it.`
    : `Clean ${run.ladder.cleans} of ${cleanInARow}, then ${afterWords(run)}`;
}

/** What comes after so many clean ones. */
function afterWords({ ladder }: Running['run']): string {
  return ladder.bpm === ladder.wish.wishBpm ? 'done' : String(Math.round(nextRung(ladder)));
}

function queueWords({ waiting, writing, isStuck, isForgetful }: Running['queue']): string {
  if (isForgetful) return 'This browser cannot save anything: keep this page open until it is sent.';
  if (waiting === 0) return 'logged';
  return isStuck && writing === 0 ? `${counted(waiting, 'time')} kept here until the server answers` : 'logging …';
}

function Done({
  running,
  item,
  backTo,
}: {
  readonly running: Running;
  readonly item: RunItem;
  readonly backTo: string;
}) {
  const { run, stage, count } = running;
  const { ended, steps } = run.ladder;
  const words =
    item.drill && stage >= item.drill.stages.length
      ? 'The drill is through.'
      : ended === 'wish'
        ? item.what === 'run-through'
          ? 'It went through.'
          : 'Clean at the goal.'
        : ended === 'cap'
          ? 'The minutes are over.'
          : 'Stopped.';
  return (
    <div className="my-8 flex flex-col gap-3 text-lead">
      <p className="font-serif text-[clamp(1.6rem,3vw,2.2rem)] font-bold" role="status">
        {words}
      </p>
      <p>
        {count === 0 ? 'Nothing was played' : counted(count, 'time')}
        {item.drill || count === 0 ? '' : `, from ${Math.round(steps[0]!)} to ${Math.round(steps[steps.length - 1]!)}`}.
      </p>
      <div className="text-base">
        <BodyCheck />
      </div>
      <p className="flex gap-5">
        <Link to={backTo} className="text-woad underline underline-offset-3">
          Back to the bites
        </Link>
        <Link to="/practice" className="text-woad underline underline-offset-3">
          Today’s session
        </Link>
      </p>
    </div>
  );
}
