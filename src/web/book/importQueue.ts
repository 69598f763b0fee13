import type { LikeTune } from '#contract/imports';
import { SAME_TUNE } from '#core/likeness';
import type { FileChoice } from '#formats/file';
import type { Failure } from '../api/answer';
import type { ImportedTune, ImportOutcome } from './importProtocol';

/** What is to become of a tune that was read. */
export type Fate =
  { readonly kind: 'own' } | { readonly kind: 'joins'; readonly id: string } | { readonly kind: 'left-out' };

export interface ReadTuneItem {
  readonly read: ImportedTune;
  readonly like: readonly LikeTune[];
  readonly fate: Fate;
}

/** Where a file stands in the queue. */
export type FileStage =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'reading'; readonly count: number }
  | { readonly kind: 'read' }
  | { readonly kind: 'refused'; readonly problem: string }
  | { readonly kind: 'keeping'; readonly sent: number }
  | { readonly kind: 'kept'; readonly tunes: number; readonly settings: number; readonly first: string | null }
  | { readonly kind: 'not-kept'; readonly failure: Failure }
  | { readonly kind: 'aborted' };

export interface QueuedFile {
  readonly key: number;
  readonly name: string;
  readonly source: Blob;
  readonly choice: FileChoice;
  readonly stage: FileStage;
  readonly items: readonly ReadTuneItem[];
  readonly messages: ImportOutcome['messages'];
}

export type QueueAction =
  | { readonly type: 'added'; readonly files: readonly { readonly name: string; readonly source: Blob }[] }
  | { readonly type: 'staged'; readonly key: number; readonly stage: FileStage }
  | { readonly type: 'tunesRead'; readonly key: number; readonly tunes: readonly ImportedTune[] }
  | { readonly type: 'read'; readonly key: number; readonly messages: ImportOutcome['messages'] }
  | { readonly type: 'compared'; readonly key: number; readonly found: readonly (readonly LikeTune[])[] }
  | { readonly type: 'fated'; readonly key: number; readonly index: number; readonly fate: Fate }
  | { readonly type: 'chosen'; readonly key: number; readonly choice: FileChoice }
  | { readonly type: 'emptied' };

/** From here a tune of the same title is taken for the same one once more. */
const SAME_AGAIN = 0.995;

/** What is proposed for a tune: one that is in the book already to the note is left out. */
export function proposedFate({ title }: ImportedTune, like: readonly LikeTune[]): Fate {
  const [best] = like;
  return best && best.share >= SAME_AGAIN && best.title === title ? { kind: 'left-out' } : { kind: 'own' };
}

/** The tunes of the book that are most likely the same one. */
export function likelySame(like: readonly LikeTune[]): LikeTune[] {
  return like.filter(({ share }) => share >= SAME_TUNE);
}

export function queueReducer(files: readonly QueuedFile[], action: QueueAction): readonly QueuedFile[] {
  const change = (key: number, changed: (file: QueuedFile) => QueuedFile) =>
    files.map((file) => (file.key === key ? changed(file) : file));
  switch (action.type) {
    case 'added': {
      const first = files.reduce((most, { key }) => Math.max(most, key), 0) + 1;
      return [
        ...files,
        ...action.files.map(({ name, source }, i): QueuedFile => ({
          key: first + i,
          name,
          source,
          choice: {},
          stage: { kind: 'waiting' },
          items: [],
          messages: [],
        })),
      ];
    }
    case 'staged':
      return change(action.key, (file) => ({ ...file, stage: action.stage }));
    case 'tunesRead':
      return change(action.key, (file) => {
        const more = action.tunes.map((read): ReadTuneItem => ({ read, like: [], fate: { kind: 'own' } }));
        const items = [...file.items, ...more];
        return { ...file, stage: { kind: 'reading', count: items.length }, items };
      });
    case 'read':
      return change(action.key, (file) => ({ ...file, stage: { kind: 'read' }, messages: action.messages }));
    case 'compared':
      return change(action.key, (file) => ({
        ...file,
        items: file.items.map((item, i) => {
          const like = action.found[i] ?? [];
          // A choice that was made meanwhile stays.
          return { ...item, like, fate: item.fate.kind === 'own' ? proposedFate(item.read, like) : item.fate };
        }),
      }));
    case 'fated':
      return change(action.key, (file) => ({
        ...file,
        items: file.items.map((item, i) => (i === action.index ? { ...item, fate: action.fate } : item)),
      }));
    case 'chosen':
      return change(action.key, (file) => ({
        ...file,
        choice: action.choice,
        stage: { kind: 'waiting' },
        items: [],
        messages: [],
      }));
    case 'emptied':
      return [];
  }
}

/** What is told of the tunes of a file when it is finished, by their places. */
export function choicesOf({ items }: QueuedFile): { leftOut: number[]; joins: { at: number; tune: string }[] } {
  return {
    leftOut: items.flatMap(({ fate }, at) => (fate.kind === 'left-out' ? [at] : [])),
    joins: items.flatMap(({ fate }, at) => (fate.kind === 'joins' ? [{ at, tune: fate.id }] : [])),
  };
}

/** The tunes of a file that are to be kept. */
export function toKeep({ items }: QueuedFile): ReadTuneItem[] {
  return items.filter(({ fate }) => fate.kind !== 'left-out');
}
