import type { OwnCeiling } from '#core/ability';
import type { EventKind } from '#core/tempo';

/** What takes time, of which there are many: `crossings`, `hops`. */
const KINDS: Readonly<Record<EventKind, string>> = {
  stroke: 'strokes',
  crossing: 'crossings',
  hop: 'hops',
  barre: 'fingers laid across',
  shift: 'shifts',
  retake: 'retakes',
  'bowed-triplet': 'bowed triplets',
  cut: 'cuts',
  flick: 'flicks',
  'short-roll': 'short rolls',
  'long-roll': 'long rolls',
  pulse: 'pulses',
  grace: 'grace notes',
  slide: 'slides',
  turn: 'turns',
};

export const kindWords = (kind: EventKind): string => KINDS[kind];

/** `crossings set the limit`, `crossings set the limit (7 times in 10), otherwise strokes`. */
export function bindsWords(binds: OwnCeiling['binds']): string {
  const [first, second] = Object.entries(binds) as [EventKind, number][];
  if (!first) return '';
  const [kind, share] = first;
  if (share >= 0.95 || !second) return `${KINDS[kind]} set the limit`;
  return `${KINDS[kind]} set the limit (${Math.round(10 * share)} times in 10), otherwise ${KINDS[second[0]]}`;
}
