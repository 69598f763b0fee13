import { render, screen } from '@testing-library/react';
import { COMMANDS } from '../commands/commands';
import { keyLines, KeysSheet } from './KeysSheet';

test('every command is told in the key sheet, alone or with its family', () => {
  render(<KeysSheet onClose={() => undefined} />);
  const told = screen.getByRole('dialog', { name: 'Keys' }).textContent!;
  for (const { label, family } of COMMANDS) expect(told).toContain(family ?? label);
});

test('commands that differ by their key alone are one line', () => {
  const lines = keyLines(COMMANDS.filter(({ id }) => id.startsWith('show-pass') || id === 'redo'));
  expect(lines).toEqual([
    ['1 … 9', 'Show that time through the part'],
    ['Ctrl Y, Ctrl Shift Z', 'Redo'],
  ]);
});
