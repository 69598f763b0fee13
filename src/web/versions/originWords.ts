import { format } from 'date-fns';
import type { TuneVersion } from '#contract/versions';

/** `a setting, taught by Wenna Tarr, 8 November 2025; slower than the class`. */
export function originWords(version: Omit<TuneVersion, 'id' | 'name' | 'tune'>): string {
  const { kind, taughtBy, learnedOn, note, createdAt } = version;
  const parts = [
    kind === 'setting' ? 'another setting' : 'another plan',
    ...(taughtBy ? [`taught by ${taughtBy}`] : []),
    learnedOn
      ? format(new Date(`${learnedOn}T12:00:00`), 'd MMMM yyyy')
      : `kept ${format(new Date(createdAt), 'd MMMM yyyy')}`,
  ];
  return `${parts.join(', ')}${note ? `; ${note}` : ''}`;
}
