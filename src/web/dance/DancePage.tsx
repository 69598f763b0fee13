import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { TuneReport } from '#core/report';
import { applyChanges, type Change, tightSpots } from '#core/standing';
import { beatWords } from '#words/tempo';
import { reportVerdict } from '#words/verdict';
import { ConflictSheet } from '../openTune/ConflictSheet';
import { Foot } from '../openTune/Foot';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { conflictSettled, edited, passShown, selected } from '../openTune/openTuneSlice';
import { OwnCeilingLine } from '../openTune/OwnCeilingLine';
import { RoomHeader } from '../openTune/RoomHeader';
import { Termed } from '../openTune/Termed';
import { useGoal } from '../openTune/useGoal';
import { type OwnTempo, useOwnCeiling } from '../openTune/useOwnCeiling';
import { useTuneUndoKeys } from '../openTune/useTuneUndoKeys';
import { PlayControls, PlayingWords } from '../player/PlayControls';
import { PracticeTempo } from '../player/PracticeTempo';
import { practiceStep } from '../player/practiceTempo';
import type { Span } from '../player/span';
import { passStart } from '../player/spans';
import { usePlayer } from '../player/usePlayer';
import { selectPlayer, selectWords } from '../store/selectSettings';
import { useAppDispatch, useAppSelector } from '../store/store';
import { isForPage, type PageKey, usePageKeys } from '../ui/usePageKeys';
import type { DanceRequest } from './danceProtocol';
import { GainsList } from './GainsList';
import { LiltChoice } from './LiltChoice';
import { StandForm } from './StandForm';
import { TightTable } from './TightTable';
import { TroubleChart } from './TroubleChart';
import { useGains } from './useDanceWorker';

/** Whether a tune stands up at tempo: ceiling and floor, what binds, what changes buy. */
export default function DancePage() {
  return <OpenTunePage page={Dance} />;
}

const TIGHTEST = 10;

