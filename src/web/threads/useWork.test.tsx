import { act, renderHook } from '@testing-library/react';
import { useWork } from './useWork';
import { WorkFailure } from './workerTask';

/** Work that is ended by hand. */
function byHand() {
  let seen!: {
    readonly answer: (answer: number) => void;
    readonly fail: (error: Error) => void;
    readonly tell: (progress: number) => void;
    readonly signal: AbortSignal;
  };
  return {
    get seen() {
      return seen;
    },
    run: (signal: AbortSignal, tell: (progress: number) => void) =>
      new Promise<number>((answer, fail) => {
        seen = { answer, fail, signal, tell };
      }),
  };
}

test('an old answer stays until the new one is there; progress after the answer changes nothing', async () => {
  const { result } = renderHook(() => useWork<number>());
  const [first, second] = [byHand(), byHand()];
  act(() => void result.current.begin(first.run));
  await act(async () => first.seen.answer(1));
  act(() => void result.current.begin(second.run));
  act(() => second.seen.tell(0.5));
  expect(result.current.state).toEqual({ kind: 'going', progress: 0.5, answer: 1, problem: null });
  await act(async () => second.seen.answer(2));
  act(() => second.seen.tell(0.9));
  expect(result.current.state).toMatchObject({ kind: 'done', answer: 2 });
});

test('what is begun aborts what was under way, whose end is not shown', async () => {
  const { result } = renderHook(() => useWork<number>());
  const [first, second] = [byHand(), byHand()];
  act(() => void result.current.begin(first.run));
  act(() => void result.current.begin(second.run));
  expect(first.seen.signal.aborted).toBe(true);
  await act(async () => first.seen.fail(new Error('late')));
  expect(result.current.state.kind).toBe('going');
});

test('a failure says why, given up by hand says that, and nothing goes on when the page is left', async () => {
  const { result, unmount } = renderHook(() => useWork<number>());
  const [first, second] = [byHand(), byHand()];
  act(() => void result.current.begin(first.run));
  await act(async () => first.seen.fail(new WorkFailure('too-long')));
  expect(result.current.state).toMatchObject({ kind: 'failed', problem: 'too-long' });
  act(() => void result.current.begin(second.run));
  act(() => result.current.cancel());
  expect(result.current.state.kind).toBe('cancelled');
  const third = byHand();
  act(() => void result.current.begin(third.run));
  unmount();
  expect(third.seen.signal.aborted).toBe(true);
});
