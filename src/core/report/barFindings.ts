import { add, compare, subtract, ZERO } from '#core/base';
import { rebar } from '#core/editing';
import { type BarSumFault, barSumFaults, type Tune, type Unrolled } from '#core/tune';
import { withNoteEdits } from './edits';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { type Mend, mendBy, outcomeOf } from './mend';

/** More bars of one kind than these are not told one by one. */
const BARS_TOLD = 6;

/**
 * Bars that do not add up, and joins of passes whose last bar and pickup make no whole bar, on every path through the
 * repeats. A join is told only where no bar beside it is itself at fault, and where the tune begins again as a note.
 */
export function barFindings(input: FindingInput): Finding[] {
  const { tune, unrolled } = input;
  const faults = barSumFaults(tune);
  return faults.slice(0, BARS_TOLD).flatMap((fault): Finding[] => {
    const index = noteOfBar(tune, unrolled, fault.barId);
    if (index === null) return [];
    const ids = idsOfBar(tune, fault.barId);
    const common = {
      ids: ids.length > 0 ? ids : [unrolled.notes[index]!.note.id],
      spot: spotOf(input, index),
      length: fault.length,
      expected: fault.expected,
    };
    if (fault.kind !== 'join') {
      const code = fault.kind === 'long' ? 'bar-long' : 'bar-short';
      return [{ code, severity: 'care', ...common, mends: rebarMends(input, fault) }];
    }
    const to = fault.again ? null : `${fault.to.part}${fault.to.pass}`;
    const severity = fault.again ? 'note' : 'care';
    return [
      {
        code: 'join-does-not-add-up',
        severity,
        ...common,
        from: `${fault.from.part}${fault.from.pass}`,
        to,
        mends: fitMends(input, fault),
      },
    ];
  });
}

/** The last note of the bar before the join made longer or shorter by what is missing, where something is left of it. */
function fitMends(input: FindingInput, fault: Extract<BarSumFault, { kind: 'join' }>): Mend[] {
  const { tune } = input;
  const ids = idsOfBar(tune, fault.barId);
  const last = tune.parts.flatMap(({ events }) => events).find(({ id }) => id === ids[ids.length - 1]);
  if (last?.kind !== 'note' || last.tuplet) return [];
  const duration = add(last.duration, subtract(fault.expected, fault.length));
  if (compare(duration, ZERO) <= 0) return [];
  const notes = [{ id: last.id, duration }];
  const { figures } = input.recompute(withNoteEdits(tune, notes));
  return [mendBy(input, { deed: 'fit-last-note', notes }, { outcome: outcomeOf(figures) })];
}

function rebarMends(input: FindingInput, fault: BarSumFault): Mend[] {
  // Where beats fall moves with the bar lines, and under a lilt the lengths of notes with them.
  const { figures } = input.recompute(rebar(input.tune, fault.barId));
  return [mendBy(input, { deed: 'rebar', barId: fault.barId }, { outcome: outcomeOf(figures) })];
}

function idsOfBar(tune: Tune, barId: string): string[] {
  for (const { events } of tune.parts) {
    const from = events.findIndex(({ id }) => id === barId);
    if (from < 0) continue;
    const next = events.findIndex(({ kind }, i) => i > from && kind === 'bar');
    return events.slice(from, next < 0 ? events.length : next).flatMap(({ kind, id }) => (kind === 'note' ? [id] : []));
  }
  return [];
}

/** The played note that stands in a bar, or before it where the bar has none. */
function noteOfBar(tune: Tune, { notes }: Unrolled, barId: string): number | null {
  const inBar = new Set(idsOfBar(tune, barId));
  const within = notes.findIndex(({ ids }) => ids.some((id) => inBar.has(id)));
  if (within >= 0) return within;
  const events = tune.parts.flatMap((part) => part.events);
  const bar = events.findIndex(({ id }) => id === barId);
  const before = events.slice(0, bar).findLast(({ kind }) => kind === 'note');
  const index = before ? notes.findIndex(({ ids }) => ids.includes(before.id)) : -1;
  return index >= 0 ? index : null;
}