function Dance({ open, report }: OpenTuneProps) {
  const dispatch = useAppDispatch();
  const { tune, passInView } = open;
  const player = useAppSelector(selectPlayer);
  const words = useAppSelector(selectWords);
  const listening = usePlayer(report, { tuneId: open.id });
  const [chosen, setChosen] = useState<number | null>(null);
  const [heardPass, setHeardPass] = useState<string | null>(null);
  const { settings, figures } = report;
  const beat = beatWords(settings.beat);
  const places = useMemo(() => tightSpots(report).slice(0, TIGHTEST), [report]);
  const request = useMemo((): DanceRequest => ({ tune, options: player }), [tune, player]);
  const gains = useGains(request, TIGHTEST);
  useHeardPass(listening, setHeardPass);

  const edit = useCallback(
    (next: typeof tune, label: string) => {
      if (next !== tune) dispatch(edited({ tune: next, label }));
    },
    [dispatch, tune],
  );
  const make = (changes: readonly Change[], label: string) => edit(applyChanges(tune, changes), label);
  const ownTempo = useOwnCeiling(report);
  const goal = useGoal(tune);
  const choose = (index: number) => {
    const { note, part, pass } = report.unrolled.notes[index]!;
    dispatch(passShown({ part, pass }));
    dispatch(selected({ anchor: note.id, focus: note.id }));
    setChosen(index);
  };
  const hear = (index: number) => {
    setChosen(index);
    const next = { ...listening.settings, loop: true };
    listening.setSettings(next);
    void listening.player.play(report, next, barAround(report, index));
  };
  const spanFor = () => (chosen !== null && report.unrolled.notes[chosen] ? barAround(report, chosen) : null);

  const onKey = (event: PageKey) => {
    const key = event.key.toLowerCase();
    if (event.defaultPrevented || !isForPage(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (key === ' ') listening.toggle(spanFor());
    else if (key === '[' || key === ']') listening.setPractice(practiceStep(listening.practice, key === ']' ? 1 : -1));
    else if (key === '{' || key === '}') goal.set(settings.bpm + (key === '}' ? 2 : -2));
    else if (key === 'x') listening.setSettings({ ...listening.settings, loop: !listening.settings.loop });
    else return;
    event.preventDefault();
  };

  usePageKeys(onKey);
  useTuneUndoKeys();

  return (
    <div className="flex h-full flex-col">
      <RoomHeader open={open} room="dance check" />
      <main className="min-h-0 flex-1 overflow-y-auto px-4 py-3 lg:px-5" tabIndex={-1}>
        <DanceVerdict report={report} ownTempo={ownTempo} />
        {figures.bowed.length === 0 ? (
          <p className="py-3 text-muted">
            This tune has no notes yet.{' '}
            <Link to={`/tunes/${open.id}`} className="text-woad underline">
              Enter some on the bench
            </Link>
          </p>
        ) : (
          <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
            <div className="flex min-w-0 flex-col gap-5">
              <section aria-labelledby="trouble">
                <h2 id="trouble" className="mb-1 text-xl">
                  Trouble against tempo
                </h2>
                <TroubleChart report={report} band={report.band} own={ownTempo.own} beatWords={beat} />
              </section>
              <section aria-labelledby="tightest">
                <h2 id="tightest" className="mb-1 text-xl">
                  Where it is tightest
                </h2>
                <TightTable
                  report={report}
                  tuneId={open.id}
                  places={places}
                  chosen={chosen}
                  onChoose={choose}
                  onHear={hear}
                />
              </section>
            </div>
            <div className="flex min-w-0 flex-col gap-5">
              <section aria-labelledby="stand">
                <h2 id="stand" className="mb-1 text-xl">
                  Make it hold
                </h2>
                <StandForm report={report} request={request} words={words} beatWords={beat} onMake={make} />
              </section>
              <section aria-labelledby="gains">
                <h2 id="gains" className="mb-1 text-xl">
                  What one change buys
                </h2>
                <GainsList report={report} gains={gains} words={words} onMake={make} />
              </section>
              <section aria-labelledby="lilt">
                <h2 id="lilt" className="mb-1 text-xl">
                  How it is danced
                </h2>
                <LiltChoice report={report} onLilt={(lilt) => edit({ ...tune, lilt }, `lilt ${lilt ?? 'straight'}`)} />
              </section>
            </div>
          </div>
        )}
      </main>
      <Foot
        report={report}
        player={
          <>
            <PlayControls
              listening={listening}
              report={report}
              spanFor={spanFor}
              looped={chosen === null ? 'the whole tune' : 'the bar of the place you picked'}
            />
            <PracticeTempo listening={listening} goalBpm={settings.bpm} beatWords={beat} />
          </>
        }
        playing={listening.state.status === 'idle' ? null : <PlayingWords listening={listening} beatWords={beat} />}
        passInView={passInView}
        heardPass={listening.state.status === 'playing' ? heardPass : null}
        onPass={(part, pass) => {
          dispatch(passShown({ part, pass }));
          const start = passStart(report, part, pass);
          if (start !== null) listening.player.jump(start);
        }}
        goal={goal}
      />
      {open.save.kind === 'conflict' && (
        <ConflictSheet
          newer={open.save.newer}
          onSettle={(take) => dispatch(conflictSettled({ take, at: Date.now() }))}
        />
      )}
    </div>
  );
}

/** A lowest tempo is told where it is not far below what is wanted: nobody plays a reel at 20. */
const TOLD_FLOOR_SHARE = 0.5;

/** The one loud sentence: whether it comes round and holds. */
function DanceVerdict({ report, ownTempo }: { readonly report: TuneReport; readonly ownTempo: OwnTempo }) {
  const { settings, figures } = report;
  const { kind, words } = reportVerdict(report);
  const { floor } = figures.check;
  return (
    <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-0.5" aria-live="polite">
      <h2
        className={`text-sheet leading-tight ${kind === 'good' ? 'text-lichen-ink' : 'text-madder'}`}
        data-verdict={kind}
      >
        <Termed>{words}</Termed>
      </h2>
      <p className="text-muted">
        you want <b className="text-ink">{Math.round(settings.bpm)}</b> {beatWords(settings.beat)} a minute
        {floor && floor.bpm >= TOLD_FLOOR_SHARE * settings.bpm && (
          <>
            ; below <b className="text-ink">{Math.ceil(floor.bpm)}</b> a stroke runs out of bow
          </>
        )}
      </p>
      <OwnCeilingLine {...ownTempo} />
    </div>
  );
}

/** The bar of a played note, from its first note to its last. */
function barAround({ unrolled: { notes } }: TuneReport, index: number): Span {
  const here = notes[index]!;
  const isIn = (at: number) => notes[at]?.passIndex === here.passIndex && notes[at].bar === here.bar;
  let [from, to] = [index, index + 1];
  while (isIn(from - 1)) from -= 1;
  while (isIn(to)) to += 1;
  // The event lies between the bar's first note and the one before it.
  return { from: index === from && from > 0 ? from - 1 : from, to };
}

/** Which pass is heard, looked at a few times a second. */
function useHeardPass({ player, state }: ReturnType<typeof usePlayer>, onPass: (pass: string | null) => void): void {
  useEffect(() => {
    if (state.status !== 'playing') return;
    const timer = setInterval(() => {
      const index = player.where()?.index;
      const note = index == null ? undefined : player.sounds?.unrolled.notes[index];
      onPass(note ? `${note.part}${note.pass}` : null);
    }, 150);
    return () => clearInterval(timer);
  }, [player, state.status, onPass]);
}
