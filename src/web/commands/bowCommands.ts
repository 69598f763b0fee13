import { type Gesture, gestureTargets } from '#core/bowing';
import type { Direction } from '#core/tune';
import { always, type Bench, type Command, isChosen } from './command';

const GESTURES: readonly (readonly [Gesture, string, string, string])[] = [
  ['slur', 's', 'Slur', 'share the stroke'],
  ['change', 't', 'Turn', 'a stroke the other way'],
  ['hook', 'h', 'Hook', 'same stroke after a stop'],
  ['retake', 'r', 'Retake', 'lift, same direction again'],
];

/** The pass on which alone gestures are made; null for all. */
export function onePassOf({ thisPassOnly, passes, open, part }: Bench): number | null {
  return thisPassOnly && passes > 1 ? (open.passInView[part] ?? 1) : null;
}

const gesture = ([made, key, label, help]: (typeof GESTURES)[number]): Command => ({
  id: made,
  label,
  help,
  group: 'bow',
  keys: [key],
  repeats: true,
  applies: (bench) => gestureTargets(bench.tune, bench.ids, made, onePassOf(bench)).size > 0,
  run: (bench) => bench.gesture(made),
});

const lock = (direction: Direction): Command => ({
  id: `lock-${direction}`,
  label: `Lock to the ${direction}-bow`,
  help: 'again to unlock',
  group: 'bow',
  keys: [direction[0]!],
  repeats: true,
  applies: isChosen,
  run: ({ states, ids, lock: set }) => set(states.get(ids[0] ?? '')?.lock === direction ? null : direction),
});

/** How the bow goes from note to note. */
export const BOW_COMMANDS: readonly Command[] = [
  ...GESTURES.map(gesture),
  lock('down'),
  lock('up'),
  {
    id: 'this-pass-only',
    label: 'Change bowing on this time through only, or on all',
    group: 'bow',
    keys: ['o'],
    applies: ({ passes }) => passes > 1,
    run: ({ thisPassOnly, setThisPassOnly }) => setThisPassOnly(!thisPassOnly),
  },
  {
    id: 'other-start',
    label: 'Begin the tune on the other bow',
    group: 'bow',
    keys: ['b'],
    applies: always,
    run: ({ startOnOther }) => startOnOther(),
  },
];
