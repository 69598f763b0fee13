import { memo, type ReactNode, useMemo, useState } from 'react';
import type { NoteState } from '#core/noteStates';
import type { Tuning } from '#core/tuning';
import { spokenNote } from '#words/note';
import { measured } from '../ui/measured';
import { dot, outline } from '../ui/paths';
import { bowSignPath } from '../ui/signs';
import { ArmPaint, type PaintedDrones } from './ArmPaint';
import type { NoteChange } from './changedNotes';
import { type CaretSpot, caretX, EntryCaret, stepAt } from './EntryCaret';
import type { LineGeometry, NoteBox } from './geometry';
import { STAFF_TOP } from './geometry';
import { LANES } from './lanePaths';
import { Lanes, type LaneSettings, lanesHeight } from './Lanes';
import type { LineSpec } from './lines';
import { markPath } from './markPaths';
import { layOutSigns, type LineSigns, OTHER_SIGN_STEP, signsKey } from './signs';
import { type DrawnLine, StaffDrawing } from './StaffDrawing';
import { StrokeEnds } from './StrokeEnds';
import { TAKE_HEIGHT, type TakeMark, TakeTracks } from './TakeTracks';
import { rowPlaces, rowsShown, TextRow } from './TextRows';

export interface ScoreLineProps {
  readonly line: LineSpec;
  readonly lineKey: string;
  readonly width: number;
  readonly states: ReadonlyMap<string, NoteState>;
  /** The same for lanes and spoken notes; on a line out of view they may be a moment older. */
  readonly detailStates: ReadonlyMap<string, NoteState>;
  readonly lanes: LaneSettings;
  /** Notes that a change which is only looked at shows otherwise; null: nothing is looked at. */
  readonly changes?: ReadonlyMap<string, NoteChange> | null;
  /** Ids selected on this line, in order; null where none is. */
  readonly selectedIds: readonly string[] | null;
  /** The note that the tab key reaches on this line. */
  readonly tabStopId: string | null;
  /** Names the strings in what is said of a note. */
  readonly tuning: Tuning;
  readonly onPick: (id: string, extend: boolean) => void;
  /** Chooses a whole bar, or a whole part. */
  readonly onPickWhole: (what: { readonly bar: string } | { readonly part: string }) => void;
  /** Shown while notes are entered on this line. */
  readonly caret: CaretSpot | null;
  /** A press on the staff while notes are put there: the event to the left, and the height in letter names from C0. */
  readonly onStaff: ((id: string, step: number) => void) | null;
  /** Wishes the stroke that begins with a note so many times its own length; null where nothing can be pulled. */
  readonly onBowLength: ((head: string, ratio: number) => void) | null;
  /** Sets open strings that sound along; null where nothing can be painted. */
  readonly onPaintDrones: ((drones: PaintedDrones) => void) | null;
  /** Facts and gestures of the selection, shown under its notes where its focus lies on this line. */
  readonly card: ReactNode;
  /** A take of the tune under the line, by written notes; null or left out: none. */
  readonly take?: ReadonlyMap<string, TakeMark> | null;
  /** On paper: nothing can be chosen, and no room is kept for what comes with a choice. */
  readonly isStill?: boolean;
}

/** Room kept over the ink for signs that later edits may need, so that lines do not jump. */
const SIGN_RESERVE = 32;
/** On narrower lines bow signs stand in one row. */
const ROW_OF_BOWS_UNDER = 480;
/** Between two lines. */
const LINE_GAP = 10;
/** From the lowest sign to the baseline of the fingers. */
const FINGER_GAP = 13;

