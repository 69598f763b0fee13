const RULES = new Intl.PluralRules('en', { type: 'ordinal' });
const ENDINGS: Partial<Record<Intl.LDMLPluralRule, string>> = { one: 'st', two: 'nd', few: 'rd' };

/** `1st`, `2nd`, `11th`. */
export function ordinal(number: number): string {
  return `${number}${ENDINGS[RULES.select(number)] ?? 'th'}`;
}
