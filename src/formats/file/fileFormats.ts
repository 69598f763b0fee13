import { type PlayerSettings, reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { readAbcTunes, writeAbc } from '../abc';
import { readMorrinBook, writeMorrinJson } from '../json';
import type { FileKind } from '../kinds';
import { type MidiChoice, type ReadMidi, readMidi, writeMidi } from '../midi';
import { readMusicXml, writeMusicXml } from '../musicxml';
import type { ReadTune } from '../score';
import { FILE_START, type ImportMessage, importMessage } from '../text';

/** How a file is to be read; a tune whose file has no such voice is read by its main one. */
export type FileChoice = MidiChoice;

/** A file before it is known what it is: text where its bytes are one. */
export interface FileContent {
  readonly bytes: Uint8Array;
  readonly text: string | null;
}

/** A tune as a reader gives it, with what quantising did where there was need of it. */
export type FormatRead =
  (ReadTune & { readonly quantised: ReadMidi['quantised'] }) | { readonly failed: readonly ImportMessage[] };

export interface WriteOptions {
  /** The player for whom a performance is written. */
  readonly settings?: PlayerSettings;
  /** Of the tune among several in one file. */
  readonly number?: string;
}

/** How files of a kind are told, read and written. */
export interface FileFormat {
  /** Whether a file is of this kind, by how it begins. */
  readonly sniff: (content: FileContent) => boolean;
  readonly read: (content: FileContent, choice: FileChoice) => Iterable<FormatRead>;
  readonly write: (tune: Tune, options: WriteOptions) => string | Uint8Array<ArrayBuffer>;
}

const begins = ({ text }: FileContent, marks: readonly string[]) => {
  const start = text?.trimStart() ?? '';
  return marks.some((mark) => start.startsWith(mark));
};

/** The kinds of files, in the order in which they are tried: what is nothing else is read as ABC. */
export const FILE_FORMATS: Readonly<Record<FileKind, FileFormat>> = {
  midi: {
    sniff: ({ bytes }) => startsWith(bytes, 'MThd'),
    *read({ bytes }, choice) {
      const { tune, messages, quantised } = readMidi(bytes, choice);
      yield tune ? { ...tune, quantised } : { failed: messages };
    },
    write: (tune, { settings }) => writeMidi(reportTune(tune, settings)),
  },
  musicxml: {
    sniff: (content) => begins(content, ['<']),
    *read({ text }, { voice }) {
      const { tunes, messages } = readMusicXml(text ?? '', voice);
      for (const tune of tunes) yield { ...tune, quantised: null };
      if (messages.length > 0) yield { failed: messages };
    },
    write: (tune) => writeMusicXml(tune),
  },
  json: {
    sniff: (content) => begins(content, ['{', '[{']),
    *read({ text }) {
      for (const read of readMorrinBook(text ?? '')) yield 'failed' in read ? read : { ...BARE, ...read };
    },
    write: (tune) => writeMorrinJson(tune),
  },
  abc: {
    sniff: ({ text }) => text !== null,
    *read({ text }, { voice }) {
      let count = 0;
      for (const read of readAbcTunes(text ?? '', voice)) {
        count += 1;
        yield 'failed' in read ? read : { ...read, quantised: null };
      }
      if (count > 0) return;
      yield { failed: [importMessage(FILE_START, { what: 'no-abc-tune' })] };
    },
    write: (tune, { number }) => (number === undefined ? writeAbc(tune) : writeAbc(tune, number)),
  },
};

/** What a plan has not beside its tune. */
const BARE = {
  reference: '',
  messages: [],
  source: null,
  barPositions: new Map<string, never>(),
  voices: [],
  quantised: null,
};

export function startsWith(bytes: Uint8Array, mark: string): boolean {
  return bytes.length >= mark.length && [...mark].every((char, i) => bytes[i] === char.charCodeAt(0));
}
