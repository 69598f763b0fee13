import { setLinks } from '#core/bowing';
import { reuseBars, transposeBySteps } from '#core/editing';
import { writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import {
  edited,
  openTuneReducer,
  type OpenTuneState,
  redone,
  selected,
  selectNoteStates,
  tuneOpened,
  undone,
} from './openTuneSlice';

const plain = tune([part('A', 'D4 E4 F#4 G4')], { form: ['A', 'A'] });
const record = { id: 'x', revision: 1, updatedAt: '2026-01-01T00:00:00.000Z', hasSource: true, tune: plain };
const opened = openTuneReducer(undefined, tuneOpened({ record, unsaved: null, at: 0 }));
const slur = (state: OpenTuneState, id: string) =>
  openTuneReducer(state, edited({ tune: setLinks(state.open!.tune, new Map([[id, 'slur']])), label: `slur at ${id}` }));

test('undo says what it undid and keeps the selection; what was undone can be done again', () => {
  const chosen = openTuneReducer(slur(opened, 'A2'), selected({ anchor: 'A2', focus: 'A3' }));
  const undoneOnce = openTuneReducer(chosen, undone());
  expect(undoneOnce.open).toMatchObject({ tune: plain, said: 'Undone: slur at A2', selection: { focus: 'A3' } });
  const again = openTuneReducer(undoneOnce, redone());
  expect(again.open!.tune).toEqual(chosen.open!.tune);
  expect(again.open!.save.kind).toBe('unsaved');
});

test('an edit after an undo ends what could be done again', () => {
  const state = slur(openTuneReducer(slur(opened, 'A2'), undone()), 'A3');
  expect(state.open!.future).toEqual([]);
  expect(openTuneReducer(state, redone()).open!.tune).toEqual(state.open!.tune);
});

test('five hundred steps can be undone, the oldest beyond them are forgotten', () => {
  let state = opened;
  for (let k = 0; k < 520; k++)
    state = openTuneReducer(state, edited({ tune: { ...plain, title: `Title ${k}` }, label: `title ${k}` }));
  expect(state.open!.past).toHaveLength(500);
  for (let k = 0; k < 510; k++) state = openTuneReducer(state, undone());
  expect(state.open!.tune.title).toBe('Title 19');
});

test('steps of the goal in a row are undone at once, and other edits between part them', () => {
  const goal = (state: OpenTuneState, bpm: number) =>
    openTuneReducer(
      state,
      edited({ tune: { ...state.open!.tune, tempoBpm: bpm }, label: `goal ${bpm}`, joins: 'goal' }),
    );
  const stepped = goal(goal(goal(opened, 100), 102), 104);
  expect(stepped.open!.past.map(({ label }) => label)).toEqual(['goal 104']);
  expect(openTuneReducer(stepped, undone()).open!.tune).toBe(plain);
  const parted = goal(slur(stepped, 'A2'), 96);
  expect(parted.open!.past.map(({ label }) => label)).toEqual(['goal 104', 'slur at A2', 'goal 96']);
});

test('undo is there again when a tune is opened as it was left, and reaches over what was changed elsewhere', () => {
  const left = slur(opened, 'A2').open!;
  const kept = { ...record, tune: structuredClone(left.tune) };
  const back = openTuneReducer(undefined, tuneOpened({ record: kept, unsaved: null, history: left, at: 0 }));
  expect(back.open).toMatchObject({ tune: left.tune, save: { kind: 'kept' } });
  expect(openTuneReducer(back, undone()).open!.tune).toBe(plain);
  const theirs = { ...record, tune: { ...plain, title: 'Theirs' } };
  const changed = openTuneReducer(undefined, tuneOpened({ record: theirs, unsaved: null, history: left, at: 0 }));
  expect(changed.open!.tune.title).toBe('Theirs');
  const undoneOnce = openTuneReducer(changed, undone());
  expect(undoneOnce.open!.tune).toBe(left.tune);
  expect(openTuneReducer(undoneOnce, undone()).open!.tune).toBe(plain);
});

test('edits of an earlier visit are shown, and the stored version is one undo away', () => {
  const mine = { ...plain, title: 'Mine' };
  const state = openTuneReducer(undefined, tuneOpened({ record, unsaved: mine, at: 0 }));
  expect(state.open).toMatchObject({
    tune: mine,
    save: { kind: 'unsaved' },
    said: 'Your unsaved edits from last time are back.',
  });
  expect(openTuneReducer(state, undone()).open!.tune).toEqual(plain);
});

test('notes are shown as bowed on the pass in view', () => {
  const odd = tune([part('A', 'D4 E4 F#4')], { form: ['A', 'A'], start: 'down' });
  const state = openTuneReducer(undefined, tuneOpened({ record: { ...record, tune: odd }, unsaved: null, at: 0 }));
  const bowOf = (inView: Record<string, number>) =>
    selectNoteStates({ openTune: { ...state, open: { ...state.open!, passInView: inView } } })!.get('A1')!.bow;
  expect([bowOf({}), bowOf({ A: 2 })]).toEqual(['down', 'up']);
});

test('an edit goes on to the bars that take up the edited one, as one step that undo takes back whole', () => {
  const two = tune([part('A', 'D4 E4'), part('B', 'A4 B4')]);
  const linked = reuseBars(two, ['Ab1'], 'B', null)!;
  const start = openTuneReducer(undefined, tuneOpened({ record: { ...record, tune: linked }, unsaved: null, at: 0 }));
  const moved = openTuneReducer(
    start,
    edited({ tune: transposeBySteps(linked, new Set(['A1']), 1), label: 'a step up' }),
  );
  expect(writtenNotes(moved.open!.tune).map(({ pitch }) => pitch.letter)).toEqual(['E', 'E', 'A', 'B', 'E', 'E']);
  expect(moved.open!.said).toBe('a step up, and in the bar like it');
  expect(openTuneReducer(moved, undone()).open!.tune).toEqual(linked);
});
