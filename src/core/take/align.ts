import type { ExpectedNote } from './expected';
import type { Scores } from './scores';
import { HOP_SECONDS } from './spectra';

// Looked up once: they are called for millions of times.
const { abs, exp, log, max, min, sqrt } = Math;

/** Nats for a frame that agrees fully, against one that does not at all. Trials. */
const WEIGHT = 4;
/** What lies between notes, before and after them may sound as it likes: strings ring on, people talk. */
const BETWEEN_WEIGHT = 1.4;
/** Frames of a long note depend on each other: all of it weighs no more than so many. */
const MOST_FRAMES = 25;
/** A beginning where much begins, and how much that is. */
const BEGINNING = { stroke: 3, slur: 1.2, full: 0.12, none: 0.35, least: 0.03, frames: 3 } as const;
/** What a beginning is worth at most. */
const MOST_BONUS = BEGINNING.stroke * (1.5 - BEGINNING.none);
/** Standard deviation of the logarithm of a length, and of frames by which its ends are missed. */
const LENGTH = { log: 0.16, frames: 1.5, tail: 2 } as const;
/**
 * Nats that it costs to leave a note out, to add one, to go elsewhere, and to land where no bar or pass begins; to begin
 * elsewhere costs more than to pass a pass over later, since equal passes are told apart by nothing else.
 */
const COST = {
  leftOut: 9,
  leftOutMore: 7,
  added: 9,
  elsewhere: 14,
  intoBar: 1,
  intoMiddle: 3,
  intoFirst: 18,
  unfinished: 8,
} as const;
/** Nats for each natural unit of the logarithm of how far one goes: of equal places the nearer one is more likely. */
const FAR = 0.6;
/** Shortest notes: seconds, and share of the plan's. Longest: so many times the plan's, and seconds. */
const SHORTEST = { frames: 3, share: 0.3 } as const;
const LONGEST = { times: 3, frames: 50 } as const;
const ADDED = { least: 4, most: 90 } as const;
/** Paths so much worse than the best are given up. */
const BEAM = 30;
/** And so, those in the same note that began at another time: from now on they differ by its length alone. */
const BESIDE = 5;
/** How quickly the tempo follows what is played, a second of music. */
const FOLLOW = 0.35;
const MOST_TEMPO = 0.9;
/** Tempos at which a take may begin, against the plan’s. */
const TEMPO_COST = 4;
const FIRST_TEMPOS = [0, -0.2, 0.2, -0.4, 0.4] as const;

/** What follows the last note must have been better than it for so long before it counts as played out. */
const ENDED_FRAMES = 6;

/** In the place of how many notes were left out: the path comes from elsewhere. */
const JUMPED = -1;

/** A note as it was come to: which, from which frame to which. */
export interface Visit {
  /** In the expected notes; null: something that is not in the plan. */
  readonly note: number | null;
  readonly from: number;
  readonly to: number;
  /** How the path came here: notes left out before it, or a jump from elsewhere. */
  readonly leftOut: number;
  readonly isJump: boolean;
}

/**
 * The most likely way of a player through the plan: a semi-Markov model over frames. A note of the plan that sounds from
 * frame a to b scores WEIGHT·Σ agreement, less ½(ln((b − a)⁄e)⁄σ)² with a straight tail, for its length e at the tempo
 * that the path has followed so far; a note may be left out (held over or passed over), added, and the player may stop
 * and go on anywhere, each for a cost. Viterbi, a frame at a time; paths far behind the best are given up (Ostendorf and
 * others, “From HMMs to segment models”, 1996). Time O(paths alive) a frame.
 */
