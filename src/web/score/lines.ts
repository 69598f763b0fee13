import { reusedRuns } from '#core/editing';
import { type Key, type Pitch, pitchName, sameKey } from '#core/pitch';
import {
  type Bar,
  barNumbers,
  type Meter,
  type NoteEvent,
  type RestEvent,
  sameMeter,
  type Tune,
  writtenBars,
} from '#core/tune';
import { reuseWords } from '#words/spot';

/** A note as it is drawn: with a head for the open string that sounds along. */
export interface DrawnNote extends NoteEvent {
  readonly droneHead?: Pitch;
}

/** A bar as it stands on the page. */
export interface LineBar {
  readonly id: string;
  /** As played within a pass; 0 is a pickup. */
  readonly number: number;
  readonly events: readonly (DrawnNote | RestEvent)[];
  readonly meter: Meter;
  readonly key: Key;
  /** Changes to be shown at this bar. */
  readonly showMeter: boolean;
  readonly showKey: boolean;
  readonly keyBefore: Key;
  readonly beginsRepeat: boolean;
  readonly endsRepeat: boolean;
  readonly endsPart: boolean;
  /** `1.` where an ending bracket opens, and whether it goes on from and to neighbour bars. */
  readonly ending: { readonly label: string; readonly opens: boolean; readonly closes: boolean } | null;
  /** `as A 5–8` where bars begin that take up others. */
  readonly reuses: string | null;
}

/** One line of the score. */
export interface LineSpec {
  readonly id: string;
  readonly part: string;
  readonly bars: readonly LineBar[];
  readonly opensPart: boolean;
  readonly closesTune: boolean;
  /** A change of key or meter with which the next line begins, announced at this one's end. */
  readonly courtesy: { readonly key: Key | null; readonly keyBefore: Key; readonly meter: Meter | null } | null;
  /** Bars that a full line of this part has: shorter lines are not stretched. */
  readonly fullBars: number;
}

/** A part of fewer bars is not stretched over the page. */
const FULL_LINE_BARS = 4;

/** Pitches of the open strings that sound along, by the note's id. */
export type DroneHeads = ReadonlyMap<string, Pitch>;
const NO_DRONES: DroneHeads = new Map();

const drawn = new WeakMap<NoteEvent, { readonly pitch: string; readonly note: DrawnNote }>();

/** The event with its drone's head; the same value for the same event and pitch, so that lines left alone are known. */
function drawnEvent(event: NoteEvent | RestEvent, heads: DroneHeads): DrawnNote | RestEvent {
  const head = event.kind === 'note' ? heads.get(event.id) : undefined;
  if (event.kind !== 'note' || !head) return event;
  const pitch = pitchName(head);
  const known = drawn.get(event);
  if (known?.pitch === pitch) return known.note;
  const note: DrawnNote = { ...event, droneHead: head };
  drawn.set(event, { pitch, note });
  return note;
}

/** Lines of the score: each part begins one, and a lone bar left over joins the line before. */
export function scoreLines(tune: Tune, barsPerLine: number, droneHeads: DroneHeads = NO_DRONES): LineSpec[] {
  const all = writtenBars(tune);
  const reused = new Map(reusedRuns(tune).map((run) => [run.barIds[0]!, reuseWords(run)]));
  const lines: LineSpec[] = [];
  let keyBefore = tune.key;
  for (const [p, part] of tune.parts.entries()) {
    const bars = all.get(part.name)!;
    const plays = longestRun(tune.form, part.name);
    const numbers = barNumbers(bars, tune.form.filter((name) => name === part.name).length);
    const isOpening = p === 0;
    const lineBars = bars.map((bar, i): LineBar => {
      const shown = toLineBar(bars, i, {
        plays,
        number: numbers.get(bar.event.id) ?? i + 1,
        keyBefore,
        opensTune: isOpening && i === 0,
      });
      keyBefore = bar.key;
      return {
        ...shown,
        events: shown.events.map((event) => drawnEvent(event, droneHeads)),
        reuses: reused.get(bar.event.id) ?? null,
      };
    });
    for (const [k, chunk] of chunkBars(lineBars, barsPerLine).entries())
      lines.push({
        id: chunk[0]!.id,
        part: part.name,
        bars: chunk,
        opensPart: k === 0,
        closesTune: p === tune.parts.length - 1 && chunk[chunk.length - 1] === lineBars[lineBars.length - 1],
        courtesy: null,
        fullBars: Math.min(barsPerLine, Math.max(lineBars.length, FULL_LINE_BARS)),
      });
  }
  return lines.map((line, i) => ({ ...line, courtesy: courtesyBefore(lines[i + 1]) }));
}

function courtesyBefore(next: LineSpec | undefined): LineSpec['courtesy'] {
  const bar = next?.bars[0];
  if (!bar || (!bar.showKey && !bar.showMeter)) return null;
  return { key: bar.showKey ? bar.key : null, keyBefore: bar.keyBefore, meter: bar.showMeter ? bar.meter : null };
}

