import type { Attempt } from '../log';

let count = 0;
/** Ids in the order in which they are asked for. */
const nextId = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;

/** A clean time through a bite, with an id of its own. */
export function sampleAttempt(more: Partial<Attempt> = {}): Attempt {
  return {
    id: nextId(),
    at: '2026-03-02T18:04:00.000Z',
    tuneId: '00000000-0000-4000-9000-000000000000',
    title: 'A reel',
    revision: 1,
    span: { part: 'A', from: 'n1', to: 'n8' },
    what: 'bite',
    drill: null,
    layer: 'tempo',
    way: 'bowed',
    bpm: 80,
    wishBpm: 109,
    clean: true,
    wrong: null,
    minutes: 0.5,
    note: '',
    pain: null,
    corrects: null,
    isWithdrawn: false,
    ...more,
  };
}
