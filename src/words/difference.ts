import type { BarChange, Difference } from '#core/difference';

const CHANGES: Record<BarChange, readonly [one: string, many: string]> = {
  'slur-split': ['slur split', 'slurs split'],
  'slur-joined': ['notes slurred', 'notes slurred'],
  hook: ['hook', 'hooks'],
  retake: ['retake', 'retakes'],
  turn: ['turn', 'turns'],
  'pass-links': ['bowing of a single pass', 'bowings of single passes'],
  lock: ['lock', 'locks'],
  entered: ['note entered', 'notes entered'],
  'taken-away': ['note deleted', 'notes deleted'],
  pitch: ['pitch', 'pitches'],
  length: ['length', 'lengths'],
  string: ['string', 'strings'],
  mark: ['mark', 'marks'],
  drone: ['drone', 'drones'],
  'bow-length': ['stroke length', 'stroke lengths'],
  freedom: ['hold, breath or pace', 'holds, breaths or paces'],
  reuse: ['bar taken up from elsewhere', 'bars taken up from elsewhere'],
};

const HEADS = {
  title: 'title',
  dance: 'dance',
  meter: 'meter',
  key: 'key',
  tuning: 'tuning',
  tempo: 'tempo',
  lilt: 'lilt',
  start: 'first stroke',
  form: 'form',
} as const;

/** `A, bar 6: slur split` · `B part: pair-first shuffle` · `key: D major, now G major`. */
export function differenceWords(difference: Difference): string {
  switch (difference.kind) {
    case 'bar': {
      const { part, bar, change, count } = difference;
      const [one, many] = CHANGES[change];
      return `${part}, ${bar === 0 ? 'pickup' : `bar ${bar}`}: ${count === 1 ? one : `${count} ${many}`}`;
    }
    case 'pattern':
      return `${difference.part} part: ${difference.pattern.replace(/-(?=shuffle|pairs|pair$)/g, ' ')}`;
    case 'part-added':
      return `${difference.part} part: new`;
    case 'part-removed':
      return `${difference.part} part: deleted`;
    default:
      return `${HEADS[difference.kind]}: ${difference.from}, now ${difference.to}`;
  }
}