function longestRun(form: readonly string[], name: string): number {
  let longest = 0;
  let run = 0;
  for (const part of form) {
    run = part === name ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  return longest;
}

interface BarSurroundings {
  /** How often its part is played. */
  readonly plays: number;
  readonly number: number;
  readonly keyBefore: Key;
  readonly opensTune: boolean;
}

function toLineBar(
  bars: readonly Bar[],
  i: number,
  { plays, number, keyBefore, opensTune }: BarSurroundings,
): Omit<LineBar, 'reuses'> {
  const { event, events, meter, key } = bars[i]!;
  const before = bars[i - 1]?.event;
  const after = bars[i + 1]?.event;
  const isOnce = (bar: typeof before) => bar?.onPlays !== undefined && !bar.ending;
  const sameEnding = (bar: typeof before) => bar?.ending === true && String(bar.onPlays) === String(event.onPlays);
  const closes = event.ending === true && !sameEnding(after);
  const isLastPlay = event.onPlays?.includes(plays) ?? false;
  return {
    id: event.id,
    number,
    events,
    meter,
    key,
    showMeter: opensTune || event.meter !== undefined,
    showKey: event.key !== undefined,
    keyBefore,
    beginsRepeat: plays > 1 && !isOnce(event) && (i === 0 || isOnce(before)),
    endsRepeat: plays > 1 && (event.ending ? closes && !isLastPlay : !after),
    endsPart: !after,
    ending: event.ending ? { label: `${event.onPlays!.join(', ')}.`, opens: !sameEnding(before), closes } : null,
  };
}

/** Chunks of full length; a pickup rides with the first bar, a lone last bar with the line before. */
function chunkBars(bars: readonly LineBar[], size: number): LineBar[][] {
  const chunks: LineBar[][] = [];
  let chunk: LineBar[] = [];
  let counted = 0;
  for (const bar of bars) {
    if (counted === size) {
      chunks.push(chunk);
      chunk = [];
      counted = 0;
    }
    chunk.push(bar);
    if (bar.number > 0) counted += 1;
  }
  const last = chunks[chunks.length - 1];
  if (chunk.length === 1 && last && size > 1) last.push(...chunk);
  else if (chunk.length > 0) chunks.push(chunk);
  return chunks;
}

/** Everything about a line that its engraving shows; two lines with one key look the same. */
export function engravingKey(line: LineSpec): string {
  return line.bars.map((_, i) => barEngravingKey(line, i)).join('\n');
}

/** The same of one of its bars. Marks, ties and endings are no part of it: they are signs of ours over the engraving. */
export function barEngravingKey(line: LineSpec, i: number): string {
  const bar = line.bars[i]!;
  const isLineEnd = i === line.bars.length - 1;
  const events = bar.events.map((event) => {
    const length = `${event.duration.n}/${event.duration.d}${event.tuplet ? `t${event.tuplet.notes}:${event.tuplet.inTimeOf}${event.tuplet.first ?? ''}` : ''}`;
    if (event.kind === 'rest') return `${event.id} r${length}`;
    const drone = event.droneHead ? [event.droneHead] : [];
    const pitches = [event.pitch, ...(event.stops ?? []), ...drone, ...(event.graceNotes ?? [])];
    const heads = pitches.map(({ letter, alter, octave }) => `${letter}${alter}${octave}`).join('.');
    return `${event.id} ${heads} ${event.stops?.length ?? 0}${drone.length > 0 ? 'd' : ''} ${length}`;
  });
  const { id, beginsRepeat, endsRepeat, endsPart, showKey, showMeter, meter, key, keyBefore } = bar;
  return JSON.stringify([
    id,
    beginsRepeat,
    endsRepeat,
    endsPart && (isLineEnd && line.closesTune ? 'tune' : 'part'),
    showKey && keyBefore,
    showMeter,
    meter,
    key,
    isLineEnd && line.courtesy,
    line.fullBars,
    events,
  ]);
}

export interface KeyedLine {
  readonly line: LineSpec;
  readonly key: string;
}

/** Keys lines, and gives the earlier value for each that an edit left alone, so that nothing of it is done again. */
export function lineKeeper(): (lines: readonly LineSpec[]) => readonly KeyedLine[] {
  let kept = new Map<string, KeyedLine>();
  return (lines) => {
    const keyed = lines.map((line): KeyedLine => {
      const before = kept.get(line.id);
      if (before && sameLine(before.line, line)) return before;
      return { line, key: engravingKey(line) };
    });
    kept = new Map(keyed.map((item) => [item.line.id, item]));
    return keyed;
  };
}

/** Whether two lines are built of the very same events with the same signs about them. */
function sameLine(a: LineSpec, b: LineSpec): boolean {
  if (a.bars.length !== b.bars.length || a.part !== b.part || a.opensPart !== b.opensPart) return false;
  if (a.closesTune !== b.closesTune || a.fullBars !== b.fullBars) return false;
  if (JSON.stringify(a.courtesy) !== JSON.stringify(b.courtesy)) return false;
  return a.bars.every((bar, i) => {
    const other = b.bars[i]!;
    return (
      bar.events.length === other.events.length &&
      bar.events.every((event, k) => event === other.events[k]) &&
      BAR_SIGNS.every((sign) => bar[sign] === other[sign]) &&
      sameKey(bar.key, other.key) &&
      sameKey(bar.keyBefore, other.keyBefore) &&
      sameMeter(bar.meter, other.meter) &&
      String(bar.ending && Object.values(bar.ending)) === String(other.ending && Object.values(other.ending))
    );
  });
}

const BAR_SIGNS = ['id', 'number', 'showMeter', 'showKey', 'beginsRepeat', 'endsRepeat', 'endsPart', 'reuses'] as const;
