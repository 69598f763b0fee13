import { compare } from '#core/base';
import { joiningLink } from '#core/bowing';
import { midiOf, type Pitch } from '#core/pitch';
import {
  type BarEvent,
  barLength,
  type Link,
  type NoteEvent,
  type Part,
  type Tune,
  type TuneEvent,
  writtenBars,
} from '#core/tune';
import { withPassLinks } from './passLinks';

/** What of a tune plain notation says by repeat signs, brackets and slurs. */
export interface PlainScore {
  /** Plays of each part where the form is simply each part in turn; null: the form must be said in words. */
  readonly plays: ReadonlyMap<string, number> | null;
  /** Parts whose endings can be written under brackets. */
  readonly bracketed: ReadonlySet<string>;
  /** Notes at which a slur opens, closes, and those joined to the one before. */
  readonly slurs: SlurSigns;
  /** Links as they are read back from the slurs. */
  readonly links: ReadonlyMap<string, Link>;
  /** Links of single passes as they are read back. */
  readonly linksOnPass: ReadonlyMap<string, NoteEvent['linkOnPass']>;
}

export interface SlurSigns {
  readonly opens: ReadonlySet<string>;
  readonly closes: ReadonlySet<string>;
  /** First notes of later endings into which a slur runs on that opens before the first one. */
  readonly resumes: ReadonlySet<string>;
}

export function plainScore(tune: Tune): PlainScore {
  const bracketed = new Set(tune.parts.filter(hasPlainEndings).map(({ name }) => name));
  const plays = simplePlays(tune, bracketed);
  const parts = tune.parts.map((part) => ({ ...part, events: part.events.map(topAsMelody) }));
  const { slurs, links } = slurred(parts, bracketed);
  const relinked = parts.map((part) => ({
    ...part,
    events: part.events.map((event): TuneEvent => {
      if (event.kind !== 'note') return event;
      const { linkOnPass: _own, ...rest } = event;
      return { ...rest, link: links.get(event.id)! };
    }),
  }));
  const linksOnPass = new Map<string, NoteEvent['linkOnPass']>();
  for (const part of withPassLinks(relinked, tune.form))
    for (const event of part.events)
      if (event.kind === 'note') {
        // A second ending does not follow what is written before it.
        links.set(event.id, event.link);
        linksOnPass.set(event.id, event.linkOnPass);
      }
  return { plays, bracketed, slurs, links, linksOnPass };
}

/** Whether the first bar is a pickup that sounds on the first pass only. */
export function opensWithPickup(part: Part): boolean {
  const first = part.events[0];
  return first?.kind === 'bar' && first.onPlays !== undefined && !first.ending;
}

const barsOf = (part: Part): BarEvent[] => part.events.filter((event) => event.kind === 'bar');

/** Bars for all passes, then one ending after another, each with plays of its own; at most a pickup once before them. */
function hasPlainEndings(part: Part): boolean {
  const bars = barsOf(part);
  const firstEnding = bars.findIndex(({ ending }) => ending);
  const before = firstEnding < 0 ? bars : bars.slice(0, firstEnding);
  const after = firstEnding < 0 ? [] : bars.slice(firstEnding);
  const isOnce = (bar: BarEvent, i: number) => i === 0 && bars.length > 1 && String(bar.onPlays) === '1';
  if (before.some((bar, i) => bar.onPlays !== undefined && !isOnce(bar, i))) return false;
  if (before.length === 0 && after.length > 0) return false;
  if (after.some(({ ending, onPlays }) => !ending || !onPlays)) return false;
  const groups = after.map(({ onPlays }) => String(onPlays)).filter((plays, i, all) => plays !== all[i - 1]);
  const numbers = groups.flatMap((plays) => plays.split(',').map(Number));
  return [...numbers].sort((a, b) => a - b).every((number, i) => number === i + 1) && numbers.length !== 1;
}

/** Plays of each part where the form is each part in turn, once or twice or as its endings say; else null. */
/** A chord as plain notation is read: its highest note is the melody. */
function topAsMelody(event: TuneEvent): TuneEvent {
  if (event.kind !== 'note' || !event.stops) return event;
  const [top, ...stops] = downwards(event);
  return { ...event, pitch: top, stops };
}

/** The pitches of a note or chord, the highest first. */
export function downwards({ pitch, stops = [] }: NoteEvent): [Pitch, ...Pitch[]] {
  return [pitch, ...stops].sort((a, b) => midiOf(b) - midiOf(a)) as [Pitch, ...Pitch[]];
}

