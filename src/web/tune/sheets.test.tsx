import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { blankTune } from '#core/editing';
import { pitchName } from '#core/pitch';
import { type Tune, writtenBars, writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { BarSheet } from './BarSheet';
import { FormSheet } from './FormSheet';
import { NoteSheet } from './NoteSheet';
import { TuneSheet } from './TuneSheet';

const t = tune([part('A', 'D4:8 | E4:8'), part('B', 'F#4:8')], { form: ['A', 'A', 'B', 'B'] });

describe('the tune sheet', () => {
  function show(on: Tune, hasNotes: boolean) {
    const done: Tune[] = [];
    render(
      <TuneSheet
        tune={on}
        heading="This tune"
        deed="Save"
        hasNotes={hasNotes}
        onClose={() => undefined}
        onDone={(next) => done.push(next)}
      />,
    );
    return done;
  }
  const keep = () => userEvent.click(screen.getByRole('button', { name: 'Save' }));

  test('a tune needs a title, a meter and a tuning that are ones; what is wrong is said at its field', async () => {
    const done = show(blankTune(), false);
    const tuning = screen.getByLabelText(/Tuning, low to high/);
    await userEvent.clear(tuning);
    await userEvent.type(tuning, 'E5 A4 D4');
    await keep();
    expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
      'a tune has a title',
      'expected four pitches low to high with octaves, such as A3 E4 A4 E5',
    ]);
    expect(done).toEqual([]);
  });

  test('a list that would break a string is refused with the reason', async () => {
    const done = show(t, true);
    const tuning = screen.getByLabelText(/Tuning, low to high/);
    await userEvent.clear(tuning);
    await userEvent.type(tuning, 'E5 A4 D4 G3');
    await keep();
    expect(screen.getByRole('alert').textContent).toContain('is the list low to high?');
    expect(done).toEqual([]);
  });

  test('in another key the notes go along, unless they shall stay', async () => {
    const done = show(t, true);
    await userEvent.selectOptions(screen.getByLabelText('Tonic'), 'G');
    await keep();
    await userEvent.click(screen.getByRole('checkbox', { name: /the notes go along/ }));
    await keep();
    expect(done.map((next) => pitchName(writtenNotes(next)[0]!.pitch))).toEqual(['G4', 'D4']);
    expect(done.map(({ key }) => key.letter)).toEqual(['G', 'G']);
  });

  test('what is left alone stays as it was', async () => {
    const done = show(t, true);
    await keep();
    expect(done).toEqual([t]);
  });
});

describe('the form sheet', () => {
  function Editing() {
    const [now, setNow] = useState(t);
    return <FormSheet tune={now} onEdit={setNow} onClose={() => undefined} />;
  }
  const sums = () => document.querySelector('[data-sums]')!.textContent;

  test('plays and order change the length at once', async () => {
    render(<Editing />);
    expect(sums()).toContain('6 bars');
    const plays = screen.getByLabelText('Times through part B');
    await userEvent.clear(plays);
    await userEvent.type(plays, '4');
    expect(sums()).toContain('8 bars');
    const order = screen.getByLabelText<HTMLInputElement>(/Playing order/);
    await userEvent.clear(order);
    await userEvent.type(order, 'ABA{Enter}');
    expect(sums()).toContain('5 bars');
  });

  test('an order with a part that is none is told and not taken', async () => {
    render(<Editing />);
    const order = screen.getByLabelText(/Playing order/);
    await userEvent.clear(order);
    await userEvent.type(order, 'AQ{Enter}');
    expect(screen.getByText('Expected parts by name: A, B.')).toBeTruthy();
    expect(sums()).toContain('6 bars');
  });

  test('a part is renamed, added and taken away', async () => {
    render(<Editing />);
    const name = screen.getByLabelText('Name of part A');
    await userEvent.clear(name);
    await userEvent.type(name, 'Tail{Enter}');
    expect(screen.getByLabelText<HTMLInputElement>(/Playing order/).value).toBe('Tail Tail B B');
    await userEvent.click(screen.getByRole('button', { name: 'Add a part' }));
    expect(screen.getByLabelText('Times through part A')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Delete part B' }));
    expect(screen.queryByLabelText('Times through part B')).toBeNull();
  });
});

test('an ending names the plays on which its bars sound; what is no number is not kept', async () => {
  const edits: Tune[] = [];
  render(
    <BarSheet
      tune={t}
      barIds={['Ab2']}
      where="bar 2 of A"
      onEdit={(next) => edits.push(next)}
      onClose={() => undefined}
    />,
  );
  const ending = screen.getByLabelText(/Ending/);
  await userEvent.type(ending, 'first');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  await userEvent.clear(ending);
  await userEvent.type(ending, '3, 1{Enter}');
  expect(writtenBars(edits[0]!).get('A')![1]!.event).toMatchObject({ ending: true, onPlays: [1, 3] });
  expect(edits[0]!.meter).toBe(t.meter);
});

test('a meter from a bar on holds for what follows; one that is none cannot be kept', async () => {
  const edits: Tune[] = [];
  render(
    <BarSheet
      tune={t}
      barIds={['Ab2']}
      where="bar 2 of A"
      onEdit={(next) => edits.push(next)}
      onClose={() => undefined}
    />,
  );
  const meter = screen.getByLabelText('Meter');
  await userEvent.clear(meter);
  await userEvent.type(meter, '6');
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true);
  await userEvent.type(meter, '/8');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(
    writtenBars(edits[0]!)
      .get('A')!
      .map(({ meter: { num } }) => num),
  ).toEqual([4, 6]);
});

