import { DEFAULT_SETTINGS } from '#contract/settings';
import { openDrones } from '#core/drones';
import { setDrone } from '#core/editing';
import { leaveOff, type Ornament, ornament as decorate, ORNAMENTS } from '#core/ornaments';
import { droneSceneOf, ornamentSceneOf } from '#core/report';
import { writtenNotes } from '#core/tune';
import { ornamentName } from '#words/ornament';
import { type Bench, type Command, isChosen } from './command';

/** Marks that are written without anything to be worked out have commands among the edits. */
const PLAIN: ReadonlySet<Ornament> = new Set(['pulse', 'staccato']);
const KEYS: Partial<Record<Ornament, string>> = {
  cut: 'shift+c',
  roll: 'shift+r',
  flick: 'shift+f',
  'bowed-triplet': 'shift+t',
  slide: 'shift+s',
};

const ornament = (kind: Ornament): Command => {
  // Menus that know the player's own words use those.
  const name = ornamentName(kind, DEFAULT_SETTINGS.words);
  return {
    id: ornamentCommandId(kind),
    label: kind === 'cut' ? 'Cut, the ornament' : name[0]!.toUpperCase() + name.slice(1),
    group: 'marks',
    keys: KEYS[kind] ? [KEYS[kind]] : [],
    repeats: true,
    applies: isChosen,
    run: ({ tune, report, ids, where, edit }) => {
      const isOn =
        writtenNotes(tune)
          .find(({ id }) => id === ids[0])
          ?.marks?.includes(kind) ?? false;
      const next = (isOn ? leaveOff : decorate)(ornamentSceneOf(report), ids, kind);
      edit(next, `${isOn ? 'no ' : ''}${name} in ${where}`);
    },
  };
};

/** Name of the command that puts an ornament on the selected notes, or takes it off. */
export const ornamentCommandId = (kind: Ornament): string => (PLAIN.has(kind) ? kind : `mark-${kind}`);

/** Open strings beside the first of the selected notes, the sweetest first. */
export function dronesBeside({ report, ids }: Pick<Bench, 'report' | 'ids'>): ReturnType<typeof openDrones> {
  const played = report.unrolled.notes.find((note) => note.ids.includes(ids[0] ?? ''));
  if (!played) return [];
  return openDrones(droneSceneOf(report), played.index).sort((a, b) => a.rank - b.rank);
}

/** What decorates the selected notes and sounds beside them; each of them can be repeated on others. */
export const MARK_COMMANDS: readonly Command[] = [
  ...ORNAMENTS.filter((kind) => !PLAIN.has(kind)).map(ornament),
  {
    id: 'drone',
    label: 'Drone: the sweeter open string, the other one, none',
    group: 'marks',
    keys: ['shift+d'],
    repeats: true,
    applies: (bench) => dronesBeside(bench).length > 0,
    run: (bench) => {
      const { tune, ids, where, edit } = bench;
      const sides = dronesBeside(bench);
      const now = writtenNotes(tune).find(({ id }) => id === ids[0])?.drone;
      const at = sides.findIndex(({ kind }) => kind === now);
      const next = sides[at + 1];
      edit(
        setDrone(tune, new Set(ids), next?.kind ?? null),
        `${next ? `drone on ${next.place}` : 'no drone'} in ${where}`,
      );
    },
  },
  {
    id: 'repeat-mark',
    label: 'Repeat the last mark',
    help: 'ornament, drone, slur or sign, on the notes selected now',
    group: 'marks',
    keys: [';'],
    applies: (bench) => bench.lastMark?.applies(bench) ?? false,
    run: (bench) => bench.lastMark?.run(bench),
  },
];
