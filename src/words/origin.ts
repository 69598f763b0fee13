import type { TuneVersion } from '#contract/versions';
import { dayWords } from './days';

/** `a setting, taught by Wenna Tarr, 8 November 2025; slower than the class`. */
export function originWords(version: Omit<TuneVersion, 'id' | 'name' | 'tune'>): string {
  const { kind, taughtBy, learnedOn, note, createdAt } = version;
  const parts = [
    kind === 'setting' ? 'another setting' : 'another plan',
    ...(taughtBy ? [`taught by ${taughtBy}`] : []),
    learnedOn ? dayWords(learnedOn) : `kept ${dayWords(createdAt)}`,
  ];
  return `${parts.join(', ')}${note ? `; ${note}` : ''}`;
}
