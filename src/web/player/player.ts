import { perform, type Performance } from '#core/performance';
import { reportTune, type TuneReport } from '#core/report';
import { AS_PLANNED, hasHolds, meantFor } from '#core/tempo';
import { comparedReport } from './comparisons';
import { type Engine, startEngine } from './engine';
import type { PlaySettings } from './listenSettings';
import { type LoopWay, loopWay } from './loopWay';
import { PRACTICE } from './practiceTempo';
import { type FromFiddle, programmeOf } from './programme';
import type { Span } from './span';

export interface PlayerState {
  readonly status: 'idle' | 'starting' | 'playing';
  /** There is no sound device. */
  readonly isSilent: boolean;
  readonly rounds: number;
  readonly underruns: number;
  /** What sounds now: the tempo, which climbs, and which of two ways. */
  readonly bpm: number | null;
  readonly isCompared: boolean;
  /** Bowed the other way round. */
  readonly isTurned: boolean;
}

const IDLE: PlayerState = {
  status: 'idle',
  isSilent: false,
  rounds: 0,
  underruns: 0,
  bpm: null,
  isCompared: false,
  isTurned: false,
};

/** A moment of what is played. */
export interface Moment {
  /** The played note that sounds or sounded last; null while it is counted in. */
  readonly index: number | null;
  /** How far it is on the way to the next, 0 to 1. */
  readonly share: number;
  /** Seconds before the span's beginning, while it is counted in. */
  readonly countdown: number | null;
  /** In the gap for an answer. */
  readonly isAnswer: boolean;
}

/** How a note is found again after an edit. */
interface Anchor {
  readonly id: string;
  readonly passIndex: number;
}

interface Take extends TakeWish {
  readonly performance: Performance;
  readonly report: TuneReport;
}

/** What of a plan is made to sound. */
interface TakeWish {
  readonly bpm: number;
  readonly isCompared: boolean;
  /** Bowed the other way round: every second time through a loop that flips, where it is learned in both directions. */
  readonly isTurned: boolean;
}

/** Told some forty times a second, at most half a second ahead of what is heard. */
const TOLD_KEPT = 60;
/** What is heard is never farther from what was told. */
const MAX_APART = 0.5;

/**
 * Plays a checked plan, and what becomes of it while it is edited. The page asks it where it is; it is the same with and
 * without a sound device.
 */
