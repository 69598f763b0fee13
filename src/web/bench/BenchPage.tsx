import { useCallback, useMemo, useState } from 'react';
import type { Finding } from '#core/report';
import type { Tune } from '#core/tune';
import { loopWords } from '#words/loop';
import { beatWords } from '#words/tempo';
import type { Bench as BenchState } from '../commands/command';
import { SHEETS } from '../commands/sheetList';
import { useKnownTunings } from '../crossTuning/useKnownTunings';
import { EntryField } from '../entry/EntryField';
import { EntryStrip } from '../entry/EntryStrip';
import { ConflictSheet } from '../openTune/ConflictSheet';
import { Foot } from '../openTune/Foot';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { conflictSettled, passShown, selected } from '../openTune/openTuneSlice';
import type { SheetProps } from '../openTune/sheetProps';
import { useOwnCeiling } from '../openTune/useOwnCeiling';
import { PlayControls, PlayingWords } from '../player/PlayControls';
import { PlayMark } from '../player/PlayMark';
import { PracticeTempo } from '../player/PracticeTempo';
import { loopedWords, passStart, spanOf } from '../player/spans';
import type { Listening } from '../player/usePlayer';
import type { LineSpec } from '../score/lines';
import { selectSettings } from '../store/selectSettings';
import { useAppDispatch, useAppSelector } from '../store/store';
import type { KeptTake } from '../takes/keptTakes';
import { useShownTake } from '../takes/shownTake';
import { TakeFindings } from '../takes/TakeFindings';
import { takeMarks } from '../takes/takeMarks';
import { TakePlayMark } from '../takes/TakePlayMark';
import { Button } from '../ui/Button';
import { useMedia } from '../ui/useMedia';
import { BenchHeader } from './BenchHeader';
import { Card } from './Card';
import { CommandPalette } from './CommandPalette';
import { FileMessage } from './FileMessage';
import { Margin } from './Margin';
import { ScoreView } from './ScoreView';
import { OpenSheet } from './sheets';
import { ToolPanel } from './ToolPanel';
import { type BenchOver, useBench } from './useBench';
import { useBenchKeys } from './useBenchKeys';
import { type EntryDeeds, useEntry } from './useEntry';
import { useLoopedStates } from './useLoopedStates';
import { useMends } from './useMends';
import { usePreviewedPlan } from './usePreviewedPlan';
import { useScoreDeeds } from './useScoreDeeds';
import { Verdict } from './Verdict';
import { readView, staffOnly, type View, writeView } from './view';

/** The bench of the tune of the address. */
export function BenchPage() {
  return <OpenTunePage page={Bench} />;
}

