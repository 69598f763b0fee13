import type { ExpectedNote } from './expected';
import { NOWHERE, Paths } from './paths';
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
const FIRST_TEMPOS: readonly number[] = [0, -0.2, 0.2, -0.4, 0.4];
const ONE_TEMPO: readonly number[] = [0];

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
  /** How far the tempo goes towards the length of each note. */
  private readonly follow: Float64Array;
  private readonly paths = new Paths();
  private alive: number[] = [];
  /** How much began in the last frames. */
  private readonly lately: number[] = [];
  /** Best place between notes, and where it came from. */
  private between = { score: -Infinity, node: NOWHERE };
  private after = { score: -Infinity, node: NOWHERE };
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
    this.follow = this.frames.map((e) => 1 - exp(-FOLLOW * e * HOP_SECONDS));
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
    const { notes, scores, frames, paths } = this;
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
    const { bestIn } = this;
    bestIn.fill(-Infinity);
    const { note, time, pace } = paths;
    for (const node of this.alive) {
      const state = note[node]!;
      const d = t - time[node]!;
      const e = state < count ? frames[state]! * pace[node]! : 0;
      if (d > (state < count ? LONGEST.times * e + LONGEST.frames : ADDED.most)) continue;
      const run = this.runOf(node, t);
      const hoped = state < count && d > e ? run + lengthCost(d, e) : run;
      if (hoped > best) best = hoped;
      if (hoped > bestIn[state]!) bestIn[state] = hoped;
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
      const hoped = hopes[i]!;
      if (hoped < least || hoped < bestIn[note[node]!]! - BESIDE) continue;
      kept.push(node);
      this.leave(node, t, runs[i]!, least, begins);
    }
    this.alive = kept;
    if (t === 0 || before >= least - COST.intoFirst) this.begin(before, t === 0);
    if (begins && this.between.score >= least) this.goOn(least);
    const { candidates } = this;
    for (const state of this.touched) {
      const bonus = state < count ? beginBonus(notes[state]!, rise) : 0;
      const score = candidates.score[state]! + bonus;
      if (score >= max(least, this.bestIn[state]! - BESIDE)) this.create(state, t, score);
      candidates.score[state] = -Infinity;
    }
    this.touched.length = 0;
    if (this.paths.isFull) this.clear();
  }

  /** Whether the last note of the plan has most likely been played out, at frame `t`. */
  isOver(t: number): boolean {
    if (this.isLastPlayed(t)) return true;
    const { paths } = this;
    const { score, node } = this.after;
    if (node < 0 || t - this.afterFrom < ENDED_FRAMES || paths.note[node] !== this.notes.length - 1) return false;
    return this.alive.every((other) => this.runOf(other, t) <= score);
  }

  /** Whether the best path is in the last note and its time is up: it may ring on. */
  private isLastPlayed(t: number): boolean {
    let [best, most] = [-1, -Infinity];
    for (const node of this.alive) {
      const run = this.runOf(node, t);
      if (run > most) [best, most] = [node, run];
    }
    const { paths } = this;
    const last = this.notes.length - 1;
    if (best < 0 || paths.note[best] !== last) return false;
    return t - paths.time[best]! >= this.frames[last]! * paths.pace[best]! + ENDED_FRAMES;
  }

  /** The note at which the best path stopped that is between notes now. */
  private stoppedAt(): number {
    const state = this.paths.note[this.between.node] ?? 0;
    return state < this.notes.length ? state : state - this.notes.length;
  }

  /** How good a path is that is still in its last note, without what its length will cost. */
  private runOf(node: number, t: number): number {
    const { paths } = this;
    const state = paths.note[node]!;
    const weight = state < this.notes.length ? this.weights[state]! : WEIGHT;
    return paths.score[node]! + weight * (this.scores.before(t, this.columnOf(state)) - paths.base[node]!);
  }

  /** Where the scores of a note, or of one added after it, stand. */
  private columnOf(state: number): number {
    return state < this.notes.length ? this.scores.kindOf[state]! : this.scores.added;
  }

  /** The way that was most likely, when no frame follows. */
  finish(t: number): Visit[] {
    const { notes, frames, paths } = this;
    const count = notes.length;
    let best = { score: -Infinity, node: NOWHERE, to: t };
    for (const node of this.alive) {
      const state = paths.note[node]!;
      if (state >= count) continue;
      const d = t - paths.time[node]!;
      const run = this.runOf(node, t);
      const e = frames[state]! * paths.pace[node]!;
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
      const state = paths.note[node]!;
      const isNote = state < count;
      visits.push({
        note: isNote ? state : null,
        from: paths.time[node]!,
        to,
        leftOut: paths.leftOut[node]!,
        isJump: paths.isJump[node] === 1,
      });
      to = paths.isJump[node]! ? paths.endBefore[node]! : paths.time[node]!;
      node = paths.previous[node]!;
    }
    return visits.reverse();
  }

  private afterFrom = 0;
  private betweenFrom = 0;

  /** From a note that may end here to what may follow it. */
  private leave(node: number, t: number, run: number, least: number, begins: boolean): void {
    const { notes, frames, paths } = this;
    const count = notes.length;
    const state = paths.note[node]!;
    const d = t - paths.time[node]!;
    const tempo = paths.tempo[node]!;
    if (state >= count) {
      if (d >= ADDED.least && state - count + 1 < count) this.offer(state - count + 1, run, node, tempo, 0);
      return;
    }
    const pace = paths.pace[node]!;
    const e = frames[state]! * pace;
    if (d < max(SHORTEST.frames, SHORTEST.share * e)) return;
    const end = run + lengthCost(d, e);
    if (state + 1 < count) {
      const off = max(-0.35, min(0.35, log(d / e)));
      const follows = max(-MOST_TEMPO, min(MOST_TEMPO, tempo + this.follow[state]! * off));
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
    this.offer(0, before, NOWHERE, 0, JUMPED);
    if (isFirst || this.notes.length === 0) return;
    for (let j = 1; j < this.notes.length; j++) {
      if (!this.notes[j]!.isBarStart) continue;
      this.offer(j, before - COST.intoFirst - intoCost(this.notes[j]!), NOWHERE, 0, JUMPED);
    }
  }

  /** Who stopped may go on anywhere. */
  private goOn(least: number): void {
    const { score, node } = this.between;
    const stoppedAt = this.stoppedAt();
    const tempo = node < 0 ? 0 : this.paths.tempo[node]!;
    for (const [j, note] of this.notes.entries()) {
      const into = score - intoCost(note) - FAR * log(1 + abs(j - stoppedAt));
      if (into >= least) this.offer(j, into, node, tempo, JUMPED);
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
    const { candidates, paths } = this;
    const from = candidates.from[state]!;
    // At the very first note nothing is known of the tempo yet.
    const tempos = from < 0 ? FIRST_TEMPOS : ONE_TEMPO;
    const base = this.scores.before(t, this.columnOf(state));
    const cameFrom = candidates.leftOut[state]!;
    for (const more of tempos) {
      const node = paths.add();
      const tempo = candidates.tempo[state]! + more;
      paths.note[node] = state;
      paths.time[node] = t;
      paths.score[node] = score - TEMPO_COST * abs(more);
      paths.base[node] = base;
      paths.previous[node] = from;
      paths.tempo[node] = tempo;
      paths.pace[node] = exp(tempo);
      paths.leftOut[node] = max(0, cameFrom);
      paths.isJump[node] = cameFrom === JUMPED && from >= 0 ? 1 : 0;
      paths.endBefore[node] = cameFrom === JUMPED ? this.betweenFrom : t;
      this.alive.push(node);
    }
  }

  /** Lets go of beginnings that lead nowhere any more. */
  private clear(): void {
    const { alive, between, after } = this;
    const numbers = this.paths.keep([...alive, between.node, after.node]);
    this.alive = alive.map((node) => numbers[node]!);
    if (between.node >= 0) between.node = numbers[between.node]!;
    if (after.node >= 0) after.node = numbers[after.node]!;
  }
}

function intoCost({ isBarStart, isPassStart }: ExpectedNote): number {
  return isPassStart ? 0 : isBarStart ? COST.intoBar : COST.intoMiddle;
}

/** What a length of d frames costs where e were expected: a normal distribution of its logarithm with straight tails. */
function lengthCost(d: number, e: number): number {
  const ends = LENGTH.frames / e;
  const off = log(d / e);
  const square = (off * off) / (LENGTH.log * LENGTH.log + ends * ends);
  const tail = LENGTH.tail * LENGTH.tail;
  return square <= tail ? -square / 2 : -LENGTH.tail * sqrt(square) + tail / 2;
}

function beginBonus({ startsStroke }: ExpectedNote, rise: number): number {
  const { stroke, slur, full, none } = BEGINNING;
  return (startsStroke ? stroke : slur) * (min(1.5, rise / full) - none);
}
