import { writtenKey, writtenPitch } from '#words/pitch';
import { UndoButtons } from '../openTune/UndoButtons';
import { PenTool, Rows3, Waves } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useLocation } from 'react-router';
import { flushSync } from 'react-dom';
import { PlayControls } from '../player/PlayControls';
import { PlayMark } from '../player/PlayMark';
import { passStart, spanOf } from '../player/spans';
import { tapTempo } from '../player/tapTempo';
import { usePlayer } from '../player/usePlayer';
import type { Gesture } from '#core/bowing';
import { makeGesture, setBowLengths, setLocks } from '#core/bowing';
import { type Finding, type Mend, type TuneReport, mendTune, reportTune } from '#core/report';
import { type Direction, type Tune, writtenNotes } from '#core/tune';
import { useAppDispatch, useAppSelector, useAppStore } from '../store/store';
import { EntryField } from '../entry/EntryField';
import { enterOnStaff, pressEntryKey } from '../entry/entryKeys';
import { EntryStrip } from '../entry/EntryStrip';
import { pasteWords } from '../entry/pasteWords';
import type { EntryWay } from '../entry/entryState';
import type { LineSpec } from '../score/lines';
import { noteStates } from '#core/noteStates';
import { Button, SignButton } from '../ui/Button';
import { type PageKey, useBodyKeys } from '../ui/useBodyKeys';
import { BowSign } from '../ui/signs';
import {
  conflictSettled,
  copied,
  edited,
  entered,
  entryBegan,
  entryEnded,
  passShown,
  redone,
  selectClipboard,
  selected,
  undone,
} from '../openTune/openTuneSlice';
import { barsOf, setDrone } from '#core/editing';
import type { PaintedDrones } from '../score/ArmPaint';
import { selectSettings } from '../store/selectSettings';
import { useKnownTunings } from '../crossTuning/useKnownTunings';
import type { SheetProps } from '../openTune/sheetProps';
import { OpenSheet, SHEETS, type SheetName } from './sheets';
import { Card } from './Card';
import { EDIT_ACTIONS, type EditAction, comboOf } from './editActions';
import type { ExportFormat } from '#contract/exports';
import { FileMessage } from './FileMessage';
import { EditMenu } from './EditMenu';
import { Foot, SLIDER_BPM } from '../openTune/Foot';
import { beatWords } from '#words/tempo';
import { HAND_KEYS } from './HandSheets';
import { loopWords } from '#words/loop';
import { Margin } from './Margin';
import { MoreMenu } from './MoreMenu';
import { SaveMark } from '../openTune/SaveMark';
import { ScoreView } from './ScoreView';
import { barSelection, moveSelection, partSelection, selectedIds, widerSelection } from '../openTune/selection';
import { ConflictSheet } from '../openTune/ConflictSheet';
import { Verdict } from './Verdict';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { type View, readView, writeView } from './view';
import { ViewMenu } from './ViewMenu';

/** The bench of the tune of the address. */
export function BenchPage() {
  return <OpenTunePage page={Bench} />;
}