function Bench(props: OpenTuneProps) {
  const { open, report, states } = props;
  const dispatch = useAppDispatch();
  const { bench, listening, over, closeOver, panel, setPanel, hear } = useBench(props);
  const entering = useEntry(open.entry, report.settings.schools.bareFinger);
  const { pick, pickWhole, pullStroke, paintDrones } = useScoreDeeds();
  const { previewed, preview } = usePreviewedPlan({ report, states, passInView: open.passInView });
  const mends = useMends(bench, preview);
  const { settings } = useAppSelector(selectSettings);
  const tunings = useKnownTunings();
  useBenchKeys(bench, entering, over.sheet !== null || over.hasPalette);
  const [view, setView] = useState(readView);
  const isNarrow = useMedia('(max-width: 767px)');
  const showView = (next: View) => {
    writeView(next);
    setView(next);
  };
  const [heardPass, setHeardPass] = useState<string | null>(null);
  const hearPass = useCallback(
    (part: string, pass: number) => {
      setHeardPass(`${part}${pass}`);
      dispatch(passShown({ part, pass }));
    },
    [dispatch],
  );
  const { tune, notes } = bench;
  const looped = useLoopedStates(bench, listening);
  const { entry, selection } = open;
  const ownTempo = useOwnCeiling(report);
  const { take } = useShownTake(open.id);
  const { passInView } = open;
  const marks = useMemo(() => take && takeMarks(report, take, passInView), [report, take, passInView]);

  return (
    <div className="group/bench flex h-full flex-col" data-tool={panel ?? undefined}>
      <NameBesideTool title={tune.title} hasTool={panel !== null} />
      <BenchHeader bench={bench} view={view} onView={showView} onEndEntry={entering.end} />
      <div className="flex min-h-0 flex-1 max-md:flex-col">
        <main className="min-h-0 min-w-0 flex-1 overflow-x-hidden overflow-y-auto px-4 lg:px-5">
          <Verdict
            report={report}
            isEntering={entry !== null}
            preview={previewed?.report ?? null}
            ownTempo={ownTempo}
            onShowFinding={mends.show}
            onShow={(index) => {
              const { note, part: name, pass } = report.unrolled.notes[index]!;
              dispatch(passShown({ part: name, pass }));
              dispatch(selected({ anchor: note.id, focus: note.id }));
            }}
          />
          {notes.length === 0 && !entry && (
            <p className="flex flex-wrap items-center gap-3 py-3">
              <span className="text-muted">This tune has no notes yet.</span>
              <Button look="main" onClick={bench.beginEntry}>
                Enter notes
              </Button>
            </p>
          )}
          {entry && (
            <EntryField entry={entry} onKey={entering.pressKey} onPaste={entering.pasteText} onEnd={entering.end} />
          )}
          <ScoreView
            report={previewed?.report ?? report}
            states={previewed?.states ?? looped}
            changes={previewed?.changes ?? null}
            selection={selection}
            view={panel !== null && isNarrow ? staffOnly(view) : view}
            onPick={pick}
            onPickWhole={pickWhole}
            hasMargin={panel === null}
            margin={(line) => (
              <div>
                <TakeBeside bench={bench} line={line} take={take} />
                <Margin
                  findings={findingsOf(bench, line)}
                  ids={bench.ids}
                  tuning={tune.tuning}
                  onShow={mends.show}
                  onMend={mends.make}
                  onPreview={mends.preview}
                />
              </div>
            )}
            caret={
              entry && {
                id: entry.caret,
                overwrite: entry.overwrite,
                pencil: entry.way === 'staff' ? entry.pencil : null,
              }
            }
            onStaff={entry?.way === 'staff' ? entering.putOnStaff : null}
            take={marks}
            over={
              <>
                <PlayMark player={listening.player} state={listening.state} onPass={hearPass} />
                <TakePlayMark tuneId={open.id} report={report} onPass={hearPass} />
              </>
            }
            onBowLength={pullStroke}
            onPaintDrones={paintDrones}
            card={entry || !(isNarrow && panel !== null) ? <AtHand bench={bench} entering={entering} /> : null}
          />
        </main>
        {panel !== null && (
          <ToolPanel
            bench={bench}
            name={panel}
            onName={setPanel}
            onPreview={preview}
            onHear={hear}
            settings={settings}
            tunings={tunings}
            findings={
              <Margin
                findings={report.findings}
                ids={bench.ids}
                tuning={tune.tuning}
                isWhole
                onShow={mends.show}
                onMend={mends.make}
                onPreview={mends.preview}
              />
            }
          />
        )}
      </div>
      <BenchFoot bench={bench} listening={listening} heardPass={heardPass} />
      <Over bench={bench} over={over} settings={settings} tunings={tunings} onClose={closeOver} />
      {open.save.kind === 'conflict' && (
        <ConflictSheet
          newer={open.save.newer}
          onSettle={(take) => dispatch(conflictSettled({ take, at: Date.now() }))}
        />
      )}
    </div>
  );
}

/** What went wrong in the take that is shown, beside the line where it did. */
function TakeBeside({
  bench,
  line,
  take,
}: {
  readonly bench: BenchState;
  readonly line: LineSpec;
  readonly take: KeptTake | null;
}) {
  const { report, open } = bench;
  if (!take) return null;
  const isHere = ({ notes: [index] }: KeptTake['result']['findings'][number]) => {
    const played = report.unrolled.notes[index!];
    return (
      played?.pass === (open.passInView[played?.part ?? ''] ?? 1) &&
      line.bars.some(({ events }) => events.some(({ id }) => id === played.note.id))
    );
  };
  const findings = take.result.findings.filter(isHere);
  if (findings.length === 0) return null;
  return (
    <div role="group" aria-label="From the take" className="mb-3 border-line lg:border-l lg:pl-4">
      <TakeFindings
        findings={findings}
        report={report}
        tuneId={open.id}
        onShow={([id]) => bench.select({ anchor: id!, focus: id! })}
      />
    </div>
  );
}