export class Alignment {
  private readonly frames: Float64Array;
  private readonly weights: Float64Array;
  // Beginnings of notes on some path, in order of time.
  private readonly note: number[] = [];
  private readonly time: number[] = [];
  private readonly score: number[] = [];
  private readonly base: number[] = [];
  private readonly previous: number[] = [];
  private readonly tempo: number[] = [];
  /** How many times longer than planned notes are at it. */
  private readonly pace: number[] = [];
  private readonly leftOut: number[] = [];
  private readonly isJump: boolean[] = [];
  private alive: number[] = [];
  /** How much began in the last frames. */
  private readonly lately: number[] = [];
  /** Best place between notes, and where it came from. */
  private between = { score: -Infinity, node: -1 };
  private after = { score: -Infinity, node: -1 };
  private readonly candidates: {
    score: Float64Array;
    from: Int32Array;
    tempo: Float64Array;
    leftOut: Int8Array;
  };
  private readonly touched: number[] = [];
  /** Of all paths that are in a note now, how good the best is. */
  private readonly bestIn: Float64Array;

  constructor(
    private readonly notes: readonly ExpectedNote[],
    private readonly scores: Scores,
  ) {
    const states = 2 * notes.length;
    this.bestIn = new Float64Array(states);
    this.frames = Float64Array.from(notes, ({ seconds }) => max(1, seconds / HOP_SECONDS));
    this.weights = this.frames.map((e) => WEIGHT * min(1, MOST_FRAMES / e));
    this.candidates = {
      score: new Float64Array(states).fill(-Infinity),
      from: new Int32Array(states),
      tempo: new Float64Array(states),
      leftOut: new Int8Array(states),
    };
  }

  /** Decides about frame `t`: may a note begin here? Scores of all frames before it are there. @param rise how much begins */
  advance(t: number, rise: number): void {
    const { notes, scores, frames } = this;
    const count = notes.length;
    const { nothing } = scores;
    const gap = t > 0 ? BETWEEN_WEIGHT * (scores.before(t, nothing) - scores.before(t - 1, nothing)) : 0;
    this.between.score += gap;
    this.after.score += gap;
    const before = BETWEEN_WEIGHT * scores.before(t, nothing);
    let best = max(this.between.score, this.after.score);
    const stay: number[] = [];
    const runs: number[] = [];
    const hopes: number[] = [];
    this.bestIn.fill(-Infinity);
    for (const node of this.alive) {
      const state = this.note[node]!;
      const d = t - this.time[node]!;
      const run = this.runOf(node, t);
      const e = state < count ? frames[state]! * this.pace[node]! : 0;
      if (d > (state < count ? LONGEST.times * e + LONGEST.frames : ADDED.most)) continue;
      const hoped = state < count && d > e ? run + lengthCost(d, e) : run;
      if (hoped > best) best = hoped;
      if (hoped > this.bestIn[state]!) this.bestIn[state] = hoped;
      hopes.push(hoped);
      stay.push(node);
      runs.push(run);
    }
    const least = best - BEAM;
    // What is not in the plan is heard to begin, and so is a stroke with which one goes on elsewhere.
    const begins = rise >= BEGINNING.least && this.lately.every((earlier) => rise >= earlier);
    this.lately.push(rise);
    if (this.lately.length > BEGINNING.frames) this.lately.shift();
    const kept: number[] = [];
    for (let i = 0; i < stay.length; i++) {
      const node = stay[i]!;
      if (hopes[i]! < max(least, this.bestIn[this.note[node]!]! - BESIDE)) continue;
      kept.push(node);
      this.leave(node, t, runs[i]!, least, begins);
    }
    this.alive = kept;
    if (t === 0 || before >= least - COST.intoFirst) this.begin(before, t === 0);
    const stoppedAt = this.stoppedAt();
    for (let j = 0; begins && j < count && this.between.score >= least; j++) {
      const into = this.between.score - intoCost(notes[j]!) - FAR * log(1 + abs(j - stoppedAt));
      if (into < least) continue;
      this.offer(j, into, this.between.node, this.between.node < 0 ? 0 : this.tempo[this.between.node]!, JUMPED);
    }
    const { candidates } = this;
    for (const state of this.touched) {
      const bonus = state < count ? beginBonus(notes[state]!, rise) : 0;
      const score = candidates.score[state]! + bonus;
      if (score >= max(least, this.bestIn[state]! - BESIDE)) this.create(state, t, score);
      candidates.score[state] = -Infinity;
    }
    this.touched.length = 0;
  }