function Bench({ open, report, states }: OpenTuneProps) {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const { tune, selection, passInView, entry } = open;
  const clipboard = useAppSelector(selectClipboard);
  const { settings } = useAppSelector(selectSettings);
  const tunings = useKnownTunings();
  const [sheet, setSheet] = useState<SheetName | null>(null);
  const [file, setFile] = useState<ExportFormat | null>(null);
  const closeFile = useCallback(() => setFile(null), []);
  const [thisPassOnly, setThisPassOnly] = useState(false);
  const [previewed, setPreviewed] = useState<{
    readonly of: Tune;
    readonly mend: Mend;
    readonly tune: Tune;
  } | null>(null);
  const [view, setView] = useState(readView);
  const showView = (next: View) => {
    writeView(next);
    setView(next);
  };
  const notes = useMemo(() => writtenNotes(tune), [tune]);
  const ids = useMemo(() => selectedIds(notes, selection), [notes, selection]);
  const partOfFocus = tune.parts.find(({ events }) => events.some(({ id }) => id === selection?.focus))?.name;
  const part = partOfFocus ?? tune.parts[0]!.name;
  const passes = tune.form.filter((name) => name === part).length;
  const pass = passes > 1 ? { part, pass: passInView[part] ?? 1 } : null;
  const onePass = thisPassOnly && pass ? pass.pass : null;

  const edit = (next: Tune, label: string) => {
    if (next !== tune) dispatch(edited({ tune: next, label }));
  };
  const where = barWords(report, ids);
  const bars = useMemo(() => [...barsOf(tune, new Set(ids))], [tune, ids]);
  const gesture = (made: Gesture) => {
    const words = { slur: 'slur', change: 'turn', hook: 'hook', retake: 'retake' }[made];
    const next = makeGesture(tune, ids, made, onePass);
    if (next.parts.some((item, i) => item !== tune.parts[i]))
      edit(next, `${words} in ${where}${onePass ? `, ${part}${onePass} only` : ''}`);
  };
  const lock = (direction: Direction | null) =>
    edit(setLocks(tune, ids, direction), direction ? `lock to the ${direction}-bow in ${where}` : `unlock in ${where}`);
  const otherStart = () => {
    const direction = report.figures.start.direction === 'down' ? 'up' : 'down';
    edit({ ...tune, start: direction }, `start on the ${direction}-bow`);
  };
  // The same functions from render to render, so that lines an action leaves alone are not drawn again.
  const pick = useCallback(
    (id: string, extend: boolean) => {
      const now = store.getState().openTune.open;
      if (now?.entry) {
        dispatch(entered({ entry: { ...now.entry, caret: id, rhythm: { ...now.entry.rhythm, filled: 0 } } }));
        focusEntry();
      } else dispatch(selected({ anchor: (extend && now?.selection?.anchor) || id, focus: id }));
    },
    [dispatch, store],
  );
  const pickWhole = useCallback(
    (what: { readonly bar: string } | { readonly part: string }) => {
      const now = store.getState().openTune.open;
      if (!now || now.entry) return;
      dispatch(selected('bar' in what ? barSelection(now.tune, what.bar) : partSelection(now.tune, what.part)));
    },
    [dispatch, store],
  );
  const act = ({ run }: EditAction) => {
    const result = run({ tune, ids, clipboard });
    if (!result) return false;
    if (result.clipboard) dispatch(copied(result.clipboard));
    if (result.tune) edit(result.tune, `${result.label} in ${where}`);
    const [first, last] = [result.select?.[0], result.select?.at(-1)];
    if (first !== undefined && last !== undefined) dispatch(selected({ anchor: first, focus: last }));
    return true;
  };
  const beginEntering = (way: EntryWay) => {
    const events = tune.parts.flatMap((item) => item.events);
    dispatch(entryBegan({ caret: ids.at(-1) ?? events.at(-1)!.id, way }));
  };
  const { bareFinger } = report.settings.schools;
  /** Answers from the newest state: quick keys come faster than the page is drawn. */
  const pressKey = (key: string): boolean => {
    const now = store.getState().openTune.open;
    const outcome = now?.entry ? pressEntryKey(now.tune, now.entry, key, bareFinger) : null;
    if (outcome) dispatch(entered(outcome));
    return outcome !== null;
  };
  const pasteText = (text: string) => {
    const now = store.getState().openTune.open;
    if (now?.entry) dispatch(entered(pasteWords(now.tune, now.entry, text, bareFinger)));
  };
  const putOnStaff = useCallback(
    (caret: string, step: number) => {
      const now = store.getState().openTune.open;
      if (now?.entry) dispatch(entered(enterOnStaff(now.tune, { ...now.entry, caret }, step)));
    },
    [dispatch, store],
  );
  const pullStroke = useCallback(
    (head: string, ratio: number) => {
      const now = store.getState().openTune.open;
      if (!now) return;
      const next = setBowLengths(now.tune, new Map([[head, ratio === 1 ? null : ratio]]));
      dispatch(edited({ tune: next, label: `stroke ${ratio > 1 ? 'longer' : 'shorter'} than its own` }));
      dispatch(selected({ anchor: head, focus: head }));
    },
    [dispatch, store],
  );
  const paintDrones = useCallback(
    (drones: PaintedDrones) => {
      const now = store.getState().openTune.open;
      if (!now) return;
      let next = now.tune;
      for (const side of ['lower', 'upper', null] as const) {
        const chosen = new Set([...drones].flatMap(([id, wanted]) => (wanted === side ? [id] : [])));
        if (chosen.size > 0) next = setDrone(next, chosen, side);
      }
      const isOff = [...drones.values()].every((side) => side === null);
      const notes = `${drones.size} note${drones.size === 1 ? '' : 's'}`;
      dispatch(edited({ tune: next, label: isOff ? `drone off ${notes}` : `drone on ${notes}` }));
      const ids = [...drones.keys()];
      dispatch(selected({ anchor: ids[0]!, focus: ids[ids.length - 1]! }));
    },
    [dispatch, store],
  );
  const changeWay = (way: EntryWay) => {
    if (entry) dispatch(entered({ entry: { ...entry, way, place: null } }));
  };
  const endEntering = () => {
    // At once: with the field gone, a quick next key would go nowhere.
    flushSync(() => dispatch(entryEnded()));
    focusScore();
  };
  const show = (finding: Finding) => {
    dispatch(passShown({ part: finding.place.part, pass: finding.place.pass }));
    dispatch(selected({ anchor: finding.ids[0]!, focus: finding.ids[finding.ids.length - 1]! }));
    document.querySelector(`[data-note="${finding.ids[0]!}"]`)?.scrollIntoView({ block: 'nearest' });
  };
  const preview = (chosen: Mend | null, finding: Finding) => {
    // Bar lines and lengths drawn anew are another page: only what stays on this one is shown beforehand.
    const isShown = chosen && chosen.deed !== 'rebar' && chosen.deed !== 'fit-last-note';
    setPreviewed((now) => {
      if (!isShown) return null;
      if (now?.of === tune && now.mend === chosen) return now;
      return { of: tune, mend: chosen, tune: mendTune(tune, chosen, finding) };
    });
  };
  const previewStates = useMemo(
    () => (previewed?.of === tune ? noteStates(reportTune(previewed.tune, report.settings), passInView) : null),
    [previewed, tune, report, passInView],
  );
  const mend = (chosen: Mend, finding: Finding) => {
    setPreviewed(null);
    // The finding goes with its button: the keys go back to the score, so that undo and the like still answer.
    flushSync(() => edit(mendTune(tune, chosen, finding), mendLabel(chosen, finding)));
    focusScore();
  };

  const listening = usePlayer(report);
  const spanFor = (loops: boolean) => spanOf(report, ids, passInView, loops);
  const showPass = useCallback(
    (name: string, number: number) => dispatch(passShown({ part: name, pass: number })),
    [dispatch],
  );
  const [heardPass, setHeardPass] = useState<string | null>(null);
  const hearPass = useCallback(
    (name: string, number: number) => {
      setHeardPass(`${name}${number}`);
      showPass(name, number);
    },
    [showPass],
  );
  const setTempo = (bpm: number) => {
    const wished = Math.min(SLIDER_BPM.highest, Math.max(SLIDER_BPM.lowest, Math.round(bpm)));
    if (wished !== tune.tempoBpm) edit({ ...tune, tempoBpm: wished }, `tempo ${wished}`);
  };
  const [tap] = useState(tapTempo);
  // Another room led here for a note.
  const wanted = (useLocation().state as { readonly note?: string } | null)?.note;
  useEffect(() => {
    if (wanted !== undefined) dispatch(selected({ anchor: wanted, focus: wanted }));
  }, [wanted, dispatch]);

  const onKey = (event: PageKey) => {
    if (sheet || event.defaultPrevented) return;
    const inScore = (event.target as Element).closest('[data-score]') !== null;
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    if (command && (key === 'z' || key === 'y')) {
      if ((event.target as Element).closest('input:not([data-entry-field]), textarea, select')) return;
      event.preventDefault();
      dispatch(key === 'y' || event.shiftKey ? redone() : undone());
      return;
    }
    const isTyping = (event.target as Element).closest('input, textarea, select') !== null;
    if (entry && inScore && !isTyping && !command && !event.altKey && event.key !== 'Tab') {
      // The score was pressed while notes are entered: what is typed still goes there.
      if (event.key === 'Escape') endEntering();
      else if (pressKey(event.key)) focusEntry();
      event.preventDefault();
      return;
    }
    const action = inScore && !isTyping && EDIT_ACTIONS.find(({ combo }) => combo === comboOf(event));
    if (action) {
      if (act(action)) event.preventDefault();
      return;
    }
    if (command && key === 'a' && inScore && !isTyping) {
      event.preventDefault();
      dispatch(selected(widerSelection(tune, selection)));
      return;
    }
    if (command || event.altKey || !inScore || (event.target as Element).closest('button, input, a, select')) return;
    const moves: Record<string, Parameters<typeof moveSelection>[2]> = {
      arrowright: 'next',
      arrowleft: 'previous',
      arrowdown: 'next-bar',
      arrowup: 'previous-bar',
      home: 'first',
      end: 'last',
    };
    const gestures: Record<string, Gesture> = { s: 'slur', t: 'change', h: 'hook', r: 'retake' };
    const move = moves[key];
    const made = gestures[key];
    if (move) dispatch(selected(moveSelection(tune, selection, move, event.shiftKey)));
    else if (made) gesture(made);
    else if (key === 'd' || key === 'u') {
      const direction = key === 'd' ? 'down' : 'up';
      lock(states.get(ids[0] ?? '')?.lock === direction ? null : direction);
    } else if (key === ' ') listening.toggle(spanFor(listening.settings.loop));
    else if (key === 'x') listening.setSettings({ ...listening.settings, loop: !listening.settings.loop });
    else if (key === '[' || key === ']') setTempo(report.settings.bpm + (key === ']' ? 2 : -2));
    else if (key === 'y') {
      const bpm = tap(performance.now());
      if (bpm !== null) setTempo(bpm);
    } else if (key === 'o') setThisPassOnly(!thisPassOnly);
    else if (/^[1-9]$/.test(key) && Number(key) <= passes) dispatch(passShown({ part, pass: Number(key) }));
    else if (key === 'b') otherStart();
    else if (key === 'p') setSheet('patterns');
    else if (key === 'w' && notes.length > 0) setSheet('bowings');
    else if (key === 'm' && notes.length > 0) setSheet('bow');
    else if (key === 'f') setSheet('twins');
    else if (HAND_KEYS[key] && notes.length > 0) setSheet(HAND_KEYS[key]);
    else if (key === 'n' && ids.length > 0) setSheet('note');
    else if (key === 'enter') beginEntering('calls');
    else if (key === '?') setSheet('keys');
    else if (key === 'escape') dispatch(selected(null));
    else return;
    event.preventDefault();
  };

  useBodyKeys(onKey);

  const { findings } = report;
  const closeSheet = () => setSheet(null);
  const sheetProps: SheetProps = {
    id: open.id,
    tune,
    report,
    states,
    ids,
    barIds: bars,
    where,
    part,
    settings,
    tunings,
    onEdit: edit,
    onApply: (next, label) => {
      edit(next, label);
      closeSheet();
    },
    onShow: (chosen) => {
      dispatch(selected({ anchor: chosen[0]!, focus: chosen[chosen.length - 1]! }));
      closeSheet();
    },
    onClose: closeSheet,
  };
  const shown = sheet && SHEETS[sheet].applies(sheetProps) ? sheet : null;
  const ofLine = (line: LineSpec) =>
    findings.filter(({ ids: [first] }) => line.bars.some(({ events }) => events.some(({ id }) => id === first)));

  return (
    <div className="flex h-full flex-col" onKeyDown={onKey}>
      <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2 lg:px-5">
        <h1 className="line-clamp-2 min-w-0 text-[25px] leading-tight max-sm:line-clamp-3" title={tune.title}>
          {tune.title}
        </h1>
        <p className="flex flex-wrap text-muted">
          <button type="button" className={FACT} title="Title, meter, key, tuning" onClick={() => setSheet('tune')}>
            {headFacts(tune)}
          </button>
          <span aria-hidden>&nbsp;·&nbsp;</span>
          <button
            type="button"
            className={FACT}
            aria-label="Form: parts and their order"
            title="Form: parts and their order"
            onClick={() => setSheet('form')}
          >
            {formFacts(report)}
          </button>
        </p>
        <div className="ml-auto flex flex-wrap items-center gap-x-1 max-sm:gap-x-0 max-sm:[&_button]:w-8">
          <SaveMark save={open.save} />
          <StartButton report={report} onClick={otherStart} />
          <UndoButtons open={open} />
          <SignButton
            label={entry ? 'Entering notes: done (Esc)' : 'Enter notes (Enter)'}
            aria-pressed={entry !== null}
            className="aria-pressed:bg-band aria-pressed:text-woad"
            onClick={() => (entry ? endEntering() : beginEntering('calls'))}
          >
            <PenTool size={18} aria-hidden />
          </SignButton>
          <EditMenu
            context={{ tune, ids, clipboard }}
            onAction={act}
            onBar={() => setSheet('bar')}
            onNote={() => setSheet('note')}
          />
          <SignButton label="Bowing patterns (P)" onClick={() => setSheet('patterns')}>
            <Waves size={18} aria-hidden />
          </SignButton>
          <SignButton label="Other bowings (W)" className="max-sm:hidden" onClick={() => setSheet('bowings')}>
            <Rows3 size={18} aria-hidden />
          </SignButton>
          <ViewMenu view={view} onView={showView} />
          <MoreMenu
            tuneId={open.id}
            hasSource={open.hasSource}
            onTune={() => setSheet('tune')}
            onForm={() => setSheet('form')}
            onBow={() => setSheet('bow')}
            onBowings={() => setSheet('bowings')}
            onTwins={() => setSheet('twins')}
            onHand={setSheet}
            onVersions={() => setSheet('versions')}
            onFile={setFile}
            onKeys={() => setSheet('keys')}
          />
        </div>
        <p className="sr-only" role="status">
          {open.said}
        </p>
      </header>
      <main className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto px-4 lg:px-5">
        <Verdict
          report={report}
          onShowFinding={show}
          onShow={(index) => {
            const { note, part: name, pass: number } = report.unrolled.notes[index]!;
            dispatch(passShown({ part: name, pass: number }));
            dispatch(selected({ anchor: note.id, focus: note.id }));
          }}
        />
        {notes.length === 0 && !entry && (
          <p className="flex flex-wrap items-center gap-3 py-3">
            <span className="text-muted">This tune has no notes yet.</span>
            <Button look="main" onClick={() => beginEntering('calls')}>
              Enter notes
            </Button>
          </p>
        )}
        {entry && <EntryField entry={entry} onKey={pressKey} onPaste={pasteText} onEnd={endEntering} />}
        <ScoreView
          report={report}
          states={previewStates ?? states}
          isPreview={previewStates !== null}
          selection={selection}
          view={view}
          onPick={pick}
          onPickWhole={pickWhole}
          margin={(line) => <Margin findings={ofLine(line)} onShow={show} onMend={mend} onPreview={preview} />}
          caret={
            entry && {
              id: entry.caret,
              overwrite: entry.overwrite,
              pencil: entry.way === 'staff' ? entry.pencil : null,
            }
          }
          onStaff={entry?.way === 'staff' ? putOnStaff : null}
          over={<PlayMark player={listening.player} state={listening.state} onPass={hearPass} />}
          onBowLength={pullStroke}
          onPaintDrones={paintDrones}
          card={
            entry ? (
              <EntryStrip entry={entry} onKey={pressKey} onWay={changeWay} onEnd={endEntering} />
            ) : (
              <Card
                tune={tune}
                ids={ids}
                states={states}
                barWords={where}
                onGesture={gesture}
                onLock={lock}
                pass={pass}
                thisPassOnly={thisPassOnly}
                onThisPassOnly={setThisPassOnly}
                loop={loopWords(report, states, ids)}
              />
            )
          }
        />
      </main>
      <Foot
        report={report}
        player={
          <PlayControls
            listening={listening}
            report={report}
            spanFor={spanFor}
            beatWords={beatWords(report.settings.beat)}
          />
        }
        passInView={passInView}
        heardPass={listening.state.status === 'playing' ? heardPass : null}
        onPass={(name, number) => {
          showPass(name, number);
          const start = passStart(report, name, number);
          if (start !== null) listening.player.jump(start);
        }}
        onTempo={setTempo}
      />
      {file && <FileMessage id={open.id} format={file} onClose={closeFile} />}
      {shown && <OpenSheet sheet={shown} {...sheetProps} />}
      {open.save.kind === 'conflict' && (
        <ConflictSheet
          newer={open.save.newer}
          onSettle={(take) => dispatch(conflictSettled({ take, at: Date.now() }))}
        />
      )}
    </div>
  );
}

