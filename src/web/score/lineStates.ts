import { type NoteState, sameShown } from '#core/noteStates';
import type { LineSpec } from './lines';

type States = ReadonlyMap<string, NoteState>;

/**
 * Cuts states into lines, and gives the earlier value for each line in which none changed, so that nothing of it is
 * drawn again. The number of the played note is left out of account: it shifts with every note put in before, and on a
 * line only its being equal counts.
 */
export function lineStatesKeeper(): (line: LineSpec, states: States) => States {
  const kept = new Map<string, { readonly line: LineSpec; readonly all: States; readonly cut: States }>();
  return (line, states) => {
    const before = kept.get(line.id);
    if (before?.line === line && before.all === states) return before.cut;
    const cut = before && areSame(line, before.cut, states) ? before.cut : cutOut(line, states);
    kept.set(line.id, { line, all: states, cut });
    return cut;
  };
}

function cutOut(line: LineSpec, states: States): States {
  const cut = new Map<string, NoteState>();
  for (const { events } of line.bars)
    for (const { id } of events) {
      const state = states.get(id);
      if (state) cut.set(id, state);
    }
  return cut;
}

/** Whether a line's states are those of the earlier cut. */
function areSame(line: LineSpec, cut: States, states: States): boolean {
  let size = 0;
  for (const { events } of line.bars)
    for (const { id } of events) {
      const [a, b] = [cut.get(id), states.get(id)];
      if (!a !== !b || (a && b && !sameShown(a, b))) return false;
      if (a) size += 1;
    }
  return size === cut.size;
}
