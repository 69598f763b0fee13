import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NumberField } from './NumberField';

function show(value = 63) {
  const kept: (number | null)[] = [];
  render(
    <NumberField
      name="Usable hair"
      unit="cm"
      why="frog to tip"
      value={value}
      usual={63}
      low={20}
      high={80}
      onChange={(next) => kept.push(next)}
    />,
  );
  return { kept, field: screen.getByRole<HTMLInputElement>('textbox', { name: /Usable hair/ }) };
}

async function type(field: HTMLElement, text: string) {
  await userEvent.clear(field);
  await userEvent.type(field, text);
}

test('a figure is kept once, when Enter is pressed or the field is left', async () => {
  const { kept, field } = show();
  await type(field, '58{Enter}');
  expect(kept).toEqual([58]);
  await type(field, '57');
  await userEvent.tab();
  expect(kept).toEqual([58, 57]);
});

test('a comma is a decimal point, and the usual figure is no figure of one’s own', async () => {
  const { kept, field } = show(60);
  await type(field, '61,5{Enter}');
  await type(field, '63{Enter}');
  expect(kept).toEqual([61.5, null]);
});

test('what cannot be is said with what is expected, nothing is kept, and Escape brings the old figure back', async () => {
  const { kept, field } = show();
  await type(field, '900{Enter}');
  expect(screen.getByText('expected 20 to 80 cm; 63 still holds')).toBeTruthy();
  expect(field.getAttribute('aria-invalid')).toBe('true');
  await userEvent.type(field, '{Escape}');
  expect(field.value).toBe('63');
  await type(field, 'long{Enter}');
  expect(kept).toEqual([]);
});

test('a figure of one’s own goes back to the usual with one press; the usual one has nowhere to go', async () => {
  const { kept } = show(58);
  await userEvent.click(screen.getByRole('button', { name: 'Usable hair: back to 63 cm' }));
  expect(kept).toEqual([null]);
});
