import { roomHelp } from './help';

test.each([
  ['/', 'The book'],
  ['/tunes/7c5e', 'The bench'],
  ['/tunes/7c5e/ground', 'The ground'],
  ['/tunes/7c5e/dance', 'The dance check'],
  ['/tunes/7c5e/handout', 'The hand-out'],
  ['/pegs', 'The pegs'],
  ['/settings', 'Settings'],
  ['/nowhere', 'The book'],
])('the room at %s is %s, with what it is for and its keys', (path, title) => {
  const help = roomHelp(path);
  expect(help.title).toBe(title);
  expect(help.about.length).toBeGreaterThan(0);
  expect(help.keys.length).toBeGreaterThan(0);
});