  /** Whether the last note of the plan has most likely been played out, at frame `t`. */
  isOver(t: number): boolean {
    if (this.isLastPlayed(t)) return true;
    const { score, node } = this.after;
    if (node < 0 || t - this.afterFrom < ENDED_FRAMES || this.note[node] !== this.notes.length - 1) return false;
    return this.alive.every((other) => this.runOf(other, t) <= score);
  }

  /** Whether the best path is in the last note and its time is up: it may ring on. */
  private isLastPlayed(t: number): boolean {
    let [best, most] = [-1, -Infinity];
    for (const node of this.alive) {
      const run = this.runOf(node, t);
      if (run > most) [best, most] = [node, run];
    }
    const last = this.notes.length - 1;
    if (best < 0 || this.note[best] !== last) return false;
    return t - this.time[best]! >= this.frames[last]! * this.pace[best]! + ENDED_FRAMES;
  }

  /** The note at which the best path stopped that is between notes now. */
  private stoppedAt(): number {
    const state = this.note[this.between.node] ?? 0;
    return state < this.notes.length ? state : state - this.notes.length;
  }

  /** How good a path is that is still in its last note, without what its length will cost. */
  private runOf(node: number, t: number): number {
    const state = this.note[node]!;
    const weight = state < this.notes.length ? this.weights[state]! : WEIGHT;
    return this.score[node]! + weight * (this.scores.before(t, this.columnOf(state)) - this.base[node]!);
  }

  /** Where the scores of a note, or of one added after it, stand. */
  private columnOf(state: number): number {
    return state < this.notes.length ? this.scores.kindOf[state]! : this.scores.added;
  }

  /** The way that was most likely, when no frame follows. */
  finish(t: number): Visit[] {
    const { notes, frames } = this;
    const count = notes.length;
    let best = { score: -Infinity, node: -1, to: t };
    for (const node of this.alive) {
      const state = this.note[node]!;
      if (state >= count) continue;
      const d = t - this.time[node]!;
      const run = this.runOf(node, t);
      const e = frames[state]! * this.pace[node]!;
      const score = run + (d > e ? lengthCost(d, e) : 0) - (state === count - 1 ? 0 : COST.unfinished);
      if (score > best.score) best = { score, node, to: t };
    }
    let to = best.to;
    let node = best.node;
    if (this.after.score >= best.score && this.after.node >= 0) {
      node = this.after.node;
      to = this.afterFrom;
    }
    const visits: Visit[] = [];
    while (node >= 0) {
      const state = this.note[node]!;
      const isNote = state < count;
      visits.push({
        note: isNote ? state : null,
        from: this.time[node]!,
        to,
        leftOut: this.leftOut[node]!,
        isJump: this.isJump[node]!,
      });
      to = this.isJump[node]! ? this.endBefore[node]! : this.time[node]!;
      node = this.previous[node]!;
    }
    return visits.reverse();
  }

  private afterFrom = 0;
  private betweenFrom = 0;
  private readonly endBefore: number[] = [];

