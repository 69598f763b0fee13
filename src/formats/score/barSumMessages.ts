import { barSumFaults, type Tune } from '#core/tune';
import { type ImportMessage, importMessage, type TextPositions } from '../text';

/** Bars and joins of passes that do not add up, at the place of the bar in the text. */
export function barSumMessages(
  tune: Tune,
  offsets: ReadonlyMap<string, number>,
  positions: TextPositions,
): ImportMessage[] {
  return barSumFaults(tune).map((fault) => {
    const { length, expected } = fault;
    const at = positions.at(offsets.get(fault.barId) ?? 0);
    if (fault.kind !== 'join')
      return importMessage(at, { what: fault.kind === 'short' ? 'bar-short' : 'bar-long', length, expected });
    if (fault.again) return importMessage(at, { what: 'join-again', length, expected });
    const [from, to] = [`${fault.from.part}${fault.from.pass}`, `${fault.to.part}${fault.to.pass}`];
    return importMessage(at, { what: 'join', from, to, length, expected });
  });
}
