import type { Place } from '#core/tune';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { mendBy } from './mend';

/** Notes that the left hand cannot take as they stand, by kind. */
export function handFindings(input: FindingInput): Finding[] {
  const { unrolled, fingers } = input;
  const found = new Map<string, { code: Finding['code']; ids: string[]; index: number; place: Place }>();
  for (const { index, note } of unrolled.notes) {
    const fingering = fingers.get(note.id)!;
    const { reachable, pinMisfits, extended, stops, goesAgainst } = fingering;
    if (reachable && !pinMisfits && !extended && !goesAgainst && stops.length === 0) continue;
    const codes: ('out-of-reach' | 'stops-out-of-reach' | 'finger-misfits' | 'hand-forbids' | 'extended-fourth')[] = [];
    if (!reachable) codes.push('out-of-reach');
    else if (stops.includes(null)) codes.push('stops-out-of-reach');
    if (pinMisfits) codes.push('finger-misfits');
    if (goesAgainst) codes.push('hand-forbids');
    if (extended) codes.push('extended-fourth');
    for (const code of codes) {
      const entry = found.get(code) ?? { code, ids: [], index, place: fingering.place };
      if (!entry.ids.includes(note.id)) entry.ids.push(note.id);
      found.set(code, entry);
    }
  }
  return [...found.values()].map(({ code, ids, index, place }): Finding => {
    const common = { ids, spot: spotOf(input, index), mends: [] };
    if (code === 'extended-fourth') return { code, severity: 'note', string: place, ...common };
    const severity = code === 'out-of-reach' || code === 'hand-forbids' ? 'problem' : 'care';
    return {
      code: code as 'out-of-reach' | 'stops-out-of-reach' | 'finger-misfits' | 'hand-forbids',
      severity,
      ...common,
    };
  });
}

/** Strings that were not said when their notes were called out: told once, until they are confirmed or set otherwise. */
export function inferredStrings(input: FindingInput): Finding[] {
  const guessed = input.unrolled.notes.filter(({ note }) => note.marks?.includes('inferred-string'));
  const ids = [...new Set(guessed.map(({ note }) => note.id))];
  if (ids.length === 0) return [];
  const spot = spotOf(input, guessed[0]!.index);
  const notes = ids.map((id) => ({ id, unmark: 'inferred-string' as const }));
  const mends = [mendBy(input, { deed: 'confirm-string', notes }, { index: guessed[0]!.index })];
  return [{ code: 'string-inferred', severity: 'note', ids, spot, notes: ids.length, mends }];
}