  /** From a note that may end here to what may follow it. */
  private leave(node: number, t: number, run: number, least: number, begins: boolean): void {
    const { notes, frames } = this;
    const count = notes.length;
    const state = this.note[node]!;
    const d = t - this.time[node]!;
    const tempo = this.tempo[node]!;
    if (state >= count) {
      if (d >= ADDED.least && state - count + 1 < count) this.offer(state - count + 1, run, node, tempo, 0);
      return;
    }
    const pace = this.pace[node]!;
    const e = frames[state]! * pace;
    if (d < max(SHORTEST.frames, SHORTEST.share * e)) return;
    const end = run + lengthCost(d, e);
    const share = 1 - exp(-FOLLOW * frames[state]! * HOP_SECONDS);
    const off = max(-0.35, min(0.35, log(d / e)));
    const follows = max(-MOST_TEMPO, min(MOST_TEMPO, tempo + share * off));
    if (state + 1 < count) {
      this.offer(state + 1, end, node, follows, 0);
      if (begins) this.offer(count + state, end - COST.added, node, follows, 0);
    }
    let held = e;
    for (let more = 1; more <= 2 && state + 1 + more < count; more++) {
      held += frames[state + more]! * pace;
      const cost = COST.leftOut + (more - 1) * COST.leftOutMore;
      if (run - cost + MOST_BONUS < least) break;
      this.offer(state + 1 + more, max(end, run + lengthCost(d, held)) - cost, node, tempo, more);
    }
    if (end - COST.elsewhere > this.between.score) {
      this.between = { score: end - COST.elsewhere, node };
      this.betweenFrom = t;
    }
    const over = end - (state === count - 1 ? 0 : COST.unfinished);
    if (over > this.after.score) {
      this.after = { score: over, node };
      this.afterFrom = t;
    }
  }

  /** The take may begin here, with the first note or elsewhere, at several tempos. */
  private begin(before: number, isFirst: boolean): void {
    this.offer(0, before, -1, 0, JUMPED);
    if (isFirst || this.notes.length === 0) return;
    for (let j = 1; j < this.notes.length; j++) {
      if (!this.notes[j]!.isBarStart) continue;
      this.offer(j, before - COST.intoFirst - intoCost(this.notes[j]!), -1, 0, JUMPED);
    }
  }

  private offer(state: number, score: number, from: number, tempo: number, leftOut: number): void {
    const { candidates } = this;
    if (candidates.score[state] === -Infinity) this.touched.push(state);
    else if (candidates.score[state]! >= score) return;
    candidates.score[state] = score;
    candidates.from[state] = from;
    candidates.tempo[state] = tempo;
    candidates.leftOut[state] = leftOut;
  }

  private create(state: number, t: number, score: number): void {
    const { candidates } = this;
    const from = candidates.from[state]!;
    // At the very first note nothing is known of the tempo yet.
    const tempos = from < 0 ? FIRST_TEMPOS : [0];
    for (const more of tempos) {
      const node = this.note.length;
      this.note.push(state);
      this.time.push(t);
      this.score.push(score - TEMPO_COST * abs(more));
      this.base.push(this.scores.before(t, this.columnOf(state)));
      this.previous.push(from);
      this.tempo.push(candidates.tempo[state]! + more);
      this.pace.push(exp(candidates.tempo[state]! + more));
      this.leftOut.push(max(0, candidates.leftOut[state]!));
      this.isJump.push(candidates.leftOut[state] === JUMPED && from >= 0);
      this.endBefore.push(candidates.leftOut[state] === JUMPED ? this.betweenFrom : t);
      this.alive.push(node);
    }
  }
}

function intoCost({ isBarStart, isPassStart }: ExpectedNote): number {
  return isPassStart ? 0 : isBarStart ? COST.intoBar : COST.intoMiddle;
}

/** What a length of d frames costs where e were expected: a normal distribution of its logarithm with straight tails. */
function lengthCost(d: number, e: number): number {
  const ends = LENGTH.frames / e;
  const z = abs(log(d / e)) / sqrt(LENGTH.log * LENGTH.log + ends * ends);
  return z <= LENGTH.tail ? -(z * z) / 2 : -LENGTH.tail * z + (LENGTH.tail * LENGTH.tail) / 2;
}

function beginBonus({ startsStroke }: ExpectedNote, rise: number): number {
  const { stroke, slur, full, none } = BEGINNING;
  return (startsStroke ? stroke : slur) * (min(1.5, rise / full) - none);
}
