import { writtenNotes } from '#core/tune';
import type { SheetProps } from '../openTune/sheetProps';

/** A sheet of the bench: its name for the player, and whether there is anything to show. */
interface SheetFacts {
  readonly label: string;
  readonly applies: (props: Pick<SheetProps, 'tune' | 'ids' | 'barIds'>) => boolean;
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
  | 'versions'
  | 'keys';

/** All sheets of the bench: another is one line here, one in `sheets.tsx` and one in `commands/sheetCommands.ts`. */
export const SHEETS: Readonly<Record<SheetName, SheetFacts>> = {
  tune: { label: 'Title, meter, key, tuning', applies: always },
  form: { label: 'Form', applies: always },
  bar: { label: 'Meter, key and ending', applies: ({ barIds }) => barIds.length > 0 },
  note: { label: 'Chord name, grace notes', applies: isChosen },
  patterns: { label: 'Bowing patterns', applies: always },
  bowings: { label: 'Other bowings', applies: hasNotes },
  bow: { label: 'Bow amount and tone', applies: hasNotes },
  twins: { label: 'Repeated figures', applies: always },
  fingering: { label: 'Fingering hand', applies: hasNotes },
  drones: { label: 'Drones and double stops', applies: hasNotes },
  ornaments: { label: 'Ornaments', applies: hasNotes },
  tunings: { label: 'Tunings for this tune', applies: hasNotes },
  versions: { label: 'Named versions', applies: always },
  keys: { label: 'Keys and signs', applies: always },
};
