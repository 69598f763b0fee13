import { useEffect, useMemo, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { ExportFormat } from '#contract/exports';
import { type Gesture, makeGesture, setLocks } from '#core/bowing';
import { barsOf } from '#core/editing';
import { reportTune } from '#core/report';
import { type Direction, type Tune, writtenNotes } from '#core/tune';
import { selectionWords } from '#words/selection';
import { onePassOf } from '../commands/bowCommands';
import type { Bench, Command } from '../commands/command';
import { type SheetName, SHEETS } from '../commands/sheetList';
import type { OpenTuneProps } from '../openTune/OpenTunePage';
import {
  copied,
  edited,
  entryBegan,
  passShown,
  redone,
  selectClipboard,
  selected,
  undone,
} from '../openTune/openTuneSlice';
import { selectedIds } from '../openTune/selection';
import type { SheetProps } from '../openTune/sheetProps';
import { useGoal } from '../openTune/useGoal';
import { practiceStep } from '../player/practiceTempo';
import { barsAround, spanOf } from '../player/spans';
import { tapTempo } from '../player/tapTempo';
import { type Listening, usePlayer } from '../player/usePlayer';
import { useAppDispatch, useAppSelector } from '../store/store';
import type { PanelName } from './ToolPanel';

/** What lies over the score: a window, the palette, a file being fetched. */
export interface BenchOver {
  readonly sheet: SheetName | null;
  readonly hasPalette: boolean;
  readonly file: ExportFormat | null;
}
const NOTHING: BenchOver = { sheet: null, hasPalette: false, file: null };

const GESTURE_WORDS: Readonly<Record<Gesture, string>> = {
  slur: 'slur',
  change: 'turn',
  hook: 'hook',
  retake: 'retake',
};

/** The bench as it stands, with all that can be done on it. */
export function useBench({ open, report, states }: OpenTuneProps): {
  readonly bench: Bench;
  readonly listening: Listening;
  readonly over: BenchOver;
  readonly closeOver: () => void;
  /** The tool beside the score; null: none, and findings stand beside their lines. */
  readonly panel: PanelName | null;
  readonly setPanel: (name: PanelName | null) => void;
  /** Plays the bars at hand of a tune as it would be. */
  readonly hear: SheetProps['onHear'];
} {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const clipboard = useAppSelector(selectClipboard);
  const listening = usePlayer(report, { tuneId: open.id });
  const [over, setOver] = useState(NOTHING);
  const [panel, setPanel] = useState<PanelName | null>(null);
  const [thisPassOnly, setThisPassOnly] = useState(false);
  const [lastMark, setLastMark] = useState<Command | null>(null);
  const [tap] = useState(tapTempo);
  const { tune, selection, passInView } = open;
  const notes = useMemo(() => writtenNotes(tune), [tune]);
  const ids = useMemo(() => selectedIds(notes, selection), [notes, selection]);
  const barIds = useMemo(() => [...barsOf(tune, new Set(ids))], [tune, ids]);
  const where = selectionWords(report, ids);
  const part =
    tune.parts.find(({ events }) => events.some(({ id }) => id === selection?.focus))?.name ?? tune.parts[0]!.name;

  // Another room led here for a note.
  const wanted = (useLocation().state as { readonly note?: string } | null)?.note;
  useEffect(() => {
    if (wanted !== undefined) dispatch(selected({ anchor: wanted, focus: wanted }));
  }, [wanted, dispatch]);

  const edit = (next: Tune, label: string) => {
    if (next !== tune) dispatch(edited({ tune: next, label }));
  };
  const goal = useGoal(tune);
  const bench: Bench = {
    open,
    tune,
    report,
    states,
    notes,
    ids,
    barIds,
    where,
    part,
    clipboard,
    passes: tune.form.filter((name) => name === part).length,
    thisPassOnly,
    lastMark,
    remember: setLastMark,
    edit,
    select: (next) => dispatch(selected(next)),
    copy: (fragment) => dispatch(copied(fragment)),
    gesture: (made) => {
      const onePass = onePassOf(bench);
      const next = makeGesture(tune, ids, made, onePass);
      if (next.parts.some((item, i) => item !== tune.parts[i]))
        edit(next, `${GESTURE_WORDS[made]} in ${where}${onePass ? `, ${part}${onePass} only` : ''}`);
    },
    lock: (direction: Direction | null) =>
      edit(
        setLocks(tune, ids, direction),
        direction ? `lock to the ${direction}-bow in ${where}` : `unlock in ${where}`,
      ),
    startOnOther: () => {
      const direction = report.figures.start.direction === 'down' ? 'up' : 'down';
      edit({ ...tune, start: direction }, `start on the ${direction}-bow`);
    },
    setThisPassOnly,
    showPass: (name, pass) => dispatch(passShown({ part: name, pass })),
    beginEntry: () => {
      const events = tune.parts.flatMap((item) => item.events);
      dispatch(entryBegan({ caret: ids.at(-1) ?? events.at(-1)!.id, way: 'calls' }));
    },
    undo: () => dispatch(undone()),
    redo: () => dispatch(redone()),
    showSheet: (sheet) => {
      if (SHEETS[sheet].tool === undefined) setOver({ ...NOTHING, sheet });
      else setPanel(sheet === panel ? null : sheet);
    },
    showFindings: () => setPanel(panel === 'findings' ? null : 'findings'),
    showPalette: () => setOver({ ...NOTHING, hasPalette: true }),
    keepFile: (file) => setOver({ ...NOTHING, file }),
    goTo: (path) => void navigate(path),
    play: () => listening.toggle(spanOf(report, ids, passInView, listening.settings.loop)),
    toggleLoop: () => listening.setSettings({ ...listening.settings, loop: !listening.settings.loop }),
    goal,
    stepPractice: (steps) => listening.setPractice(practiceStep(listening.practice, steps)),
    tapTempo: () => {
      const bpm = tap(performance.now());
      if (bpm !== null) goal.set(bpm);
    },
  };
  const hear: SheetProps['onHear'] = (next, byTurns = false) => {
    const heard = next === null ? report : reportTune(next, report.settings);
    const how = { ...listening.settings, loop: byTurns, answer: false, climb: 0, compare: null, countIn: 0 };
    const span = barsAround(heard, ids, passInView);
    void listening.player.play(heard, how, span, listening.practice, byTurns ? report : null);
  };
  return { bench, listening, over, closeOver: () => setOver(NOTHING), panel, setPanel, hear };
}
