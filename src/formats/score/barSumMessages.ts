import { divide, formatFraction, type Fraction, fraction } from '#core/base';
import { barSumFaults, type Tune } from '#core/tune';
import { type ImportMessage, importMessage, type TextPositions } from '../text';

/** Bars and joins of passes that do not add up, at the place of the bar in the text. */
export function barSumMessages(
  tune: Tune,
  offsets: ReadonlyMap<string, number>,
  positions: TextPositions,
): ImportMessage[] {
  return barSumFaults(tune).map((fault) => {
    const { line, column } = positions.at(offsets.get(fault.barId) ?? 0);
    const length = formatFraction(fault.length);
    const expected = formatFraction(fault.expected);
    if (fault.kind !== 'join') {
      const order = fault.kind === 'short' ? 'too short' : 'too long';
      return importMessage(
        line,
        column,
        'warning',
        'bar-sum',
        `This bar is ${order}: it holds ${eighths(fault.length)}, ${eighths(fault.expected)} are expected.`,
      );
    }
    const { from, to, again } = fault;
    const where = again ? 'when the tune begins again' : `from ${from.part}${from.pass} to ${to.part}${to.pass}`;
    const words = `Last bar and pickup do not make a whole bar ${where}: ${length} instead of ${expected}.`;
    return importMessage(line, column, again ? 'info' : 'warning', 'bar-sum', words);
  });
}

/** A length in the words of a counting player: `7 eighths`, or as a fraction where eighths do not fit. */
function eighths(length: Fraction): string {
  const count = divide(length, fraction(1, 8));
  return count.d === 1 ? `${count.n} eighth${count.n === 1 ? '' : 's'}` : formatFraction(length);
}
