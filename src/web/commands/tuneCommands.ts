import { ALL_FILE_KINDS, FILE_KINDS } from '#formats/kinds';
import { always, type Bench, type Command } from './command';

const ROOMS: readonly (readonly [string, string, string])[] = [
  ['practise', 'Practise it', 'practice'],
  ['dance', 'Dance check', 'dance'],
  ['ground', 'Key sheet', 'ground'],
  ['handout', 'Hand-out on paper', 'handout'],
  ['side-by-side', 'Settings beat by beat', 'settings'],
];

const room = ([id, label, page]: (typeof ROOMS)[number]): Command => {
  const path = ({ open }: Pick<Bench, 'open'>) => `/tunes/${open.id}/${page}`;
  return { id, label, group: 'tune', keys: [], applies: always, run: (bench) => bench.goTo(path(bench)), path };
};

/** Other rooms about the tune, and files of it. */
export const TUNE_COMMANDS: readonly Command[] = [
  ...ROOMS.map(room),
  ...ALL_FILE_KINDS.map((format): Command => ({
    id: `file-${format}`,
    label: FILE_KINDS[format].label,
    group: 'files',
    keys: [],
    applies: always,
    run: ({ keepFile }) => keepFile(format),
  })),
];
