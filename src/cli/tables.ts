import { z } from 'zod';
import { reportSchema } from '#contract/report';
import { formatFraction } from '#core/base';
import { LIBRARY_UNIT, patternFigures, PATTERNS } from '#core/bowing';
import { meterName } from '#core/tune';
import { tuningFigures, TUNINGS } from '#core/tuning';

/** `patterns`: the library with its parity, drift and beat directions. */
export function patterns(json: boolean): string {
  const rows = PATTERNS.map((pattern) => ({
    ...patternFigures(pattern),
    unit: formatFraction(LIBRARY_UNIT),
    meter: meterName(pattern.meter),
    runsOn: pattern.runsOn,
  }));
  if (json) return `${JSON.stringify(rows, null, 2)}\n`;
  return rows
    .map(
      ({ name, slots, strokesPerBar, parityPerBar, driftUnits }) =>
        `${name}: ${slots.join(' ')}; ${strokesPerBar} strokes a bar (${parityPerBar}), drift ${driftUnits}\n`,
    )
    .join('');
}

/** `tunings`: the library against standard. */
export function tunings(json: boolean): string {
  const rows = TUNINGS.map(({ name, tuning }) => tuningFigures(name, tuning));
  if (json) return `${JSON.stringify(rows, null, 2)}\n`;
  return rows
    .map(
      ({ name, strings, totalTensionRatio }) =>
        `${strings.join(' ')}  ${name}, total tension ${Math.round(100 * totalTensionRatio)} %\n`,
    )
    .join('');
}

/** `schema report`: what `report --json` prints, as JSON Schema. */
export function reportJsonSchema(): string {
  return `${JSON.stringify(z.toJSONSchema(reportSchema), null, 2)}\n`;
}