const FACT = 'rounded-sm decoration-soft underline-offset-3 hover:text-ink hover:underline';

/** Puts the keys on the note of the score that the tab key reaches. */
function focusScore(): void {
  document.querySelector<SVGElement>('[data-note][tabindex="0"]')?.focus({ preventScroll: true });
}

/** Gives the keys back to the field of entry, once what was pressed has taken the focus. */
function focusEntry(): void {
  requestAnimationFrame(() => document.querySelector<HTMLInputElement>('[data-entry-field]')?.focus());
}

/** `reel · D major · G3 D4 A4 E5`. */
function headFacts({ danceType, key, tuning }: Tune): string {
  return [danceType ?? 'no dance type', writtenKey(key), tuning.map(writtenPitch).join(' ')].join(' · ');
}

/** `AABB, 32 bars`. */
function formFacts({ tune, bars }: TuneReport): string {
  const form = tune.form.every((name) => name.length === 1) ? tune.form.join('') : tune.form.join(' ');
  return `${form}, ${bars} bar${bars === 1 ? '' : 's'}`;
}

function barWords({ unrolled }: TuneReport, ids: readonly string[]): string {
  const find = (id: string | undefined) => unrolled.notes.find((played) => id !== undefined && played.ids.includes(id));
  const first = find(ids[0]);
  const last = find(ids[ids.length - 1]);
  if (!first || !last) return 'nothing';
  const bar = (number: number) => (number === 0 ? 'pickup' : `bar ${number}`);
  if (first.part !== last.part) return `${first.part} ${bar(first.bar)} to ${last.part} ${bar(last.bar)}`;
  return first.bar === last.bar
    ? `${bar(first.bar)} of ${first.part}`
    : `bars ${first.bar}–${last.bar} of ${first.part}`;
}

