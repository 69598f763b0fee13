import { type Fraction, fraction, multiply } from '#core/base';
import { joiningLink } from '#core/bowing';
import { type Key, type Pitch, sameKey } from '#core/pitch';
import { LengthGuard, type Meter, type NoteEvent, type RestEvent, sameMeter, type TupletMark } from '#core/tune';
import { OutOfBounds } from '../text';
import type { RawBar } from './structure';

export type Sounding = NoteEvent | RestEvent;

/** A note that a reader still fills: a text may hold a million of them, so they are made field by field. */
export type OpenNote = { -readonly [K in keyof NoteEvent]: NoteEvent[K] };

/** A tuplet that is counted by its notes: how many are still to come, and where it began. */
export interface OpenTuplet {
  readonly notes: number;
  readonly inTimeOf: number;
  readonly left: number;
  readonly offset: number;
}

/**
 * Bars from what a reader of notation comes upon, one thing after the other. The reader knows its signs; the builder gives ids,
 * holds lengths within bounds, joins notes to the ones before them, counts tuplets, keeps changes of meter and key for the bar
 * in which they begin, and goes back at an ending to what stood before the first one.
 */
export class PartBuilder {
  readonly bars: RawBar[] = [];
  /** Where each bar begins in the text. */
  readonly offsets = new Map<string, number>();
  /** In force where the reading is. */
  meter: Meter;
  key: Key;
  tuplet: OpenTuplet | null = null;
  private readonly guard = new LengthGuard();
  private readonly counts = { note: 0, rest: 0 };
  /** What is said before the bar to which it belongs. */
  private pending: Pick<RawBar, 'meter' | 'key' | 'label' | 'endingOpens' | 'opensRepeat'> = { opensRepeat: false };
  private open: RawBar | null = null;
  /** What the next note is joined to, and whether a rest lies between. */
  private last: NoteEvent | null = null;
  private restBetween = false;
  private beforeEndings: { readonly last: NoteEvent | null; readonly restBetween: boolean } | null = null;

  constructor(meter: Meter, key: Key) {
    this.meter = meter;
    this.key = key;
  }

  get lastNote(): NoteEvent | null {
    return this.last;
  }

  /** The bar that stands last, whether it is still open or not. */
  get lastBar(): RawBar | undefined {
    return this.bars[this.bars.length - 1];
  }

  /** The bar that is open, or a new one here. */
  bar(offset: number): RawBar {
    return this.open ?? this.beginBar(offset);
  }

  get isBarOpen(): boolean {
    return this.open !== null;
  }

  beginBar(offset: number): RawBar {
    const id = `b${this.bars.length + 1}`;
    this.offsets.set(id, offset);
    const { meter, key, endingOpens, label, opensRepeat } = this.pending;
    const opened: RawBar = {
      id,
      offset,
      events: [],
      meterInForce: this.meter,
      meter,
      key,
      endingOpens,
      label,
      endingCloses: false,
      opensRepeat,
      plays: 0,
      closesDouble: false,
    };
    this.pending = { opensRepeat: false };
    this.bars.push(opened);
    this.open = opened;
    return opened;
  }

  endBar(): void {
    this.open = null;
  }

  /** Changes that hold from the next bar on. */
  changeMeter(meter: Meter): void {
    if (sameMeter(meter, this.meter)) return;
    this.meter = meter;
    this.pending.meter = meter;
  }

  changeKey(key: Key): void {
    if (sameKey(key, this.key)) return;
    this.key = key;
    this.pending.key = key;
  }

  label(label: string | undefined): void {
    this.pending.label = label;
  }

  /** The next bar, or the one given, opens a repeat: endings after it are its own. */
  openRepeat(bar: Pick<RawBar, 'opensRepeat'> = this.pending): void {
    bar.opensRepeat = true;
    this.beforeEndings = null;
  }

  /**
   * An ending begins. Whatever number it has, it follows what stands before the first one.
   * @param numbers the plays on which it sounds, null where that is not understood
   * @param bar the bar in which it does, left out for the next one
   */
  openEnding(numbers: readonly number[] | null, bar: Pick<RawBar, 'endingOpens'> = this.pending): void {
    if (numbers?.includes(1)) this.beforeEndings = null;
    const { last, restBetween } = (this.beforeEndings ??= { last: this.last, restBetween: this.restBetween });
    this.last = last;
    this.restBetween = restBetween;
    if (numbers) bar.endingOpens = numbers;
  }

  /** A length in whole notes that a tune may hold. @throws OutOfBounds where it may not */
  within(length: Fraction | null, offset: number): Fraction {
    const fault = length ? this.guard.fault(length) : ({ code: 'too-long', found: Infinity } as const);
    if (!length || fault) throw new OutOfBounds(offset, fault!);
    return length;
  }

  /** A written length within the tuplet that is being counted, with its mark. */
  inTuplet(written: Fraction, isFirst: boolean): { readonly duration: Fraction; readonly mark?: TupletMark } {
    if (!this.tuplet) return { duration: written };
    const { notes, inTimeOf } = this.tuplet;
    return {
      duration: multiply(written, fraction(inTimeOf, notes)),
      mark: { notes, inTimeOf, ...(isFirst ? { first: true as const } : {}) },
    };
  }

  /** One note or rest of the tuplet that is being counted is over. */
  countTuplet(): void {
    if (!this.tuplet) return;
    const left = this.tuplet.left - 1;
    this.tuplet = left > 0 ? { ...this.tuplet, left } : null;
  }

  /** A note to be filled; it stands in no bar until it is placed. */
  newNote(duration: Fraction, pitch: Pitch): OpenNote {
    this.counts.note += 1;
    return { kind: 'note', id: `n${this.counts.note}`, duration, pitch, link: 'change' };
  }

  /** Puts a note into a bar, joined to the one before where a slur says so. */
  place(note: OpenNote, bar: RawBar, isSlurred: boolean): void {
    if (this.counts.note === 1) note.link = 'start';
    else if (isSlurred && this.last) note.link = joiningLink(this.last, note, this.restBetween);
    bar.events.push(note);
    this.last = note;
    this.restBetween = false;
  }

  rest(duration: Fraction, bar: RawBar, more: Pick<RestEvent, 'tuplet' | 'chord'> = {}): void {
    this.counts.rest += 1;
    bar.events.push({ kind: 'rest', id: `r${this.counts.rest}`, duration, ...more });
    this.restBetween = true;
  }

  /** The last event of a bar as it turns out to be: longer, or with more notes. */
  changeLast(bar: RawBar, event: Sounding): void {
    const last = bar.events.length - 1;
    if (event.kind === 'note' && this.last === bar.events[last]) this.last = event;
    bar.events[last] = event;
  }
}
