import type { Fraction } from '#core/base';
import type { LengthFault } from '#core/tune';
import type { Tuning } from '#core/tuning';
import type { ImportCode, ImportSeverity } from './codes';

/** What a reader comes upon that has to be told, with its figures. Words are made of it elsewhere. */
export type ImportMatter =
  // Of the file.
  | { readonly what: 'file-empty' }
  | { readonly what: 'no-tunes-file' }
  | { readonly what: 'archive-too-many'; readonly max: number }
  | { readonly what: 'archive-too-large'; readonly maxMb: number }
  | { readonly what: 'archive-damaged' }
  | { readonly what: 'archive-empty' }
  | { readonly what: 'archive-without-tunes' }
  | { readonly what: 'packed-score-missing' }
  /** What the schema of the document says of one field. */
  | { readonly what: 'field'; readonly path: string; readonly words: string }
  | { readonly what: 'plan-field'; readonly path: string; readonly words: string }
  | { readonly what: 'empty-book' }
  // Why it could not be read.
  | { readonly what: 'not-json'; readonly words: string }
  | { readonly what: 'not-xml'; readonly words: string }
  | { readonly what: 'no-score'; readonly found: string }
  | { readonly what: 'not-midi' }
  | { readonly what: 'midi-frames' }
  | { readonly what: 'midi-damaged' }
  | { readonly what: 'midi-too-much'; readonly found: number }
  | { readonly what: 'not-parsed' }
  | { readonly what: 'parser'; readonly words: string }
  | { readonly what: 'out-of-bounds'; readonly subject: ReadSubject; readonly fault: Bounds }
  | { readonly what: 'fault'; readonly subject: ReadSubject; readonly detail: string }
  | { readonly what: 'no-abc-tune' }
  | { readonly what: 'no-key-line' }
  | { readonly what: 'no-abc-notes'; readonly title: string }
  | { readonly what: 'no-part-notes' }
  | { readonly what: 'no-voice-notes' }
  | { readonly what: 'no-midi-notes' }
  | { readonly what: 'no-midi-voice-notes' }
  // What of it is left out, and how much is read.
  | { readonly what: 'too-many-plays'; readonly max: number }
  | { readonly what: 'too-many-bars'; readonly max: number }
  | { readonly what: 'too-many-measures'; readonly max: number }
  | { readonly what: 'too-many-notes'; readonly max: number }
  /** The voice that is read; null: the first one. */
  | { readonly what: 'voices'; readonly read: string | null }
  | { readonly what: 'midi-voices'; readonly read: string; readonly others: number }
  | { readonly what: 'meter-not-kept' }
  | { readonly what: 'key-not-kept' }
  | { readonly what: 'ending-not-number'; readonly text: string }
  | { readonly what: 'mark-not-kept'; readonly name: string }
  | { readonly what: 'remarks-not-kept' }
  | { readonly what: 'dynamics-not-kept' }
  | { readonly what: 'lyrics-not-kept' }
  | { readonly what: 'unpitched' }
  | { readonly what: 'transposing' }
  | { readonly what: 'scordatura-incomplete' }
  | { readonly what: 'scordatura-implausible'; readonly tuning: Tuning }
  | { readonly what: 'jump'; readonly name: string }
  | { readonly what: 'jumps' }
  | { readonly what: 'slurs-too-deep'; readonly max: number }
  // What is doubtful in it.
  | { readonly what: 'slur-unclosed' }
  | { readonly what: 'slur-unopened' }
  | { readonly what: 'quote-unclosed' }
  | { readonly what: 'mark-unclosed'; readonly mark: string }
  | { readonly what: 'tuplet-not-full'; readonly notes: number; readonly left: number }
  | { readonly what: 'bar-short' | 'bar-long'; readonly length: Fraction; readonly expected: Fraction }
  /** `A1` and `A2`. */
  | {
      readonly what: 'join';
      readonly from: string;
      readonly to: string;
      readonly length: Fraction;
      readonly expected: Fraction;
    }
  | { readonly what: 'join-again'; readonly length: Fraction; readonly expected: Fraction }
  | { readonly what: 'unknown-dance'; readonly name: string }
  | { readonly what: 'tempo-without-beat'; readonly bpm: number }
  | { readonly what: 'midi-key-guessed' }
  | { readonly what: 'order-not-understood'; readonly order: string }
  | { readonly what: 'order-and-repeats'; readonly order: string; readonly form: string }
  // Lines of our own.
  | { readonly what: 'bad-directive'; readonly name: string; readonly value: string }
  | { readonly what: 'directive-tuning'; readonly tuning: Tuning; readonly value: string }
  | {
      readonly what: 'unknown-directive';
      readonly name: string;
      readonly value: string;
      readonly known: readonly string[];
    };

