import type { Agreement } from '#core/likeness';
import { counted } from './plural';

/** `They agree on 52 of 64 beats, on 6 more at the beat itself; 4 differ, 2 stand alone.` */
export function agreementWords(counts: Readonly<Record<Agreement, number>>): string {
  const all = counts.same + counts['on-the-beat'] + counts.different + counts.alone;
  if (counts.same === all) return `They agree on all ${all} beats.`;
  const parts = [
    `They agree on ${counts.same} of ${all} beats`,
    ...(counts['on-the-beat'] > 0 ? [`on ${counts['on-the-beat']} more only in the note on the beat (≈)`] : []),
  ];
  const rest = [
    ...(counts.different > 0 ? [`${counts.different} differ (≠)`] : []),
    ...(counts.alone > 0 ? [`${counted(counts.alone, 'stands', 'stand')} in one of them only (+)`] : []),
  ];
  return `${parts.join(', ')}${rest.length > 0 ? `; ${rest.join(', ')}` : ''}.`;
}

const INTERVALS = ['', 'a semitone', 'a tone', 'a minor third', 'a major third', 'a fourth', 'half an octave'];

/** `The first lies a fourth higher.` */
export function keyShiftWords(semitones: number): string {
  return `The first lies ${INTERVALS[Math.abs(semitones)] ?? `${Math.abs(semitones)} semitones`} ${semitones > 0 ? 'higher' : 'lower'}; they are compared as if in one key.`;
}

/** `97 % alike, a fourth higher`. */
export function likenessWords(share: number, semitones: number): string {
  const interval =
    semitones === 0 ? '' : `, ${INTERVALS[Math.abs(semitones)] ?? ''} ${semitones > 0 ? 'higher' : 'lower'}`;
  return `${Math.round(share * 100)} % alike${interval}`;
}
