import { act, renderHook } from '@testing-library/react';
import type { Change } from './revisedRecord';
import { useRecordUndo } from './useRecordUndo';

interface Value {
  readonly a: number;
}

function show(name: string, save: (made: Change<Value>) => Promise<{ data?: string }>) {
  return renderHook(() => useRecordUndo<Value, string>(name, save));
}
const change = (before: number, next: number): Change<Value> => ({ before: { a: before }, next: { a: next } });

test('a change is undone and made again, each saved as what it changed', async () => {
  const saved: Change<Value>[] = [];
  const { result } = show('one', (made) => {
    saved.push(made);
    return Promise.resolve({ data: 'saved' });
  });
  await act(() => result.current.change(change(1, 2), 'two'));
  expect(result.current).toMatchObject({ undoes: 'two', redoes: null });
  expect(await act(() => result.current.undo())).toEqual({ label: 'two', data: 'saved' });
  expect(result.current).toMatchObject({ undoes: null, redoes: 'two' });
  await act(() => result.current.redo());
  expect(result.current).toMatchObject({ undoes: 'two', redoes: null });
  expect(saved).toEqual([change(1, 2), change(2, 1), change(1, 2)]);
});

test('steps are still there when the room is entered again, and those of another record are its own', async () => {
  const save = () => Promise.resolve({ data: 'saved' });
  const { result, unmount } = show('two', save);
  await act(() => result.current.change(change(1, 2), 'two'));
  unmount();
  expect(show('two', save).result.current.undoes).toBe('two');
  expect(show('three', save).result.current.undoes).toBeNull();
});

test('what the server refuses is no step, and an undo that is refused can be tried again', async () => {
  let accepts = false;
  const { result } = show('four', () => Promise.resolve(accepts ? { data: 'saved' } : {}));
  await act(() => result.current.change(change(1, 2), 'two'));
  expect(result.current.undoes).toBeNull();
  accepts = true;
  await act(() => result.current.change(change(1, 2), 'two'));
  accepts = false;
  expect(await act(() => result.current.undo())).toBeNull();
  expect(result.current).toMatchObject({ undoes: 'two', redoes: null });
});

test('undone before it is saved, it is the last change that goes back', async () => {
  const saved: Change<Value>[] = [];
  let answer: () => void = () => undefined;
  const { result } = show('five', (made) => {
    saved.push(made);
    return new Promise((resolve) => (answer = () => resolve({ data: 'saved' })));
  });
  await act(async () => {
    const first = result.current.change(change(1, 2), 'two');
    answer();
    await first;
  });
  await act(async () => {
    void result.current.change(change(2, 3), 'three');
    const undone = result.current.undo();
    answer();
    await undone;
  });
  expect(saved).toEqual([change(1, 2), change(2, 3), change(3, 2)]);
  expect(result.current).toMatchObject({ undoes: 'two', redoes: 'three' });
});
