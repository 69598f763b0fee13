import { act, render, screen } from '@testing-library/react';
import { usePreviews } from './usePreviews';

const computed: string[] = [];
const compute = (word: string) => {
  computed.push(word);
  return word.length;
};

function List({ words }: { readonly words: readonly string[] }) {
  const lengths = usePreviews(words, compute);
  return <p>{words.map((_, i) => lengths[i] ?? '…').join(' ')}</p>;
}

const shown = () => screen.getByText(/./).textContent;
const oneMore = () => act(() => jest.advanceTimersToNextTimer());

beforeEach(() => {
  jest.useFakeTimers();
  computed.length = 0;
});
afterEach(() => jest.useRealTimers());

test('nothing is computed while the page is drawn, then one after the other', () => {
  render(<List words={['slur', 'hook', 'retake']} />);
  expect([shown(), computed]).toEqual(['… … …', []]);
  oneMore();
  expect(shown()).toBe('4 … …');
  oneMore();
  oneMore();
  expect([shown(), computed]).toEqual(['4 4 6', ['slur', 'hook', 'retake']]);
  expect(jest.getTimerCount()).toBe(1);
  oneMore();
  expect(jest.getTimerCount()).toBe(0);
});

test('another list begins anew, and what was under way for the old one is left', () => {
  const { rerender } = render(<List words={['slur', 'hook']} />);
  oneMore();
  rerender(<List words={['drone']} />);
  expect(shown()).toBe('…');
  oneMore();
  expect([shown(), computed]).toEqual(['5', ['slur', 'drone']]);
});