export type ReadSubject = 'tune' | 'score' | 'file';
type Bounds = Pick<LengthFault, 'code' | 'found'>;

type Grade = readonly [ImportSeverity, ImportCode];

/** How grave each matter is, and its kind. */
export const MATTER_GRADES: Readonly<Record<ImportMatter['what'], Grade>> = {
  'file-empty': ['error', 'empty'],
  'no-tunes-file': ['error', 'not-text'],
  'archive-too-many': ['error', 'not-read'],
  'archive-too-large': ['error', 'not-read'],
  'archive-damaged': ['error', 'not-read'],
  'archive-empty': ['error', 'not-read'],
  'archive-without-tunes': ['error', 'not-read'],
  'packed-score-missing': ['error', 'not-read'],
  field: ['error', 'not-read'],
  'plan-field': ['error', 'syntax'],
  'empty-book': ['error', 'no-notes'],
  'not-json': ['error', 'syntax'],
  'not-xml': ['error', 'syntax'],
  'no-score': ['error', 'syntax'],
  'not-midi': ['error', 'not-read'],
  'midi-frames': ['error', 'not-read'],
  'midi-damaged': ['error', 'not-read'],
  'midi-too-much': ['error', 'not-read'],
  'not-parsed': ['error', 'not-read'],
  parser: ['warning', 'syntax'],
  'out-of-bounds': ['error', 'not-read'],
  fault: ['error', 'fault'],
  'no-abc-tune': ['error', 'no-notes'],
  'no-key-line': ['error', 'no-notes'],
  'no-abc-notes': ['error', 'no-notes'],
  'no-part-notes': ['error', 'no-notes'],
  'no-voice-notes': ['error', 'no-notes'],
  'no-midi-notes': ['error', 'not-read'],
  'no-midi-voice-notes': ['error', 'not-read'],
  'too-many-plays': ['error', 'too-long'],
  'too-many-bars': ['error', 'too-long'],
  'too-many-measures': ['error', 'too-long'],
  'too-many-notes': ['info', 'too-long'],
  voices: ['warning', 'voice-left-out'],
  'midi-voices': ['info', 'voice-left-out'],
  'meter-not-kept': ['warning', 'not-kept'],
  'key-not-kept': ['warning', 'not-kept'],
  'ending-not-number': ['warning', 'not-kept'],
  'mark-not-kept': ['info', 'not-kept'],
  'remarks-not-kept': ['info', 'not-kept'],
  'dynamics-not-kept': ['info', 'not-kept'],
  'lyrics-not-kept': ['info', 'not-kept'],
  unpitched: ['warning', 'not-kept'],
  transposing: ['info', 'not-kept'],
  'scordatura-incomplete': ['warning', 'not-kept'],
  'scordatura-implausible': ['warning', 'not-kept'],
  jump: ['warning', 'not-followed'],
  jumps: ['warning', 'not-followed'],
  'slurs-too-deep': ['warning', 'not-kept'],
  'slur-unclosed': ['error', 'unclosed-slur'],
  'slur-unopened': ['warning', 'unopened-slur'],
  'quote-unclosed': ['error', 'unclosed-mark'],
  'mark-unclosed': ['error', 'unclosed-mark'],
  'tuplet-not-full': ['warning', 'unclosed-tuplet'],
  'bar-short': ['warning', 'bar-sum'],
  'bar-long': ['warning', 'bar-sum'],
  join: ['warning', 'bar-sum'],
  'join-again': ['info', 'bar-sum'],
  'unknown-dance': ['info', 'unknown-type'],
  'tempo-without-beat': ['info', 'tempo-beat'],
  'midi-key-guessed': ['info', 'not-kept'],
  'order-not-understood': ['warning', 'part-order'],
  'order-and-repeats': ['warning', 'part-order'],
  'bad-directive': ['warning', 'bad-directive'],
  'directive-tuning': ['warning', 'bad-directive'],
  'unknown-directive': ['warning', 'bad-directive'],
};
