import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ListeningLadder } from '../takes/useListeningLadder';
import { EarButton, EarLine } from './EarLine';

const ear = (more: Partial<ListeningLadder> = {}): ListeningLadder => ({
  isOn: true,
  isShown: false,
  phase: 'told',
  level: -30,
  said: 'Bar 3 of A, 2: the finger comes late, 80 ms.',
  isClean: false,
  rows: [],
  heard: null,
  problem: null,
  start: () => undefined,
  stop: () => undefined,
  ...more,
});
const said = () => document.querySelector('[data-ear-said]')!.textContent;

test('the one thing that mattered is said, with the figures of the drill', () => {
  render(<EarLine ear={ear({ rows: ['late finger 80 ms'] })} />);
  expect(said()).toMatch(/the finger comes late, 80 ms/);
  expect(screen.getByText('late finger 80 ms')).toBeTruthy();
  expect(screen.queryByText(/last time/)).toBeNull();
});

test('while the next is counted in and played what was said last can still be read, and the level is shown', () => {
  const { rerender } = render(<EarLine ear={ear({ phase: 'counting' })} />);
  expect(said()).toBe('Count-in …');
  expect(screen.getByText(/^last time: Bar 3/)).toBeTruthy();
  rerender(<EarLine ear={ear({ phase: 'playing' })} />);
  expect(said()).toBe('Play.');
  expect(screen.getByRole('meter').getAttribute('aria-valuetext')).toBe('-30 dB');
  // How long it goes on is not told here.
  expect(document.body.textContent).not.toMatch(/0:00/);
});

test('the simulated player is said to leave the log alone; off it says nothing, a fault it does', () => {
  const { rerender, container } = render(<EarLine ear={ear({ isShown: true })} />);
  expect(screen.getByText(/none of it goes into your log/)).toBeTruthy();
  rerender(<EarLine ear={ear({ isOn: false, phase: 'off' })} />);
  expect(container.textContent).toBe('');
  rerender(<EarLine ear={ear({ isOn: false, phase: 'off', problem: 'No microphone was found.' })} />);
  expect(screen.getByRole('alert').textContent).toContain('No microphone was found.');
});

test('who is listened to is chosen in one menu, and aloud only when it is wished', async () => {
  const onListen = jest.fn();
  const onSpeaks = jest.fn();
  render(<EarButton ear={ear({ isOn: false })} speaks={false} onSpeaks={onSpeaks} onListen={onListen} />);
  await userEvent.click(screen.getByRole('button', { name: 'Listen to me' }));
  await userEvent.click(await screen.findByRole('menuitemcheckbox', { name: 'Say it aloud' }));
  expect(onSpeaks).toHaveBeenCalledWith(true);
  await userEvent.click(screen.getByRole('menuitem', { name: 'Through the microphone' }));
  expect(onListen).toHaveBeenCalledWith('microphone');
});