export class Player {
  private engine: Promise<Engine> | null = null;
  private sounding: Engine | null = null;
  private state = IDLE;
  private readonly listeners = new Set<() => void>();
  private readonly takes = new Map<number, Take>();
  private count = 0;
  private report: TuneReport | null = null;
  private settings: PlaySettings | null = null;
  /** Another plan that is heard every second time through a loop; null: the one that the settings name. */
  private other: TuneReport | null = null;
  /** In percent of the tempo wanted. */
  private practice = PRACTICE.goal as number;
  private anchors: { readonly first: Anchor; readonly last: Anchor | null } | null = null;
  /** What was told of late, oldest first: what is heard was made a moment ago. */
  private told: FromFiddle[] = [];
  private next: number | null = null;
  /** What was made has ended and is heard for a moment yet. */
  private ending: ReturnType<typeof setTimeout> | null = null;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): PlayerState => this.state;

  /**
   * From a note to another, or to the end; sound begins only upon a user's action.
   * @param practice percent of the tempo wanted at which it begins
   * @param other another plan of the same notes, heard by turns with this one where it loops
   */
  async play(
    report: TuneReport,
    settings: PlaySettings,
    span: Span | null,
    practice: number = PRACTICE.goal,
    other: TuneReport | null = null,
  ): Promise<void> {
    const { notes } = report.unrolled;
    if (notes.length === 0) return;
    this.report = report;
    this.settings = settings;
    this.practice = practice;
    this.other = other;
    this.anchors = span && {
      first: anchorOf(report, span.from),
      last: span.to < notes.length ? anchorOf(report, span.to - 1) : null,
    };
    this.set({ status: 'starting', rounds: 0 });
    this.engine ??= startEngine((from) => this.hear(from));
    this.sounding = await this.engine;
    if (this.state.status !== 'starting') return;
    this.sounding.tell({ kind: 'balance', balance: settings.balance });
    this.told = [];
    const wish = { bpm: this.startBpm(report), isCompared: false, isTurned: false };
    const id = this.take(report, wish);
    this.set({ status: 'playing', isSilent: this.sounding.isSilent, ...wish });
    this.sounding.tell({ kind: 'play', programme: this.programme(id), at: 0 });
    this.queue(id);
  }

  /** What was edited, or wished otherwise, is heard from where it is. */
  update(report: TuneReport, settings: PlaySettings, practice: number = PRACTICE.goal): void {
    const isSame = report === this.report && settings === this.settings && practice === this.practice;
    const hasNewTempo = report.settings.bpm !== this.report?.settings.bpm || practice !== this.practice;
    if (this.state.status !== 'playing' || !this.sounding || isSame) return;
    this.report = report;
    this.settings = settings;
    this.practice = practice;
    if (report.unrolled.notes.length === 0) {
      this.stop();
      return;
    }
    const start = this.startBpm(report);
    const { state } = this;
    const id = this.take(report, {
      bpm: hasNewTempo || settings.climb === 0 ? start : (state.bpm ?? start),
      isCompared: state.isCompared && this.compares(settings),
      isTurned: state.isTurned,
    });
    this.sounding.tell({ kind: 'balance', balance: settings.balance });
    this.sounding.tell({ kind: 'play', programme: this.programme(id), at: null });
    const { bpm, isCompared, isTurned } = this.takes.get(id)!;
    this.set({ bpm, isCompared, isTurned });
    this.queue(id);
  }

  /** Goes to a played note of the whole tune, still playing. */
  jump(index: number): void {
    if (this.state.status !== 'playing' || !this.report || !this.settings) return;
    void this.play(
      this.report,
      { ...this.settings, countIn: 0 },
      { from: index, to: this.report.unrolled.notes.length },
      this.practice,
      this.other,
    );
  }

  stop(): void {
    this.sounding?.tell({ kind: 'stop' });
    this.end();
  }

  close(): void {
    this.end();
    void this.engine?.then((engine) => engine.close());
    this.engine = null;
    this.sounding = null;
  }

  /** Where it is now, as it is heard; null while nothing is played. */
  where(): Moment | null {
    const heard = this.heard();
    const take = heard && this.takes.get(heard.from.programme);
    if (!take) return null;
    const { begins, ends, onsets, first } = take.performance;
    const { time } = heard;
    if (time < begins) return { index: null, share: 0, countdown: begins - time, isAnswer: false };
    let [low, high] = [0, onsets.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (onsets[middle]! <= time) low = middle;
      else high = middle - 1;
    }
    const next = onsets[low + 1] ?? ends;
    const share = next > onsets[low]! ? Math.min(1, Math.max(0, (time - onsets[low]!) / (next - onsets[low]!))) : 0;
    return { index: first + low, share, countdown: null, isAnswer: time > ends };
  }

  /** The report of what sounds now. */
  get sounds(): TuneReport | null {
    const heard = this.heard();
    return (heard && this.takes.get(heard.from.programme)?.report) ?? null;
  }

  /** What was told last of what is heard now, and the plan's time by now. */
  private heard(): { readonly from: FromFiddle; readonly time: number } | null {
    if (this.state.status !== 'playing' || !this.sounding) return null;
    const now = this.sounding.heard();
    const from = this.told.findLast(({ clock, isPlaying }) => isPlaying && clock <= now) ?? this.told[0];
    return from?.isPlaying
      ? { from, time: from.time + Math.min(Math.max(now - from.clock, -MAX_APART), MAX_APART) }
      : null;
  }

  private hear(from: FromFiddle): void {
    if (this.state.status !== 'playing') return;
    const last = this.told[this.told.length - 1];
    const hasTurned = last !== undefined && from.programme !== last.programme;
    if (!from.isPlaying && last) {
      const wait = Math.max(0, from.clock - (this.sounding?.heard() ?? 0));
      this.ending ??= setTimeout(() => this.end(), 1000 * wait);
      return;
    }
    if (!this.takes.has(from.programme)) return;
    clearTimeout(this.ending ?? undefined);
    this.ending = null;
    this.told = [...this.told, from].slice(-TOLD_KEPT);
    const take = this.takes.get(from.programme)!;
    if (from.rounds !== this.state.rounds || from.underruns !== this.state.underruns || hasTurned)
      this.set({
        rounds: from.rounds,
        underruns: from.underruns,
        bpm: take.bpm,
        isCompared: take.isCompared,
        isTurned: take.isTurned,
      });
    if (hasTurned && from.programme === this.next) this.queue(from.programme);
  }

  /** What takes over when the loop comes round, where that is not the same again. */
  private queue(current: number): void {
    const { settings, report, sounding } = this;
    this.next = null;
    if (!settings?.loop || !report || !sounding) return;
    const compares = this.compares(settings);
    const now = this.takes.get(current)!;
    const goal = report.settings.bpm;
    const turns = this.way(now.report) === 'both-ways';
    const hasClimbed = settings.climb === 0 || now.bpm >= goal;
    if (hasClimbed && !compares && !turns) return;
    const isCompared = compares && !now.isCompared;
    // Both ways are heard at one tempo before it climbs.
    const climbs = !hasClimbed && (!compares || now.isCompared);
    const bpm = climbs ? Math.min(goal, now.bpm * (1 + settings.climb / 100)) : now.bpm;
    this.next = this.take(report, { bpm, isCompared, isTurned: turns && !now.isTurned });
    sounding.tell({ kind: 'next', programme: this.programme(this.next) });
  }

  /** Two plans are heard by turns. */
  private compares(settings: PlaySettings): boolean {
    return this.other !== null || settings.compare !== null;
  }

  private startBpm(report: TuneReport): number {
    return (report.settings.bpm * this.practice) / 100;
  }

  /** How the loop comes back to its beginning. */
  private way(report: TuneReport): LoopWay {
    return this.settings?.loop ? loopWay(report, this.spanIn(report)) : 'round';
  }

  private take(report: TuneReport, { bpm, isCompared, isTurned }: TakeWish): number {
    const settings = this.settings!;
    const named = () => (settings.compare === null ? null : comparedReport(report, settings.compare));
    const other = isCompared ? (this.other ?? named()) : null;
    const chosen = other ?? report;
    const meant = meantFor(chosen.tune, settings.own ?? AS_PLANNED);
    const isAsWished = bpm === chosen.settings.bpm && (meant === chosen.tune || !hasHolds(meant));
    const played = isAsWished ? chosen : reportTune(meant, { ...chosen.settings, bpm });
    const taken = perform(played, {
      layers: new Set(settings.layers),
      span: this.spanIn(played),
      countIn: settings.countIn,
      answer: settings.answer,
      isHuman: true,
      liftsAtEnd: this.way(played) === 'retake',
      isTurned,
      ...(settings.a4 !== undefined && { a4: settings.a4 }),
    });
    const id = ++this.count;
    this.takes.set(id, { performance: taken, report: played, bpm, isCompared: other !== null, isTurned });
    for (const old of this.takes.keys()) if (old < id - 4) this.takes.delete(old);
    return id;
  }

  private programme(id: number) {
    return programmeOf(this.takes.get(id)!.performance, id, this.settings!.loop);
  }

  private spanIn({ unrolled: { notes } }: TuneReport): Span | null {
    if (!this.anchors) return null;
    const find = ({ id, passIndex }: Anchor) =>
      notes.findIndex((played) => played.passIndex === passIndex && played.ids.includes(id));
    const from = find(this.anchors.first);
    const to = this.anchors.last ? find(this.anchors.last) + 1 : notes.length;
    return from >= 0 && to > from ? { from, to } : null;
  }

  private end(): void {
    clearTimeout(this.ending ?? undefined);
    this.ending = null;
    this.told = [];
    this.next = null;
    this.takes.clear();
    this.other = null;
    this.set({ ...IDLE, underruns: this.state.underruns });
  }

  private set(more: Partial<PlayerState>): void {
    this.state = { ...this.state, ...more };
    for (const listener of this.listeners) listener();
  }
}

function anchorOf({ unrolled }: TuneReport, index: number): Anchor {
  const { note, passIndex } = unrolled.notes[index]!;
  return { id: note.id, passIndex };
}
