import { writtenNotes } from '#core/tune';
import type { SheetProps } from '../openTune/sheetProps';

/** A sheet of the bench: its name for the player, and whether there is anything to show. */
interface SheetFacts {
  readonly label: string;
  readonly applies: (props: Pick<SheetProps, 'tune' | 'ids' | 'barIds'>) => boolean;
  /** Its name in the row of tools, for one that lies beside the score; the others are windows. */
  readonly tool?: string;
}

const always = () => true;
const hasNotes = ({ tune }: Pick<SheetProps, 'tune'>) => writtenNotes(tune).length > 0;
const isChosen = ({ ids }: Pick<SheetProps, 'ids'>) => ids.length > 0;

export type SheetName =
  | 'tune'
  | 'form'
  | 'bar'
  | 'note'
  | 'patterns'
  | 'bowings'
  | 'bow'
  | 'twins'
  | 'fingering'
  | 'drones'
  | 'ornaments'
  | 'tunings'
  | 'landmarks'
  | 'take'
  | 'versions'
  | 'keys';

/** All sheets of the bench: another is one line here, one in `sheets.tsx` and one in `commands/sheetCommands.ts`. */
export const SHEETS: Readonly<Record<SheetName, SheetFacts>> = {
  tune: { label: 'Title, meter, key, tuning', applies: always },
  form: { label: 'Form', applies: always },
  bar: { label: 'Meter, key and ending', applies: ({ barIds }) => barIds.length > 0 },
  note: { label: 'Chord name, grace notes', applies: isChosen },
  patterns: { label: 'Bowing patterns', applies: always, tool: 'Patterns' },
  bowings: { label: 'Other bowings', applies: hasNotes, tool: 'Bowings' },
  bow: { label: 'Bow amount and tone', applies: hasNotes, tool: 'Tone' },
  twins: { label: 'Repeated figures', applies: always, tool: 'Repeats' },
  ornaments: { label: 'Ornaments', applies: hasNotes, tool: 'Ornaments' },
  drones: { label: 'Drones and double stops', applies: hasNotes, tool: 'Drones' },
  fingering: { label: 'Fingering hand', applies: hasNotes, tool: 'Fingers' },
  tunings: { label: 'Tunings for this tune', applies: hasNotes, tool: 'Tunings' },
  landmarks: { label: 'Landmarks', applies: hasNotes, tool: 'Landmarks' },
  take: { label: 'Take check: play it and hear what went wrong', applies: hasNotes, tool: 'Take' },
  versions: { label: 'Named versions', applies: always, tool: 'Versions' },
  keys: { label: 'Keys and signs', applies: always },
};

/** Sheets that lie beside the score, in the order of the row of tools. */
export const TOOLS = (Object.keys(SHEETS) as SheetName[]).filter((name) => SHEETS[name].tool !== undefined);
