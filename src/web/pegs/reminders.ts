import type { Fiddle } from '#contract/pegs';
import { PLACES } from '#core/tune';
import { dayBegins } from '#words/days';

/** From these on a string is spoken of; guesses, since strings and players differ. */
const OLD_MONTHS = 12;
const MAX_HOURS = 200;
const MONTH_MS = 30.44 * 86_400_000;
/** A gap this much smaller than the first that was measured: the hair has lost its length or its tension. A guess. */
const GAP_CHANGE_MM = 1.5;

/** What the player is reminded of: strings by age and hours, hair by its gap. */
export function reminders({ strings, hairGaps }: Fiddle, now: number): string[] {
  const told: string[] = [];
  for (const [i, { fittedOn, hours }] of strings.entries()) {
    const months = fittedOn === null ? 0 : (now - dayBegins(fittedOn)) / MONTH_MS;
    if (hours >= MAX_HOURS)
      told.push(`The ${PLACES[i]} string has ${Math.round(hours)} hours: it may sound dull and be false.`);
    else if (months >= OLD_MONTHS)
      told.push(`The ${PLACES[i]} string is ${Math.floor(months)} months old: no more than a tone up with it.`);
  }
  const [first] = hairGaps;
  const last = hairGaps[hairGaps.length - 1];
  if (first && last && Math.abs(last.mm - first.mm) >= GAP_CHANGE_MM)
    told.push(`The hair gap went from ${first.mm} to ${last.mm} mm: turn the screw to where it was.`);
  return told;
}
