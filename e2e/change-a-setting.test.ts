import { expect, test } from '@playwright/test';
import { openTune } from './bench';

test.afterEach(async ({ request }) => {
  // The book is shared: what a story changed is put back.
  const { revision, settings } = (await (await request.get('/api/settings')).json()) as {
    revision: number;
    settings: { instrument: object; limits: object; schools: Record<string, string>; words: object };
  };
  await request.put('/api/settings', {
    data: {
      baseRevision: revision,
      settings: {
        instrument: {},
        limits: {},
        schools: { ...settings.schools, turn: 'merge', skips: 'on-string', arm: 'elbow', pulse: 'speed' },
        words: { phases: 'pair-first' },
      },
    },
  });
});

test('a school says which figures it changed, the bench follows it, and undo brings them back', async ({ page }) => {
  await openTune(page, 'The Heron on the Slipway');
  const stands = page.getByText(/^stands to/).first();
  const before = await stands.textContent();
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: /^stop, turn, bow on/ }).check();
  const outcome = page.locator('[data-outcome]');
  await expect(outcome).toContainText('The Heron on the Slipway: stood to');
  await outcome.getByRole('link', { name: 'The Heron on the Slipway' }).click();
  await expect(stands).not.toHaveText(before!);
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: /^merged into the turn/ }).check();
  await expect(outcome).toContainText('stands to');
  await page.getByRole('button', { name: /^Undo: a crossing at a bow change merged/ }).click();
  await expect(page.getByRole('radio', { name: /^stop, turn, bow on/ })).toBeChecked();
});

test('other words change no figure, and the pattern sheet uses them', async ({ page }) => {
  await page.goto('/settings');
  await page.getByRole('radio', { name: 'long first, short first' }).check();
  await expect(page.locator('[data-outcome]')).toContainText('no figure follows it');
  await openTune(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: 'Bowing patterns (P)' }).click();
  await expect(page.getByRole('dialog').getByText('Long-first shuffle', { exact: true })).toBeVisible();
});

test('a figure that no fiddle has is refused where it stands, by keyboard, and the old one holds', async ({ page }) => {
  await page.goto('/settings');
  const hair = page.getByRole('textbox', { name: /^Usable hair/ });
  await hair.focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('900');
  await page.keyboard.press('Enter');
  await expect(page.getByText('expected 20 to 80 cm; 63 still holds')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('58');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Usable hair: back to 63 cm' })).toBeEnabled();
  await expect(page.locator('[data-outcome]')).toBeVisible();
  await page.getByRole('button', { name: 'Usable hair: back to 63 cm' }).click();
  await expect(hair).toHaveValue('63');
});
