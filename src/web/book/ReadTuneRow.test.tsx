import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { LikeTune } from '#contract/imports';
import type { Tune } from '#core/tune';
import { readFile } from '#formats/file';
import { part, tune } from '../../core/testing/tunes';
import { tuneOf } from './importProtocol';
import type { Fate, ReadTuneItem } from './importQueue';
import { readBytes } from './readBytes';
import { ReadTuneRow } from './ReadTuneRow';

const mockFindTune = jest.fn();
jest.mock('../api/ask', () => ({
  ask: (_route: unknown, { params }: { params: { id: string } }) => mockFindTune(params.id),
}));

const ABC = 'X:1\nT:Odd Bars\nM:4/4\nL:1/8\nK:D\n|:dAFA defd|cAEA cd:|\n|:fgaf gfed|cdec A4:|\n';
const read = readBytes(new TextEncoder().encode(ABC), {}).tunes[0]!;
const LIKE: LikeTune = { id: 'known', title: 'Even Bars', share: 0.97, semitones: 5 };

function shown(more: Partial<ReadTuneItem> = {}) {
  const fates: Fate[] = [];
  render(
    <ul>
      <ReadTuneRow
        item={{ read, like: [], fate: { kind: 'own' }, ...more }}
        index={3}
        onFate={(index, fate) => {
          expect(index).toBe(3);
          fates.push(fate);
        }}
      />
    </ul>,
  );
  return fates;
}

test('its bars stand in rows by part, and one that does not fit says so at its number', () => {
  shown();
  expect(screen.getByText('4 bars, 27 notes')).toBeTruthy();
  const bars = within(screen.getByRole('list', { name: 'Bars of part A' })).getAllByRole('listitem');
  expect(bars.map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^1$/),
    expect.stringMatching(/^2! /),
  ]);
  expect(screen.getAllByText('A bar 2').length).toBeGreaterThan(0);
  expect(within(screen.getByRole('list', { name: 'Bars of part B' })).queryByText(/!/)).toBeNull();
});

test('a tune is left out and taken in again by its box', async () => {
  const fates = shown();
  await userEvent.click(screen.getByRole('checkbox', { name: 'Bring in Odd Bars' }));
  expect(fates).toEqual([{ kind: 'left-out' }]);
});

test('of one that the book has, it is told how like they are; it can become a setting of it', async () => {
  const fates = shown({ like: [LIKE] });
  expect(screen.getByText('Even Bars')).toBeTruthy();
  await userEvent.click(screen.getByRole('radio', { name: 'another setting of it' }));
  await userEvent.click(screen.getByRole('radio', { name: 'leave it out' }));
  expect(fates).toEqual([{ kind: 'joins', id: 'known' }, { kind: 'left-out' }]);
});

test('a tune that is only a little like another is no question', () => {
  shown({ like: [{ ...LIKE, share: 0.5 }] });
  expect(screen.queryByRole('radio')).toBeNull();
});

test('both are put side by side bar by bar when asked for', async () => {
  mockFindTune.mockResolvedValue({ ok: true, value: { tune: tune([part('A', 'D4:1 E4:1 F#4:1 G4:1 A4:4')]) } });
  shown({ like: [LIKE] });
  await userEvent.click(screen.getByRole('button', { name: 'compare them' }));
  expect(mockFindTune).toHaveBeenCalledWith('known');
  expect((await screen.findAllByText(/Even Bars/)).length).toBeGreaterThan(1);
  await userEvent.click(screen.getByRole('button', { name: 'close the comparison' }));
  expect(screen.getAllByText(/Even Bars/)).toHaveLength(1);
});

test('where the other cannot be fetched, that is said and the choice stays', async () => {
  mockFindTune.mockResolvedValue({ ok: false, failure: { code: 'no-connection' } });
  shown({ like: [LIKE] });
  await userEvent.click(screen.getByRole('button', { name: 'compare them' }));
  expect((await screen.findByRole('alert')).textContent).not.toBe('');
  expect(screen.getAllByRole('radio')).toHaveLength(3);
});

test('what was played and not written shows its first bars', () => {
  shown({ read: { ...read, kind: 'midi' } });
  const preview = screen.getByLabelText('The first bars as they were heard').textContent;
  // The same music, whatever the layout.
  const again = [...readFile(new TextEncoder().encode(`X:1\nT:x\nM:4/4\nL:1/8\n${preview}\n`))][0]!;
  const pitches = (of: Tune) =>
    of.parts.flatMap(({ events }) => events.flatMap((event) => (event.kind === 'note' ? [event.pitch] : [])));
  if ('failed' in again) throw new Error('not read');
  expect(pitches(again.tune)).toEqual(pitches(tuneOf(read)).slice(0, pitches(again.tune).length));
  expect(pitches(again.tune).length).toBeGreaterThan(8);
});