/** Under the line at hand: the strip of entry, or facts and gestures of the selection. */
function AtHand({ bench, entering }: { readonly bench: BenchState; readonly entering: EntryDeeds }) {
  const { open, report, states, ids, part, passes } = bench;
  if (open.entry)
    return <EntryStrip entry={open.entry} onKey={entering.pressKey} onWay={entering.changeWay} onEnd={entering.end} />;
  return (
    <Card
      bench={bench}
      pass={passes > 1 ? { part, pass: open.passInView[part] ?? 1 } : null}
      loop={loopWords(report, states, ids)}
    />
  );
}

interface BenchFootProps {
  readonly bench: BenchState;
  readonly listening: Listening;
  readonly heardPass: string | null;
}

/** The foot of the bench: what is heard, the passes, the goal. */
function BenchFoot({ bench, listening, heardPass }: BenchFootProps) {
  const { report, ids } = bench;
  const { passInView } = bench.open;
  const beats = beatWords(report.settings.beat);
  return (
    <Foot
      report={report}
      player={
        <>
          <PlayControls
            listening={listening}
            report={report}
            spanFor={(loops) => spanOf(report, ids, passInView, loops)}
            looped={loopedWords(report, ids, passInView)}
          />
          <PracticeTempo listening={listening} goalBpm={report.settings.bpm} beatWords={beats} />
        </>
      }
      playing={listening.state.status === 'idle' ? null : <PlayingWords listening={listening} beatWords={beats} />}
      passInView={passInView}
      heardPass={listening.state.status === 'playing' ? heardPass : null}
      onPass={(name, pass) => {
        bench.showPass(name, pass);
        const start = passStart(report, name, pass);
        if (start !== null) listening.player.jump(start);
      }}
      goal={bench.goal}
    />
  );
}

interface OverProps {
  readonly bench: BenchState;
  readonly over: BenchOver;
  readonly settings: SheetProps['settings'];
  readonly tunings: SheetProps['tunings'];
  readonly onClose: () => void;
}

/** What lies over the score. */
function Over({ bench, over: { sheet, hasPalette, file }, settings, tunings, onClose }: OverProps) {
  const { open, tune, report, states, ids, barIds, where, part, edit } = bench;
  if (hasPalette) return <CommandPalette bench={bench} onClose={onClose} />;
  if (file) return <FileMessage id={open.id} format={file} onClose={onClose} />;
  if (!sheet || !SHEETS[sheet].applies(bench)) return null;
  const props: SheetProps = {
    id: open.id,
    tune,
    report,
    states,
    ids,
    barIds,
    where,
    part,
    settings,
    tunings,
    onEdit: edit,
    onPreview: () => undefined,
    onHear: () => undefined,
    onApply: (next, label) => {
      edit(next, label);
      onClose();
    },
    onShow: (chosen) => {
      bench.select({ anchor: chosen[0]!, focus: chosen[chosen.length - 1]! });
      onClose();
    },
    onClose,
  };
  return <OpenSheet sheet={sheet} {...props} />;
}

/** Findings whose first note stands on a line of the score; of a part that is being entered none are told yet. */
function findingsOf({ report, tune, open: { entry } }: BenchState, { bars, part }: LineSpec): readonly Finding[] {
  if (entry && partOf(tune, entry.caret) === part) return [];
  return report.findings.filter(({ ids: [first] }) => bars.some(({ events }) => events.some(({ id }) => id === first)));
}

function partOf({ parts }: Tune, id: string): string | null {
  return parts.find(({ events }) => events.some((event) => event.id === id))?.name ?? null;
}

/** Beside a tool a phone has no room for the header; the page keeps its name. */
function NameBesideTool({ title, hasTool }: { readonly title: string; readonly hasTool: boolean }) {
  const isNarrow = useMedia('(max-width: 767px)');
  return isNarrow && hasTool ? <h1 className="sr-only">{title}</h1> : null;
}
