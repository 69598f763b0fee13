import { always, type Command } from './command';

/** What a key takes off the tempo, or adds. */
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
    label: 'Tempo two down',
    group: 'listen',
    keys: ['['],
    applies: always,
    run: ({ report, setTempo }) => setTempo(report.settings.bpm - STEP_BPM),
  },
  {
    id: 'faster',
    label: 'Tempo two up',
    group: 'listen',
    keys: [']'],
    applies: always,
    run: ({ report, setTempo }) => setTempo(report.settings.bpm + STEP_BPM),
  },
  {
    id: 'tap',
    label: 'Tap the tempo',
    help: 'three times or more on the beat',
    group: 'listen',
    keys: ['y'],
    applies: always,
    run: ({ tapTempo }) => tapTempo(),
  },
];
