import { meant } from './CommandPalette';

test('a command is meant by the beginnings of its words; what it is for counts less', () => {
  expect(meant('Begin the tune on the other bow', 'begin the')).toBe(1);
  expect(meant('Begin the tune on the other bow', 'other bow')).toBe(0.8);
  expect(meant('Hook', 'stop', ['same stroke after a stop'])).toBe(0.4);
  expect(meant('Select the bars, then the part, then the tune', 'other bow', ['with the mouse'])).toBe(0);
});
