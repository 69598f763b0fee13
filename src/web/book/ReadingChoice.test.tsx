import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FileChoice } from '#formats/file';
import { part, tune } from '../../core/testing/tunes';
import type { ImportedTune } from './importProtocol';
import type { QueuedFile } from './importQueue';
import { ReadingChoice } from './ReadingChoice';

function queued(more: Partial<ImportedTune>): QueuedFile {
  const value = tune([part('A', 'D4:8')]);
  const read: ImportedTune = {
    title: value.title,
    toSend: JSON.stringify({ tune: value }),
    kind: 'midi',
    entry: null,
    bars: 1,
    notes: 1,
    parts: [],
    messages: [],
    hasSource: false,
    voices: [],
    quantised: null,
    melody: { print: [], pitches: [] },
    ...more,
  };
  return {
    key: 1,
    name: 'a.mid',
    source: new Blob(['x']),
    choice: {},
    stage: { kind: 'read' },
    items: [{ read, like: [], fate: { kind: 'own' } }],
    messages: [],
  };
}

test('a file with one voice that was written and not played has no choice', () => {
  const { container } = render(<ReadingChoice file={queued({ kind: 'abc' })} onChoose={() => undefined} />);
  expect(container.textContent).toBe('');
});

test('another voice, a finer grid and no triplets are asked for, the other choices stay', async () => {
  const choices: FileChoice[] = [];
  const file = queued({
    voices: [
      { id: '1/0', name: 'Melody', notes: 40 },
      { id: '2/1', name: 'Low', notes: 12 },
    ],
    quantised: { grid: { shortest: 8, triplets: true }, meanMs: 12.4, worstMs: 48, moved: 3 },
  });
  render(<ReadingChoice file={{ ...file, choice: { voice: '1/0' } }} onChoose={(choice) => choices.push(choice)} />);
  expect(screen.getByText(/moved by 12 ms on average, 48 at most; 3 by more/)).toBeTruthy();
  await userEvent.selectOptions(screen.getByLabelText('Melody'), 'Low (12 notes)');
  await userEvent.selectOptions(screen.getByLabelText('Shortest note'), 'sixteenth');
  await userEvent.click(screen.getByLabelText('triplets'));
  expect(choices).toEqual([
    { voice: '2/1' },
    { voice: '1/0', grid: { shortest: 16, triplets: true } },
    { voice: '1/0', grid: { shortest: 8, triplets: false } },
  ]);
});