function simplePlays(tune: Tune, bracketed: ReadonlySet<string>): Map<string, number> | null {
  const runs: { name: string; plays: number }[] = [];
  for (const name of tune.form) {
    const last = runs[runs.length - 1];
    if (last?.name === name) last.plays += 1;
    else runs.push({ name, plays: 1 });
  }
  const bars = writtenBars(tune);
  const isSimple =
    runs.length === tune.parts.length &&
    runs.every(({ name, plays }, i) => {
      const part = tune.parts[i]!;
      const endings = Math.max(0, ...barsOf(part).flatMap(({ ending, onPlays }) => (ending ? (onPlays ?? []) : [])));
      const own = bars.get(part.name)!;
      // A part of one short bar would be taken for a pickup, a pickup of a full bar for a part.
      const first = own[0]!;
      const isShort = compare(first.duration, barLength(first.meter)) < 0;
      const isTakenForPickup = own.length === 1 && isShort;
      const once = opensWithPickup(part);
      return (
        part.name === name &&
        name === String.fromCharCode(65 + i) &&
        bracketed.has(name) &&
        !isTakenForPickup &&
        (!once || (isShort && plays > 1)) &&
        own.every(({ events }) => events.length > 0) &&
        (endings > 0 ? endings === plays : plays <= 2)
      );
    });
  return isSimple && runs.length <= 26 ? new Map(runs.map(({ name, plays }) => [name, plays])) : null;
}

/**
 * Where slur signs open and close so that each shared stroke stands under one, and the links that are read from them. A
 * slur that runs on into the first ending runs on into the others, and is closed in each: it does not run out of the last.
 */
function slurred(
  parts: readonly Part[],
  bracketed: ReadonlySet<string>,
): { slurs: SlurSigns; links: Map<string, Link> } {
  const writer = new SlurWriter();
  for (const { event, hasBrackets } of eventsOf(parts, bracketed)) {
    if (event.kind === 'bar') writer.bar(hasBrackets && event.ending ? String(event.onPlays) : null);
    else if (event.kind === 'rest') writer.restBetween = true;
    else writer.note(event);
  }
  return writer.ended();
}

class SlurWriter {
  private readonly opens = new Set<string>();
  private readonly closes = new Set<string>();
  private readonly resumes = new Set<string>();
  private readonly links = new Map<string, Link>();
  private before: NoteEvent | null = null;
  private inside = false;
  restBetween = false;
  private ending: string | null = null;
  /** What the endings follow, and whether their first notes are joined to it. */
  private stem: { before: NoteEvent | null; restBetween: boolean; joins: boolean | null } | null = null;
  /** A later ending has begun and has no note yet. */
  private isFresh = false;
  /** The slur is one that ran on into this ending; past the last ending it is cut. */
  private isResumed = false;
  private isCut = false;

  /** @param ending the plays of the bracket under which the bar stands, null where under none */
  bar(ending: string | null): void {
    const { before, restBetween } = this;
    if (ending !== null && this.ending === null) this.stem = { before, restBetween, joins: null };
    if (ending !== null && this.ending !== null && ending !== this.ending && this.stem) {
      this.closeOpen();
      ({ before: this.before, restBetween: this.restBetween } = this.stem);
      this.inside = this.stem.joins ?? false;
      this.isFresh = true;
      this.isResumed = this.inside;
    }
    if (ending === null && this.isResumed) this.isCut = true;
    if (ending === null && this.isFresh) this.inside = this.isFresh = false;
    this.ending = ending;
  }

  note(note: NoteEvent): void {
    const { before, inside } = this;
    const wants = before !== null && (note.link === 'slur' || note.link === 'hook');
    // What the first ending does, the others are read to do.
    const joins = this.isFresh ? inside : wants && !this.isCut;
    if (joins && !inside) this.opens.add(before!.id);
    if (joins && this.isFresh) this.resumes.add(note.id);
    if (!joins && inside) this.closes.add(before!.id);
    this.links.set(note.id, this.linkOf(note, joins));
    if (this.stem && this.ending !== null) this.stem.joins ??= joins;
    this.inside = joins;
    this.before = note;
    this.restBetween = this.isFresh = this.isCut = false;
    this.isResumed &&= joins;
  }

  ended(): { slurs: SlurSigns; links: Map<string, Link> } {
    this.closeOpen();
    const { opens, closes, resumes, links } = this;
    return { slurs: { opens, closes, resumes }, links };
  }

  private linkOf(note: NoteEvent, joins: boolean): Link {
    if (this.before === null) return 'start';
    return joins ? joiningLink(this.before, note, this.restBetween) : 'change';
  }

  private closeOpen(): void {
    if (this.inside && this.before && !this.isFresh) this.closes.add(this.before.id);
  }
}

function eventsOf(parts: readonly Part[], bracketed: ReadonlySet<string>) {
  return parts.flatMap(({ name, events }) =>
    events.map((event: TuneEvent) => ({ event, hasBrackets: bracketed.has(name) })),
  );
}
