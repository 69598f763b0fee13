import { isMissing, type SkillFigures } from './skills';

/** A tune that may lie on the way. */
export interface Stone {
  readonly id: string;
  readonly needs: SkillFigures;
}

/** Most states that are looked at: a book of thousands is searched in about a second. */
const MAX_STATES = 600;

interface State {
  /** What was shown, and what the tunes up to here have added. */
  readonly shown: SkillFigures;
  readonly chain: readonly string[];
  readonly missing: number;
}

/**
 * The shortest chain of tunes to one that is wanted, in which each, the wanted one too, adds at most one skill that is missing
 * by then: a search that looks at short chains and those that miss little first (A*, since each tune adds one skill and so at
 * least `missing - 1` are left). A tune adds only the skill that was missing, to its own figure; of those that add the same
 * skill only the highest figure is looked at, since who has it has the lower ones, the first of the book where several have it.
 * @returns the chain without the wanted tune, empty where at most one skill is missing; null: the book has no such chain, or none
 * was found among `MAX_STATES`
 * Time O(m·t·k) for m states, t tunes and k skills.
 */
export function steppingStones(
  wanted: SkillFigures,
  shown: SkillFigures,
  book: readonly Stone[],
): readonly string[] | null {
  const needed = Object.entries(wanted);
  const stones = book.map(({ id, needs }) => ({ id, needs: Object.entries(needs) }));
  const open: State[] = [{ shown, chain: [], missing: countMissing(needed, shown, Infinity) }];
  const seen = new Set<string>([keyOf(shown)]);
  for (let states = 0; open.length > 0 && states < MAX_STATES; states++) {
    const state = takeNearest(open);
    if (state.missing <= 1) return state.chain;
    for (const [name, { figure, id }] of nextSteps(stones, state.shown)) {
      const next = { ...state.shown, [name]: figure };
      const key = keyOf(next);
      if (seen.has(key)) continue;
      seen.add(key);
      open.push({ shown: next, chain: [...state.chain, id], missing: countMissing(needed, next, Infinity) });
    }
  }
  return null;
}

/** The tune that adds each skill furthest, of those that miss just one. */
function nextSteps(
  stones: readonly { readonly id: string; readonly needs: readonly (readonly [string, number])[] }[],
  shown: SkillFigures,
): Map<string, { readonly figure: number; readonly id: string }> {
  const steps = new Map<string, { figure: number; id: string }>();
  for (const { id, needs } of stones) {
    if (countMissing(needs, shown, 2) !== 1) continue;
    const [name, figure] = needs.find(([own, need]) => isMissing(own, need, shown[own] ?? 0))!;
    if (figure > (steps.get(name)?.figure ?? 0)) steps.set(name, { figure, id });
  }
  return steps;
}

/** How many are missing; counting ends at `enough`. */
function countMissing(needs: readonly (readonly [string, number])[], shown: SkillFigures, enough: number): number {
  let count = 0;
  for (const [name, figure] of needs) if (isMissing(name, figure, shown[name] ?? 0) && ++count >= enough) break;
  return count;
}

/** The state from which the shortest way can still be shortest; the longest chain of those. */
function takeNearest(open: State[]): State {
  const length = ({ chain, missing }: State) => chain.length + Math.max(0, missing - 1);
  let best = 0;
  for (let i = 1; i < open.length; i++) {
    const [a, b] = [length(open[i]!), length(open[best]!)];
    if (a < b || (a === b && open[i]!.chain.length > open[best]!.chain.length)) best = i;
  }
  return open.splice(best, 1)[0]!;
}

const keyOf = (shown: SkillFigures): string =>
  Object.keys(shown)
    .sort()
    .map((name) => `${name}=${shown[name]}`)
    .join(' ');