/** What undo says of a mend. */
function mendLabel(chosen: Mend, finding: Finding): string {
  const place = chosen.place ?? finding.place;
  const bar = place.bar === 0 ? 'the pickup' : `bar ${place.bar}`;
  if (chosen.barId) return `draw the bar lines anew from ${bar}`;
  if (chosen.start) return `start on the ${chosen.start}-bow`;
  if (chosen.deed === 'slower') return `tempo ${Math.floor(chosen.ceilingBpm ?? 0)}`;
  if (chosen.deed === 'fit-last-note') return `last note made to fit in ${bar}`;
  if (chosen.deed === 'less-bow') return `less bow from ${bar}`;
  if (chosen.deed === 'accent') return `accent in ${bar}`;
  if (chosen.deed === 'hold-pair') return `stay on both strings from ${bar}`;
  if (chosen.deed === 'refinger') return `refinger in ${bar}`;
  if (chosen.deed === 'leave-off') return `ornament left off in ${bar}`;
  return `${chosen.deed} in ${bar}`;
}

function StartButton({ report, onClick }: { readonly report: TuneReport; readonly onClick: () => void }) {
  const { direction, because } = report.figures.start;
  const reason = { given: 'chosen', locked: 'locked', 'first-bar-down': 'so that bar 1 is a down-bow' }[because];
  return (
    <button
      type="button"
      onClick={onClick}
      title={`Starts on the ${direction}-bow (${reason}). Press to start on the other (B).`}
      className="flex h-9 items-center gap-1.5 rounded-md px-2 whitespace-nowrap text-muted hover:bg-band hover:text-ink"
    >
      <span className="max-sm:sr-only">starts</span> <BowSign direction={direction} />
      <span className="sr-only">{direction}-bow</span>
    </button>
  );
}