describe('bars taken up from another part', () => {
  function Bench() {
    const [tune, setTune] = useState(t);
    return <FormSheet tune={tune} onEdit={setTune} onClose={() => undefined} />;
  }

  test('are chosen by part and bar, said with the part, and can go their own way', async () => {
    render(<Bench />);
    await userEvent.click(screen.getByRole('button', { name: 'Reuse bars of another part' }));
    await userEvent.selectOptions(screen.getByLabelText('First bar to reuse'), '2');
    await userEvent.click(screen.getByRole('button', { name: 'Reuse' }));
    expect(screen.queryByText('bar 2 as A 2')).not.toBeNull();
    expect(screen.queryByText('8 bars')).not.toBeNull();
    await userEvent.click(screen.getByRole('button', { name: /its own way/ }));
    expect(screen.queryByText('bar 2 as A 2')).toBeNull();
  });

  test('are not taken up in their own place', async () => {
    render(<Bench />);
    await userEvent.click(screen.getByRole('button', { name: 'Reuse bars of another part' }));
    await userEvent.selectOptions(screen.getByLabelText('Part that reuses them'), 'A');
    await userEvent.selectOptions(screen.getByLabelText('First bar they replace'), '1');
    expect(screen.getByRole('button', { name: 'Reuse' }).hasAttribute('disabled')).toBe(true);
    expect(screen.queryByText(/choose other bars/)).not.toBeNull();
  });
});

describe('the note sheet', () => {
  function show(ids: readonly string[], of: Tune = t) {
    const done: [Tune, string][] = [];
    render(
      <NoteSheet
        tune={of}
        ids={ids}
        where="bar 1 of A"
        onEdit={(next, label) => done.push([next, label])}
        onClose={() => undefined}
      />,
    );
    return done;
  }

  test('a chord name stands over the first note, grace notes before each, near to it', async () => {
    const done = show(['A1', 'B1']);
    await userEvent.type(screen.getByLabelText('Chord name'), 'D');
    await userEvent.type(screen.getByLabelText(/Grace notes/), 'e{Enter}');
    const [next, label] = done[0]!;
    expect(label).toBe('chord D, grace notes in bar 1 of A');
    expect(writtenNotes(next).map(({ chord, graceNotes }) => [chord, graceNotes?.map(pitchName)])).toEqual([
      ['D', ['E4']],
      [undefined, undefined],
      [undefined, ['E4']],
    ]);
  });

  test('a hold, a breath and a pace are set on all notes, told in the label, and taken away again', async () => {
    const done = show(['A1', 'B1']);
    await userEvent.type(screen.getByLabelText(/^Held/), '1,5');
    await userEvent.type(screen.getByLabelText(/^Breath after it/), '2');
    await userEvent.type(screen.getByLabelText(/^Pace from here/), '80{Enter}');
    const [next, label] = done[0]!;
    expect(label).toBe('hold and breath and pace in bar 1 of A');
    expect(writtenNotes(next).map(({ hold, breath, pace }) => [hold, breath, pace])).toEqual([
      [1.5, 0.25, 0.8],
      [undefined, undefined, undefined],
      [1.5, 0.25, 0.8],
    ]);
    cleanup();
    const again = show(['A1'], next);
    await userEvent.clear(screen.getByLabelText(/^Breath after it/));
    await userEvent.click(screen.getByRole('button', { name: 'Save' }));
    expect(writtenNotes(again[0]![0])[0]).toMatchObject({ hold: 1.5, pace: 0.8 });
    expect(writtenNotes(again[0]![0])[0]!.breath).toBeUndefined();
  });

  test('a hold that is none is said at its field, and nothing is kept', async () => {
    const done = show(['A1']);
    await userEvent.type(screen.getByLabelText(/^Held/), '9{Enter}');
    expect(screen.getByRole('alert').textContent).toBe('expected 0.5 to 4, or nothing');
    expect(done).toEqual([]);
  });

  test('a word that is no note is said with its place, and nothing is kept', async () => {
    const done = show(['A1']);
    await userEvent.type(screen.getByLabelText(/Grace notes/), 'e what{Enter}');
    expect(screen.getByRole('alert').textContent).toBe(
      '“what”, the 2nd: expected a call such as A:1 or a letter such as f#.',
    );
    expect(done).toEqual([]);
  });
});
