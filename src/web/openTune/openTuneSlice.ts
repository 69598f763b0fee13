import { createSelector, createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import isEqual from 'fast-deep-equal';
import type { TuneRecord } from '#contract/tunes';
import { followReuse, type Fragment } from '#core/editing';
import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import type { Failure } from '../api/answer';
import type { EntryOutcome } from '../entry/entryKeys';
import { beginEntry, type EntryState, type EntryWay, keptCaret } from '../entry/entryState';
import { selectPlayer } from '../store/selectSettings';
import { measured } from '../ui/measured';

/** How far back undo reaches. */
const MAX_STEPS = 500;

export interface Step {
  readonly tune: Tune;
  /** What was done from here: `slur in bar 6`. */
  readonly label: string;
  /** Where the caret stood, while notes were entered. */
  readonly caret?: string;
  /** Steps in a row that go by one name are undone at once, such as those of a tempo. */
  readonly joins?: string;
}

export type SaveState =
  | { readonly kind: 'kept'; readonly at: number }
  | { readonly kind: 'unsaved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly failure: Failure }
  | { readonly kind: 'conflict'; readonly newer: TuneRecord };

/** From the note where the selection began to the one it reached, in written order. */
export interface Selection {
  readonly anchor: string;
  readonly focus: string;
}

export interface OpenTune {
  readonly id: string;
  /** The revision that edits are based on. */
  readonly revision: number;
  readonly hasSource: boolean;
  readonly tune: Tune;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
  readonly selection: Selection | null;
  /** Notes are being entered; null while they are only chosen. */
  readonly entry: EntryState | null;
  readonly passInView: Readonly<Record<string, number>>;
  readonly save: SaveState;
  /** What the last undo or redo did, to be said aloud. */
  readonly said: string;
}

/** What undo and redo know of a tune, as it was left. */
export type TuneHistory = Pick<OpenTune, 'tune' | 'past' | 'future' | 'selection' | 'passInView'>;

export interface OpenTuneState {
  readonly open: OpenTune | null;
  /** What was copied last; it goes along from tune to tune. */
  readonly clipboard: Fragment;
}

const initialState: OpenTuneState = { open: null, clipboard: [] };

/** A tune as the server has it, what of it only this browser has, and what undo knows of it. */
interface TuneOpening {
  readonly record: TuneRecord;
  /** Edits of an earlier visit that the server does not have. */
  readonly unsaved: Tune | null;
  readonly history?: TuneHistory | null;
  readonly at: number;
}

/** The tune with its undo as it was left. Where it was changed elsewhere since, one undo brings back how it was here. */
function takenUpFrom({ record, unsaved, history }: TuneOpening): TuneHistory {
  const tune = unsaved ?? record.tune;
  if (history && isEqual(history.tune, tune)) return history;
  const past = history?.past.length ? [...history.past, { tune: history.tune, label: 'a change made elsewhere' }] : [];
  return {
    tune,
    past: unsaved ? [...past, { tune: record.tune, label: 'your unsaved edits from last time' }] : past,
    future: [],
    selection: null,
    passInView: {},
  };
}

/** Works on the plain values behind the draft: tunes are told apart by identity, which drafts do not keep. */
function withOpen(draft: Draft<OpenTuneState>, change: (open: OpenTune) => Partial<OpenTune>): OpenTuneState {
  const state = (original(draft) ?? draft) as OpenTuneState;
  return state.open ? { ...state, open: { ...state.open, ...change(state.open) } } : state;
}

/** An edit as one step that can be undone, carried on to bars that take up those it changed. */
function withEdit(open: OpenTune, edited: Tune, deed: string, joins?: string): Partial<OpenTune> {
  const { tune, bars } = followReuse(open.tune, edited);
  const label = bars.length === 0 ? deed : `${deed}, and in ${bars.length === 1 ? 'the bar' : 'the bars'} like it`;
  const last = open.past[open.past.length - 1];
  const isMore = joins !== undefined && last?.joins === joins;
  const step = isMore ? { ...last, label } : { tune: open.tune, label, caret: open.entry?.caret, joins };
  return {
    tune,
    past: [...(isMore ? open.past.slice(0, -1) : open.past), step].slice(-MAX_STEPS),
    future: [],
    save: open.save.kind === 'conflict' ? open.save : { kind: 'unsaved' },
    said: label,
  };
}

/** Entry in a tune that changed under it: the caret goes where it stood then, or stays where it can. */
function withCaret(entry: EntryState | null, tune: Tune, caret?: string): EntryState | null {
  return entry && { ...entry, caret: keptCaret(tune, caret ?? entry.caret) };
}

const openTuneSlice = createSlice({
  name: 'openTune',
  initialState,
  reducers: {
    tuneOpened: ({ clipboard }, { payload }: PayloadAction<TuneOpening>): OpenTuneState => {
      const { record, unsaved, at } = payload;
      return {
        clipboard: clipboard as Fragment,
        open: {
          id: record.id,
          revision: record.revision,
          hasSource: record.hasSource,
          ...takenUpFrom(payload),
          entry: null,
          save: unsaved ? { kind: 'unsaved' } : { kind: 'kept', at },
          said: unsaved ? 'Your unsaved edits from last time are back.' : '',
        },
      };
    },
    /** The tune as another window left it; one undo brings back how it was here. */
    takenUp: (state, { payload: { record, at } }: PayloadAction<{ record: TuneRecord; at: number }>): OpenTuneState =>
      withOpen(state, (open) => ({
        revision: record.revision,
        tune: record.tune,
        past: [...open.past, { tune: open.tune, label: 'a change from another window' }].slice(-MAX_STEPS),
        future: [],
        entry: withCaret(open.entry, record.tune),
        save: { kind: 'kept', at },
        said: 'This tune was changed in another window; that version is shown now.',
      })),
    tuneClosed: ({ clipboard }): OpenTuneState => ({ open: null, clipboard: clipboard as Fragment }),
    copied: (state, { payload }: PayloadAction<Fragment>): OpenTuneState => ({
      ...(original(state) as OpenTuneState),
      clipboard: payload,
    }),
    edited: (
      state,
      { payload: { tune, label, joins } }: PayloadAction<{ tune: Tune; label: string; joins?: string }>,
    ): OpenTuneState =>
      withOpen(state, (open) => {
        const step = withEdit(open, tune, label, joins);
        return { ...step, entry: withCaret(open.entry, step.tune ?? tune) };
      }),
    entryBegan: (state, { payload: { caret, way } }: PayloadAction<{ caret: string; way: EntryWay }>): OpenTuneState =>
      withOpen(state, ({ tune }) => ({ entry: beginEntry(tune, keptCaret(tune, caret), way), selection: null })),
    /** What a key or a click did while notes are entered. */
    entered: (state, { payload: { entry, tune, label } }: PayloadAction<EntryOutcome>): OpenTuneState =>
      withOpen(state, (open) => ({
        ...(tune && tune !== open.tune ? withEdit(open, tune, label ?? 'entry') : {}),
        entry,
      })),
    entryEnded: (state): OpenTuneState =>
      withOpen(state, ({ tune, entry }) => {
        const id = entry && tune.parts.flatMap(({ events }) => events).find((event) => event.id === entry.caret)?.id;
        const isNote = writtenNotes(tune).some((note) => note.id === id);
        return { entry: null, selection: id && isNote ? { anchor: id, focus: id } : null };
      }),
    undone: (state): OpenTuneState =>
      withOpen(state, ({ past, future, tune, save, entry }) => {
        const step = past[past.length - 1];
        if (!step) return {};
        return {
          tune: step.tune,
          past: past.slice(0, -1),
          future: [{ tune, label: step.label, caret: entry?.caret }, ...future],
          entry: withCaret(entry, step.tune, step.caret),
          save: save.kind === 'conflict' ? save : { kind: 'unsaved' },
          said: `Undone: ${step.label}`,
        };
      }),
    redone: (state): OpenTuneState =>
      withOpen(state, ({ past, future, tune, save, entry }) => {
        const step = future[0];
        if (!step) return {};
        return {
          tune: step.tune,
          past: [...past, { tune, label: step.label, caret: entry?.caret }],
          entry: withCaret(entry, step.tune, step.caret),
          future: future.slice(1),
          save: save.kind === 'conflict' ? save : { kind: 'unsaved' },
          said: `Redone: ${step.label}`,
        };
      }),
    selected: (state, { payload }: PayloadAction<Selection | null>): OpenTuneState =>
      withOpen(state, () => ({ selection: payload })),
    passShown: (state, { payload: { part, pass } }: PayloadAction<{ part: string; pass: number }>): OpenTuneState =>
      withOpen(state, ({ passInView }) => ({ passInView: { ...passInView, [part]: pass } })),
    savingStarted: (state): OpenTuneState => withOpen(state, () => ({ save: { kind: 'saving' } })),
    /** The server has `tune`; later edits are still to be kept. */
    saved: (
      state,
      { payload: { revision, tune, at } }: PayloadAction<{ revision: number; tune: Tune; at: number }>,
    ): OpenTuneState =>
      withOpen(state, (open) => ({
        revision,
        save: open.tune === tune ? { kind: 'kept', at } : { kind: 'unsaved' },
      })),
    saveFailed: (state, { payload }: PayloadAction<Failure>): OpenTuneState =>
      withOpen(state, () => ({ save: { kind: 'failed', failure: payload } })),
    conflictFound: (state, { payload }: PayloadAction<TuneRecord>): OpenTuneState =>
      withOpen(state, () => ({ save: { kind: 'conflict', newer: payload } })),
    /** Mine goes on top of the newer version, or the newer one is taken and mine stays one undo away. */
    conflictSettled: (
      state,
      { payload: { take, at } }: PayloadAction<{ take: 'mine' | 'newer'; at: number }>,
    ): OpenTuneState =>
      withOpen(state, (open) => {
        if (open.save.kind !== 'conflict') return {};
        const { newer } = open.save;
        if (take === 'mine') {
          const past = [...open.past, { tune: newer.tune, label: 'using your version' }];
          return { revision: newer.revision, past, save: { kind: 'unsaved' } };
        }
        return {
          revision: newer.revision,
          tune: newer.tune,
          entry: null,
          past: [...open.past, { tune: open.tune, label: 'using the other version' }],
          future: [],
          selection: null,
          save: { kind: 'kept', at },
        };
      }),
  },
});

export const {
  takenUp,
  tuneOpened,
  tuneClosed,
  copied,
  edited,
  entryBegan,
  entered,
  entryEnded,
  undone,
  redone,
  selected,
  passShown,
  savingStarted,
  saved,
  saveFailed,
  conflictFound,
  conflictSettled,
} = openTuneSlice.actions;
export const openTuneReducer = openTuneSlice.reducer;

declare module '../store/store' {
  interface LateSlices {
    readonly openTune: OpenTuneState;
  }
}

type WithOpenTune = { readonly openTune: OpenTuneState };
export const selectClipboard = (state: WithOpenTune) => state.openTune.clipboard;
export const selectOpen = (state: WithOpenTune) => state.openTune.open;
const selectTune = (state: WithOpenTune) => state.openTune.open?.tune ?? null;
const selectPassInView = (state: WithOpenTune) => state.openTune.open?.passInView ?? null;
export const selectReport = createSelector(
  [selectTune, selectPlayer],
  (tune, player) => tune && measured('report', () => reportTune(tune, player)),
);
export const selectNoteStates = createSelector([selectReport, selectPassInView], (report, inView) =>
  report && inView ? measured('states', () => noteStates(report, inView)) : null,
);
