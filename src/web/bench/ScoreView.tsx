import { type ReactNode, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { neighbourAngle } from '#core/crossing';
import type { NoteState } from '#core/noteStates';
import type { TuneReport } from '#core/report';
import { writtenNotes } from '#core/tune';
import type { Selection } from '../openTune/openTuneSlice';
import { selectedIds } from '../openTune/selection';
import type { PaintedDrones } from '../score/ArmPaint';
import { barsThatFit, CALL_ROOM, NOTE_ROOM } from '../score/barsThatFit';
import type { NoteChange } from '../score/changedNotes';
import { droneHeads } from '../score/droneHeads';
import type { CaretSpot } from '../score/EntryCaret';
import type { LaneSettings } from '../score/Lanes';
import { lineKeeper, type LineSpec, scoreLines } from '../score/lines';
import { lineStatesKeeper } from '../score/lineStates';
import { ScoreLine, type ScoreLineProps } from '../score/ScoreLine';
import type { TakeMark } from '../score/TakeTracks';
import { useEngravingFonts } from '../score/useEngravingFonts';
import type { View } from './view';

interface ScoreViewProps {
  readonly report: TuneReport;
  readonly states: ReadonlyMap<string, NoteState>;
  /** What a plan that is only looked at changes; null: this is the plan. */
  readonly changes: ReadonlyMap<string, NoteChange> | null;
  /** Findings stand beside their lines. */
  readonly hasMargin: boolean;
  readonly selection: Selection | null;
  readonly view: View;
  readonly onPick: (id: string, extend: boolean) => void;
  readonly onPickWhole: ScoreLineProps['onPickWhole'];
  /** What stands beside a line, and what belongs under its notes. */
  readonly margin: (line: LineSpec) => ReactNode;
  readonly card: ReactNode;
  /** A take under the lines; null: none is shown. */
  readonly take: ReadonlyMap<string, TakeMark> | null;
  /** Lies over the score. */
  readonly over: ReactNode;
  readonly caret: CaretSpot | null;
  readonly onStaff: ((id: string, step: number) => void) | null;
  readonly onBowLength: (head: string, ratio: number) => void;
  readonly onPaintDrones: (drones: PaintedDrones) => void;
}

/** Tunes of more lines than this draw only what is near the view. */
const ALL_LINES_UP_TO = 40;

/** The score with its lanes, line by line, each with its margin. */
export function ScoreView(props: ScoreViewProps) {
  const { report, states, changes, hasMargin, selection, view, onPick, onPickWhole, margin, card, caret, onStaff } =
    props;
  const { onBowLength, onPaintDrones } = props;
  const root = useRef<HTMLDivElement>(null);
  const column = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const ready = useEngravingFonts();
  useLayoutEffect(() => {
    const element = column.current!;
    const measure = () => setWidth(Math.floor((element.clientWidth * 100) / view.zoom));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [view.zoom]);

  const { tune } = report;
  const [keep] = useState(lineKeeper);
  const lines = useMemo(
    () =>
      keep(
        scoreLines(
          tune,
          view.barsPerLine ?? barsThatFit(tune, width, view.calls ? CALL_ROOM : NOTE_ROOM),
          droneHeads(tune, report.fingers),
        ),
      ),
    [tune, report.fingers, width, view.barsPerLine, view.calls, keep],
  );
  const notes = useMemo(() => writtenNotes(tune), [tune]);
  const chosen = useMemo(() => selectedIds(notes, selection), [notes, selection]);
  // Bow signs are right everywhere at once; lanes and spoken notes of lines far out of view follow a moment later.
  const lateStates = useDeferredValue(states);
  const [onLineNow] = useState(lineStatesKeeper);
  const [onLineLate] = useState(lineStatesKeeper);

  const { instrument } = report.settings;
  const { fingers, calls, letters, bow, arm, room, otherPasses } = view;
  const lanes: LaneSettings = useMemo(
    () => ({
      fingers,
      calls,
      letters,
      bow,
      arm,
      room,
      otherPasses,
      hair: {
        hairCm: instrument.hairCm,
        windowLowCm: instrument.sweetSpotCm - instrument.windowHalfCm,
        windowHighCm: instrument.sweetSpotCm + instrument.windowHalfCm,
      },
      neighbourAngle: neighbourAngle(instrument),
      marginDegrees: instrument.marginDegrees,
      tuning: tune.tuning,
    }),
    [tune.tuning, fingers, calls, letters, bow, arm, room, otherPasses, instrument],
  );

  const isLong = lines.length > ALL_LINES_UP_TO;
  const focusId = selection?.focus ?? null;
  const tabStop = focusId ?? notes[0]?.id ?? null;
  useEffect(() => {
    if (focusId === null) return;
    const target = root.current?.querySelector<SVGElement>(`[data-note="${focusId}"]`);
    if (!target) return;
    // Follow with the focus only while it is in the score: a click on a mend must not take it away.
    if (document.activeElement?.closest('[data-score]')) target.focus({ preventScroll: true });
    target.closest('[data-line]')?.scrollIntoView({ block: 'nearest' });
  }, [focusId]);
  const caretId = caret?.id ?? null;
  useEffect(() => {
    if (caretId === null) return;
    const mark = root.current?.querySelector(`[data-caret="${caretId}"]`);
    mark?.closest('[data-line]')?.scrollIntoView({ block: 'nearest' });
  }, [caretId, lines]);

  return (
    <div data-score ref={root} className="relative" data-preview={changes !== null || undefined}>
      <div
        ref={column}
        className={`pointer-events-none absolute inset-y-0 left-0 w-full ${hasMargin ? 'lg:w-[calc(100%-19rem)]' : ''}`}
      />
      {!ready || width === 0 ? (
        <p className="py-10 text-muted">Engraving …</p>
      ) : (
        lines.map(({ line, key }) => {
          const onLine = chosen.filter((id) => line.bars.some((bar) => bar.events.some((event) => event.id === id)));
          const statesNow = onLineNow(line, states);
          const hasTabStop = line.bars.some((bar) => bar.events.some((event) => event.id === tabStop));
          const hasCaret =
            caret !== null &&
            line.bars.some((bar) => bar.id === caret.id || bar.events.some(({ id }) => id === caret.id));
          const hasFocus = hasCaret || (focusId !== null && onLine.includes(focusId));
          return (
            <NearView
              key={line.id}
              always={!isLong || hasFocus}
              className={hasMargin ? 'lg:grid lg:grid-cols-[minmax(0,1fr)_18rem] lg:gap-4' : ''}
            >
              {(isNear) => (
                <>
                  <div style={{ zoom: view.zoom / 100 }}>
                    <ScoreLine
                      line={line}
                      lineKey={key}
                      width={width}
                      states={statesNow}
                      detailStates={isNear || hasFocus ? statesNow : onLineLate(line, lateStates)}
                      lanes={lanes}
                      changes={changes}
                      selectedIds={onLine.length > 0 ? onLine : null}
                      tabStopId={hasTabStop ? tabStop : null}
                      tuning={tune.tuning}
                      onPick={onPick}
                      onPickWhole={onPickWhole}
                      caret={hasCaret ? caret : null}
                      onStaff={onStaff}
                      onBowLength={caret === null && isNear ? onBowLength : null}
                      onPaintDrones={caret === null && isNear ? onPaintDrones : null}
                      card={hasFocus ? card : null}
                      take={props.take}
                    />
                  </div>
                  {hasMargin && margin(line)}
                </>
              )}
            </NearView>
          );
        })
      )}
      {props.over}
    </div>
  );
}

/** Height kept for a line that is not drawn yet. */
const LINE_HEIGHT_GUESS = 330;

/** How far beyond the view a line counts as near it. */
const NEAR = '500px 0px';

/** Draws its children once they come near the view, from then on for good, and tells them whether they are near. */
function NearView(props: {
  readonly always: boolean;
  readonly className: string;
  readonly children: (isNear: boolean) => ReactNode;
}) {
  const { always, className, children } = props;
  const place = useRef<HTMLDivElement>(null);
  const [isNear, setNear] = useState(false);
  const [wasNear, setWasNear] = useState(false);
  const isShown = always || wasNear;
  useEffect(() => {
    const observer = new IntersectionObserver(
      ([entry]) => {
        setNear(entry!.isIntersecting);
        if (entry!.isIntersecting) setWasNear(true);
      },
      { rootMargin: NEAR },
    );
    observer.observe(place.current!);
    return () => observer.disconnect();
  }, []);
  return (
    <div ref={place} className={className} style={isShown ? undefined : { minHeight: LINE_HEIGHT_GUESS }}>
      {isShown && children(isNear)}
    </div>
  );
}
