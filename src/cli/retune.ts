import type { Retune } from '#contract/retune';
import { parseTuning, retunePlan, STANDARD_TUNING, type Tuning } from '#core/tuning';
import { implausibleWords, tuningFault } from '#formats/text';
import { toRetune } from '#words/retuneJson';
import { InputError, UsageError } from './usage';

/** `retune --from A --to B`: the way from one tuning to another. */
export function retune(from: string | undefined, to: string | undefined, json: boolean): string {
  const plan = retunePlan(tuningOption('from', from), tuningOption('to', to), undefined, STANDARD_TUNING);
  if (!plan.ok) throw new InputError(plan.implausible.map((found) => `--to: ${implausibleWords(found)}`).join('\n'));
  const printed = toRetune(plan);
  return json ? `${JSON.stringify(printed, null, 2)}\n` : summary(printed);
}

/** A tuning that is named on the command line: four pitches that a fiddle can be brought into. */
export function tuningOption(name: string, text: string | undefined): Tuning {
  const tuning = text === undefined ? (name === 'from' ? STANDARD_TUNING : null) : parseTuning(text);
  if (!tuning)
    throw new UsageError(
      `--${name}: expected four pitches low to high with octaves, such as "A3 E4 A4 E5", got ${text === undefined ? 'nothing' : `"${text}"`}`,
    );
  const fault = tuningFault(tuning);
  if (fault) throw new InputError(`--${name}: ${fault}`);
  return tuning;
}

function summary({ strings, steps, totalTensionRatio, warnings, safety }: Retune): string {
  const lines = [
    ...strings.map(
      ({ place, from, to, semitones, newtons, warnings: own }) =>
        `${place}: ${from} to ${to}, ${semitones} semitones, ${newtons.from.toFixed(1)} to ${newtons.to.toFixed(1)} N${own.map((text) => `; ${text}`).join('')}`,
    ),
    `total tension ${Math.round(100 * totalTensionRatio)} %`,
    ...warnings,
    ...steps.map(
      ({ round, place, turn, to, reference }) =>
        `round ${round}: ${place} ${turn} to ${to}${reference ? `, ${reference.interval} from ${reference.place}` : ', by a tone'}`,
    ),
    ...safety,
  ];
  return `${lines.join('\n')}\n`;
}