/** One line of the score: staff, signs and lanes on one x. */
export const ScoreLine = memo(function ScoreLine(props: ScoreLineProps) {
  const [drawn, setDrawn] = useState<DrawnLine | null>(null);
  const geometry = drawn?.geometry ?? null;
  // Until a changed line is drawn anew, which is before it is shown, all stays with the line that the drawing shows.
  const isDrawn = geometry === null || (drawn!.key === props.lineKey && geometry.width === props.width);
  const [hold] = useState(holder<ScoreLineProps>);
  // What can be pulled is there once the pointer is on the line: else every edit would draw it anew on every line.
  const [isOver, setOver] = useState(false);
  const shown = hold(props, isDrawn);
  const { line, width, states, lanes, selectedIds, caret, card } = shown;
  const options = { showsOther: lanes.otherPasses, inRow: width < ROW_OF_BOWS_UNDER };
  const layoutKey = geometry && signsKey(geometry, states, options);
  const signs = useMemo(
    () => geometry && measured('signs', () => layOutSigns(line, geometry, states, options)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for what the layout asks of the states
    [line, geometry, layoutKey],
  );
  const room = roomOf(shown, geometry, signs);
  const height = room.lanesTop + lanesHeight(lanes) + (shown.take ? TAKE_HEIGHT : 0);

  return (
    // Lines out of view cost no layout; their size is known, so nothing jumps when they come near.
    <div
      // The card may need a second row and then lies over what is below: nothing of it may be cut off.
      className={`relative flow-root md:scroll-mt-12 ${card === null ? '[content-visibility:auto]' : 'z-10'}`}
      // A line's last bar line stands on its edge.
      style={{ minHeight: height + LINE_GAP, width: width + 2, containIntrinsicHeight: `${height + LINE_GAP}px` }}
      data-line={line.id}
      // A page may open under a pointer at rest, which never enters.
      onPointerOver={() => setOver(true)}
      onPointerLeave={() => setOver(false)}
    >
      <div className="absolute left-0" style={{ top: -room.top }}>
        <StaffDrawing line={props.line} lineKey={props.lineKey} width={props.width} onDrawn={setDrawn} />
      </div>
      {geometry && signs && (
        <svg
          width={width}
          height={height}
          viewBox={`0 ${room.top} ${width} ${height}`}
          className="absolute top-0 left-0 overflow-visible"
          data-layer="signs"
        >
          <LineLayers shown={shown} {...{ geometry, signs, room, height, isOver }} />
        </svg>
      )}
      {geometry && card !== null && (
        <CardPlace geometry={geometry} x={cardX(geometry, selectedIds ?? [], caret)} top={height + 3}>
          {card}
        </CardPlace>
      )}
    </div>
  );
});

/** Where the rows under the staff of a line begin. */
interface LineRoom {
  readonly top: number;
  readonly fingerY: number;
  /** Baselines of the rows under the staff, from the first one's. */
  readonly rows: readonly number[];
  readonly lanesTop: number;
}

function roomOf(
  { line, lanes, isStill = false }: ScoreLineProps,
  geometry: LineGeometry | null,
  signs: LineSigns | null,
): LineRoom {
  const frame = geometry && frameOf(line, geometry);
  const top = frame?.top ?? STAFF_TOP - 60;
  const rowY = Math.max(frame?.fingerY ?? STAFF_TOP + 60, (signs?.bottom ?? 0) + FINGER_GAP);
  const rows = rowPlaces(rowsShown(lanes, isStill), hasBeside(signs));
  const fingerY = rowY - (rows.ys.length > 0 ? 0 : 14);
  return { top, fingerY, rows: rows.ys, lanesTop: fingerY - top + 8 + rows.below };
}

/** Whether a second note's finger stands under a first one's. */
function hasBeside(signs: LineSigns | null): boolean {
  return signs?.fingers.some(({ beside }) => beside !== '') ?? false;
}

interface LineLayersProps {
  readonly shown: ScoreLineProps;
  readonly geometry: LineGeometry;
  readonly signs: LineSigns;
  readonly room: LineRoom;
  readonly height: number;
  /** The pointer is on the line. */
  readonly isOver: boolean;
}

/** Everything over and under the staff, from what is only shown to what can be pressed. */
function LineLayers({ shown, geometry, signs, room, height, isOver }: LineLayersProps) {
  const { line, states, detailStates, lanes, selectedIds, caret, onPick, onPickWhole, isStill = false } = shown;
  const { top, fingerY, lanesTop } = room;
  return (
    <>
      <LineHeading line={line} y={geometry.staffTop - 17} onPickWhole={onPickWhole} />
      <Tuplets geometry={geometry} />
      {shown.changes && <ChangedColumns geometry={geometry} changes={shown.changes} top={top + 2} />}
      <BowSigns bows={signs.bows} states={states} showsOther={lanes.otherPasses} changes={shown.changes ?? null} />
      <Signs signs={signs} />
      {rowsShown(lanes, isStill).map((row, i) => (
        <TextRow key={row.name} row={row} fingers={signs.fingers} y={fingerY + room.rows[i]!} />
      ))}
      <Lanes geometry={geometry} states={detailStates} lanes={lanes} top={top + lanesTop} />
      {shown.take && <TakeTracks geometry={geometry} marks={shown.take} top={top + lanesTop + lanesHeight(lanes)} />}
      {selectedIds && <SelectionBox geometry={geometry} ids={selectedIds} top={top + 2} bottom={top + height} />}
      {isStill && geometry.notes.map(({ id, x }) => <g key={id} data-note={id} data-x={x} />)}
      {!isStill && (
        <NoteTargets
          line={line}
          geometry={geometry}
          top={top}
          height={height}
          selectedIds={selectedIds}
          tabStopId={shown.tabStopId}
          states={detailStates}
          tuning={shown.tuning}
          onPick={onPick}
          onPickWhole={onPickWhole}
        />
      )}
      {isOver && <LaneHandles shown={shown} geometry={geometry} top={top + lanesTop} />}
      {shown.onStaff && <StaffTarget geometry={geometry} top={top} onStaff={shown.onStaff} />}
      {caret && <EntryCaret geometry={geometry} caret={caret} />}
    </>
  );
}

/** What can be pulled and painted on the lanes. */
function LaneHandles({ shown, geometry, top }: Pick<LineLayersProps, 'shown' | 'geometry'> & { readonly top: number }) {
  const { detailStates, lanes, onBowLength, onPaintDrones, onPick } = shown;
  return (
    <>
      {onBowLength && lanes.bow && (
        <StrokeEnds
          geometry={geometry}
          states={detailStates}
          hair={lanes.hair}
          top={top}
          onBowLength={onBowLength}
          onPick={onPick}
        />
      )}
      {onPaintDrones && lanes.arm && (
        <ArmPaint
          geometry={geometry}
          states={detailStates}
          neighbourAngle={lanes.neighbourAngle}
          top={top + (lanes.bow ? LANES.bow.height + LANES.bow.gap : 0)}
          onPaint={onPaintDrones}
        />
      )}
    </>
  );
}

/** Gives what it is given, or what it gave last while that is still to stay. */
function holder<T>(): (value: T, isCurrent: boolean) => T {
  let held: T | null = null;
  return (value, isCurrent) => (isCurrent || held === null ? (held = value) : held);
}

/** Under the lanes at the selection: the line grows by it, and only while it is there. */
function CardPlace(props: {
  readonly geometry: LineGeometry;
  readonly x: number;
  readonly top: number;
  readonly children: ReactNode;
}) {
  const { geometry, x: middle, top, children } = props;
  // Shifted by the same share of its own width as its place has of the line's: it never leaves the line.
  const share = (100 * middle) / geometry.width;
  return (
    <div
      data-card
      className="relative z-10 mb-2 w-max max-w-full rounded-lg border border-woad bg-surface px-3 py-1 shadow-md"
      style={{ marginTop: top, left: middle, transform: `translateX(-${share}%)` }}
    >
      {children}
    </div>
  );
}

/** Middle of the selection, or the caret. */
function cardX(geometry: LineGeometry, ids: readonly string[], caret: CaretSpot | null): number {
  if (caret) return caretX(geometry, caret.id) ?? 0;
  const xs = geometry.notes.filter(({ id }) => ids.includes(id)).map(({ x }) => x);
  return xs.length > 0 ? (Math.min(...xs) + Math.max(...xs)) / 2 : 0;
}

/** The staff and the ledger lines about it, to be pressed where a note shall stand. */
function StaffTarget(props: {
  readonly geometry: LineGeometry;
  readonly top: number;
  readonly onStaff: (id: string, step: number) => void;
}) {
  const { geometry, top, onStaff } = props;
  const y = geometry.staffTop - 30;
  return (
    <rect
      data-staff-target
      x={0}
      y={y}
      width={geometry.width}
      height={geometry.staffBottom + 30 - y}
      className="cursor-crosshair fill-transparent"
      onPointerDown={(event) => {
        const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
        // The page may show the line larger or smaller than it is laid out.
        const scale = box.width / geometry.width;
        const x = (event.clientX - box.left) / scale;
        const places = [
          ...geometry.bars.map(({ id, contentX }) => ({ id, x: contentX - 10 })),
          ...geometry.notes,
          ...geometry.rests,
        ].sort((a, b) => a.x - b.x);
        const left = places.findLast((place) => place.x <= x) ?? places[0];
        if (left) onStaff(left.id, stepAt(geometry, (event.clientY - box.top) / scale + top));
        event.preventDefault();
      }}
    />
  );
}

/** The line's upper and lower bounds, with room for whatever bowing comes to stand on its notes. */
function frameOf(line: LineSpec, geometry: LineGeometry): { top: number; fingerY: number } {
  const inkTop = Math.min(geometry.staffTop, ...geometry.obstacles.map(({ top }) => top));
  const inkBottom = Math.max(geometry.staffBottom, ...geometry.obstacles.map(({ bottom }) => bottom));
  const endings = line.bars.some(({ ending }) => ending) ? 20 : 0;
  const chords = line.bars.some(({ events }) => events.some((event) => event.chord)) ? 14 : 0;
  const reuses = line.bars.some((bar) => bar.reuses !== null) ? 15 : 0;
  return {
    top: Math.min(inkTop, geometry.staffTop - 4) - SIGN_RESERVE - endings - chords - reuses,
    fingerY: inkBottom + 21,
  };
}

function LineHeading({
  line,
  y,
  onPickWhole,
}: {
  readonly line: LineSpec;
  readonly y: number;
  readonly onPickWhole: ScoreLineProps['onPickWhole'];
}) {
  const bar = line.bars.find(({ number }) => number > 0) ?? line.bars[0]!;
  return (
    <g aria-hidden>
      <text
        x={1}
        y={y}
        className="cursor-pointer fill-walnut font-serif text-lead font-bold"
        onPointerDown={() => onPickWhole({ part: line.part })}
      >
        {line.part}
      </text>
      <text
        x={line.part.length * 11 + 4}
        y={y}
        className="cursor-pointer fill-muted text-mark"
        onPointerDown={() => onPickWhole({ bar: bar.id })}
      >
        {bar.number}
      </text>
    </g>
  );
}

const Tuplets = memo(function Tuplets({ geometry: { tuplets } }: { readonly geometry: LineGeometry }) {
  return (
    <g aria-hidden data-sign="tuplets">
      {tuplets.map(({ x, y, text, bracket }) => (
        <g key={`${x} ${y}`}>
          <text x={x} y={y} textAnchor="middle" className="fill-ink font-serif text-small font-bold italic">
            {text}
          </text>
          {bracket !== null && <path d={bracket} stroke="var(--ink)" strokeWidth="1.1" fill="none" />}
        </g>
      ))}
    </g>
  );
});

/** Down and up signs; one that turns round on another pass wears a dot. */
const BowSigns = memo(function BowSigns({
  bows,
  states,
  showsOther,
  changes,
}: {
  readonly bows: LineSigns['bows'];
  readonly states: ReadonlyMap<string, NoteState>;
  /** Shows the other passes' sign over the one in view, in place of the dot. */
  readonly showsOther: boolean;
  readonly changes: ReadonlyMap<string, NoteChange> | null;
}) {
  let signs = '';
  let changed = '';
  let others = '';
  const dots = outline();
  for (const { id, x, y } of bows) {
    const state = states.get(id);
    const sign = bowSignPath(x, y, state?.bow === 'down');
    if (changes?.has(id)) changed += sign;
    else signs += sign;
    if (!state?.differs) continue;
    if (showsOther) others += bowSignPath(x, y - OTHER_SIGN_STEP, state.bow !== 'down');
    else dot(dots, x, y - 13, 1.4);
  }
  return (
    <g aria-hidden>
      <path d={signs} fill="var(--ink)" data-sign="bows" />
      {changed !== '' && <path d={changed} fill="var(--woad)" data-sign="changed-bows" />}
      <path d={`${others}${dots}`} fill="var(--madder)" data-sign="differing" />
    </g>
  );
});

/** Notes that would be otherwise, shaded; neighbours in one stretch. */
function ChangedColumns(props: {
  readonly geometry: LineGeometry;
  readonly changes: ReadonlyMap<string, NoteChange>;
  readonly top: number;
}) {
  const { geometry, changes, top } = props;
  const columns = columnsOf(geometry.notes);
  const stretches: { left: number; right: number }[] = [];
  for (const [i, { id }] of geometry.notes.entries()) {
    if (changes.get(id) !== 'changed') continue;
    const { left, right } = columns[i]!;
    const last = stretches[stretches.length - 1];
    if (last && left - last.right < 1) last.right = right;
    else stretches.push({ left, right });
  }
  return (
    <g aria-hidden data-changed={stretches.length}>
      {stretches.map(({ left, right }) => (
        <rect
          key={left}
          x={left}
          y={top}
          width={right - left}
          height={geometry.staffBottom + 8 - top}
          rx={3}
          fill="color-mix(in srgb, var(--woad) 14%, transparent)"
        />
      ))}
    </g>
  );
}

const Signs = memo(function Signs({ signs }: { readonly signs: LineSigns }) {
  return (
    <g aria-hidden>
      <path d={signs.curves} fill="var(--ink)" data-sign="curves" />
      <path d={signs.hooks} stroke="var(--ink)" strokeWidth="1.4" fill="none" />
      {signs.locks.map(({ id, x, y, broken }) => (
        <path
          key={id}
          d={lockPath(x, y, broken)}
          fillRule="evenodd"
          fill={broken ? 'var(--madder)' : 'var(--walnut)'}
        />
      ))}
      {signs.marks.map(({ id, name, x, y }) => {
        const { d, isFilled } = markPath(name, x, y);
        return isFilled ? (
          <path key={`${id} ${name}`} d={d} fill="var(--ink)" data-mark={name} />
        ) : (
          <path key={`${id} ${name}`} d={d} stroke="var(--ink)" strokeWidth="1.5" fill="none" data-mark={name} />
        );
      })}
      {signs.chords.map(({ x, y, text }) => (
        <text key={`${x} ${text}`} x={x} y={y} className="fill-muted text-mark">
          {text}
        </text>
      ))}
      <g data-sign="reuses">
        {signs.reuses.map(({ x, y, text }) => (
          <text key={x} x={x} y={y} className="fill-muted font-serif text-fine italic">
            {text}
          </text>
        ))}
      </g>
      <g data-sign="endings">
        {signs.endings.map(({ label, path, x, y }) => (
          <g key={path}>
            <path d={path} fill="none" stroke="var(--ink)" strokeWidth="1.2" />
            <text x={x} y={y} className="fill-ink text-mark">
              {label}
            </text>
          </g>
        ))}
      </g>
    </g>
  );
});

/** A padlock standing on y; a contradicted one hangs open. */
function lockPath(x: number, y: number, broken: boolean): string {
  const body = `M${x - 4} ${y}v-6h8v6Z`;
  const shackle = 'v-1.5a2.6 2.6 0 0 1 5.2 0v1.5h-1.3v-1.5a1.3 1.3 0 0 0-2.6 0v1.5Z';
  return `${body}M${broken ? x + 1.4 : x - 2.6} ${y - 6}${shackle}`;
}

function SelectionBox({
  geometry,
  ids,
  top,
  bottom,
}: {
  readonly geometry: LineGeometry;
  readonly ids: readonly string[];
  readonly top: number;
  readonly bottom: number;
}) {
  const boxes = geometry.notes.filter(({ id }) => ids.includes(id));
  const first = boxes[0];
  const last = boxes[boxes.length - 1];
  if (!first || !last) return null;
  const left = first.headLeft - 5;
  const width = last.headRight + 5 - left;
  return (
    <rect
      x={left}
      y={top}
      width={width}
      height={bottom - top}
      rx={4}
      fill="color-mix(in srgb, var(--woad) 9%, transparent)"
      stroke="var(--woad)"
      strokeWidth="1.4"
      data-selection
    />
  );
}

/** Columns over the notes that can be clicked, reached and read. */
const NoteTargets = memo(function NoteTargets({
  line,
  geometry,
  top,
  height,
  selectedIds,
  tabStopId,
  states,
  tuning,
  onPick,
  onPickWhole,
}: Pick<ScoreLineProps, 'line' | 'states' | 'tuning' | 'selectedIds' | 'tabStopId' | 'onPick' | 'onPickWhole'> & {
  readonly geometry: LineGeometry;
  readonly top: number;
  readonly height: number;
}) {
  const events = useMemo(
    () =>
      new Map(line.bars.flatMap((bar) => bar.events.map((event) => [event.id, { event, bar: bar.number }] as const))),
    [line],
  );
  const columns = useMemo(() => columnsOf(geometry.notes), [geometry]);
  const selected = new Set(selectedIds);
  return (
    <g
      role="listbox"
      aria-multiselectable
      aria-label={lineWords(line)}
      onPointerDown={(event) => {
        const id = (event.target as Element).getAttribute('data-note');
        if (id !== null && event.button === 0) onPick(id, event.shiftKey);
      }}
      onDoubleClick={(event) => {
        const id = (event.target as Element).getAttribute('data-note');
        if (id !== null) onPickWhole({ bar: id });
      }}
      onPointerMove={(event) => {
        // Drawn over with the button held: the range reaches to the note under the pointer.
        const id = (event.target as Element).getAttribute('data-note');
        if (id !== null && event.pointerType === 'mouse' && event.buttons === 1) onPick(id, true);
      }}
    >
      {geometry.notes.map((box, i) => {
        const found = events.get(box.id);
        if (!found || found.event.kind !== 'note') return null;
        const { left, right } = columns[i]!;
        return (
          <rect
            key={box.id}
            role="option"
            data-note={box.id}
            data-x={box.x}
            aria-label={spokenNote(found.event, states.get(box.id), found.bar, tuning)}
            aria-selected={selected.has(box.id)}
            tabIndex={box.id === tabStopId ? 0 : -1}
            className="note-target"
            x={left}
            y={top}
            width={right - left}
            height={height}
          />
        );
      })}
    </g>
  );
});

/** `Part B, bars 5 to 8; bar 7 as A 1–2`. */
function lineWords({ part, bars }: LineSpec): string {
  const numbers = bars.map(({ number }) => number).filter((number) => number > 0);
  const reused = bars.flatMap(({ number, reuses }) => (reuses === null ? [] : [`; bar ${number} ${reuses}`]));
  return `Part ${part}, bars ${numbers[0] ?? 0} to ${numbers[numbers.length - 1] ?? 0}${reused.join('')}`;
}

/** Each note's column reaches half way to its neighbours, and no farther than a hand's width. */
function columnsOf(boxes: readonly NoteBox[]): { left: number; right: number }[] {
  return boxes.map(({ x }, i) => {
    const before = boxes[i - 1]?.x ?? -Infinity;
    const after = boxes[i + 1]?.x ?? Infinity;
    return { left: Math.max(x - 24, (before + x) / 2), right: Math.min(x + 24, (x + after) / 2) };
  });
}
