import { fireEvent, render, screen } from '@testing-library/react';
import { z } from 'zod';
import { Field } from './Field';
import { useChecked } from './useChecked';

const schema = z.object({
  name: z.string().trim().min(1, 'it has a name'),
  bpm: z.string().refine((text) => Number(text) > 0, 'expected a tempo'),
});

function Form({ onDone }: { readonly onDone: (fields: z.output<typeof schema>) => void }) {
  const { fields, set, errors, submit } = useChecked(schema, { name: '', bpm: '' });
  return (
    <form onSubmit={submit(onDone)}>
      <Field label="Name" error={errors.name}>
        <input name="name" value={fields.name} onChange={({ target }) => set({ name: target.value })} />
      </Field>
      <Field label="Tempo" error={errors.bpm}>
        <input name="bpm" value={fields.bpm} onChange={({ target }) => set({ bpm: target.value })} />
      </Field>
      <button type="submit">Save</button>
    </form>
  );
}

test('what is wrong is told once the form is handed in, the first wrong field is gone to, and mending it is seen at once', () => {
  const onDone = jest.fn();
  render(<Form onDone={onDone} />);
  const name = screen.getByLabelText(/Name/);
  fireEvent.change(name, { target: { value: ' ' } });
  expect(screen.queryByRole('alert')).toBeNull();
  fireEvent.click(screen.getByText('Save'));
  expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
    'it has a name',
    'expected a tempo',
  ]);
  expect(document.activeElement).toBe(name);
  fireEvent.change(name, { target: { value: ' The Heron ' } });
  fireEvent.change(screen.getByLabelText(/Tempo/), { target: { value: '104' } });
  expect(screen.queryByRole('alert')).toBeNull();
  fireEvent.click(screen.getByText('Save'));
  expect(onDone).toHaveBeenCalledWith({ name: 'The Heron', bpm: '104' });
});
