/** Kinds of files in which tunes come and go, with what everyone has to know of them. How they are read and written: `formats/file`. */
export const FILE_KINDS = {
  abc: {
    label: 'ABC',
    extension: '.abc',
    readsAs: ['.abc', '.txt'],
    mime: 'text/vnd.abc; charset=utf-8',
    holds: 'many',
  },
  musicxml: {
    label: 'MusicXML',
    extension: '.musicxml',
    readsAs: ['.musicxml', '.xml'],
    mime: 'application/vnd.recordare.musicxml+xml',
    holds: 'one',
  },
  midi: { label: 'MIDI', extension: '.mid', readsAs: ['.mid', '.midi'], mime: 'audio/midi', holds: 'one' },
  json: {
    label: 'Morrin plan',
    extension: '.morrin.json',
    readsAs: ['.json'],
    mime: 'application/json',
    holds: 'many',
  },
} as const satisfies Readonly<Record<string, FileKindFacts>>;

interface FileKindFacts {
  readonly label: string;
  /** With which a file is written, and those by which files of an archive are known. */
  readonly extension: string;
  readonly readsAs: readonly string[];
  readonly mime: string;
  /** Whether several tunes can stand in one file. */
  readonly holds: 'one' | 'many';
}

export type FileKind = keyof typeof FILE_KINDS;

export const ALL_FILE_KINDS = Object.keys(FILE_KINDS) as FileKind[];

/** Archives: packed scores, and files together. */
const ARCHIVES = ['.mxl', '.zip'];

/** Endings of the names of files that can be read. */
export const READ_EXTENSIONS: readonly string[] = ALL_FILE_KINDS.flatMap((kind) => FILE_KINDS[kind].readsAs);
export const CHOSEN_EXTENSIONS: readonly string[] = [...READ_EXTENSIONS, ...ARCHIVES];
