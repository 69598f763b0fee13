import { always, type Command } from './command';

/** What a key takes off the goal, or adds, in beats a minute. */
const STEP_BPM = 2;

/** Hearing the plan. */
export const LISTEN_COMMANDS: readonly Command[] = [
  {
    id: 'play',
    label: 'Play from here, or the loop; stop',
    group: 'listen',
    keys: [' '],
    applies: ({ notes }) => notes.length > 0,
    run: ({ play }) => play(),
  },
  {
    id: 'loop',
    label: 'Loop the selection, or play on',
    group: 'listen',
    keys: ['x'],
    applies: always,
    run: ({ toggleLoop }) => toggleLoop(),
  },
  {
    id: 'slower',
    label: 'Hear it 5 % slower',
    help: 'the practice tempo: the plan stays as it is',
    group: 'listen',
    keys: ['['],
    applies: always,
    run: ({ stepPractice }) => stepPractice(-1),
  },
  {
    id: 'faster',
    label: 'Hear it 5 % faster',
    group: 'listen',
    keys: [']'],
    applies: always,
    run: ({ stepPractice }) => stepPractice(1),
  },
  {
    id: 'goal-down',
    label: 'Goal two beats down',
    help: 'the tempo wanted: part of the plan',
    group: 'listen',
    keys: ['{'],
    applies: always,
    run: ({ report, goal }) => goal.set(report.settings.bpm - STEP_BPM),
  },
  {
    id: 'goal-up',
    label: 'Goal two beats up',
    group: 'listen',
    keys: ['}'],
    applies: always,
    run: ({ report, goal }) => goal.set(report.settings.bpm + STEP_BPM),
  },
  {
    id: 'tap',
    label: 'Tap the goal',
    help: 'three times or more on the beat',
    group: 'listen',
    keys: ['y'],
    applies: always,
    run: ({ tapTempo }) => tapTempo(),
  },
];
