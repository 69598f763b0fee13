import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ImportMessage } from '#formats/text';
import { ImportMessages } from './ImportMessages';

const message = (line: number, severity: ImportMessage['severity'] = 'warning'): ImportMessage => ({
  line,
  column: 3,
  severity,
  code: 'syntax',
  matter: { what: 'parser', words: `said of line ${line}` },
});

test('each says how grave it is, with its line, its column and its bar', () => {
  render(<ImportMessages messages={[message(12, 'error'), message(14, 'info')]} where={(i) => `A ${i + 4}`} />);
  const [first, second] = screen.getAllByRole('listitem').map(({ textContent }) => textContent);
  expect(first).toBe('A 4 line 12, col. 3Problem. said of line 12.');
  expect(second).toBe('A 5 line 14, col. 3Note. said of line 14.');
});

test('of very many the first are shown, and the others when asked for', async () => {
  render(<ImportMessages messages={Array.from({ length: 75 }, (_, i) => message(i + 1))} />);
  await userEvent.click(screen.getByRole('button', { name: '45 more messages' }));
  expect(screen.getAllByRole('listitem')).toHaveLength(75);
  expect(screen.queryByRole('button')).toBeNull();
});

test('nothing to say is no list', () => {
  const { container } = render(<ImportMessages messages={[]} />);
  expect(container.textContent).toBe('');
});
