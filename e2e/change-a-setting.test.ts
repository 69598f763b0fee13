import { fromMenu, openTune, tools } from './bench';
import { expect, test } from './story';

test('a school says which figures it changed, the bench follows it, and undo brings them back', async ({ page }) => {
  await openTune(page, 'The Heron on the Slipway');
  const stands = page.locator('[data-verdict]');
  const before = await stands.textContent();
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: /^stop, turn, bow on/ }).check();
  const outcome = page.locator('[data-outcome]');
  await expect(outcome).toContainText('The Heron on the Slipway: held up to');
  await outcome.getByRole('link', { name: 'The Heron on the Slipway' }).click();
  await expect(stands).not.toHaveText(before!);
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('radio', { name: /^merged into the turn/ }).check();
  await expect(outcome).toContainText('now up to');
  await page.getByRole('button', { name: /^Undo: a crossing at a bow change merged/ }).click();
  await expect(page.getByRole('radio', { name: /^stop, turn, bow on/ })).toBeChecked();
});

test('other words change no figure, and the pattern sheet uses them', async ({ page }) => {
  await page.goto('/settings');
  await page.getByRole('radio', { name: 'long first, short first' }).check();
  await expect(page.locator('[data-outcome]')).toContainText('this changes no figures');
  await openTune(page, 'The Heron on the Slipway');
  await fromMenu(page, 'Bow', 'Bowing patterns …');
  await expect(tools(page).getByText('Long-first shuffle', { exact: true })).toBeVisible();
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

test('a limit is measured by a drill that climbs, by keyboard, and the book follows it', async ({ page }) => {
  await page.goto('/settings');
  const measure = page.getByRole('button', { name: 'Measure: Shortest stroke', exact: true });
  await measure.focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Measure: shortest stroke' });
  const tempo = dialog.locator('[data-bpm]');
  const first = Number(await tempo.textContent());
  await expect(dialog.getByRole('button', { name: 'Hear it with a click' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(tempo).toHaveText(String(Math.round(first * 1.05)));
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('a second miss ends it');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText(`Clean up to ${first}`);
  const keep = dialog.getByRole('button', { name: /^Use \d+ ms/ });
  const value = /Use ([\d.]+)/.exec((await keep.textContent()) ?? '')![1]!;
  await keep.click();
  await expect(page.locator('[data-settings]')).toHaveAttribute('data-settings', 'kept');
  await expect(page.getByLabel(/^Shortest stroke measured/)).toHaveValue(value);
  await expect(page.locator('[data-outcome]')).toContainText('now up to');
});

test.describe('with a clock of its own', () => {
  test.use({ ownContext: true });

  test('the slowest bow is measured by one stroke over the hair', async ({ page }) => {
    await page.clock.install();
    await page.goto('/settings');
    await page.getByRole('button', { name: 'Measure: Slowest comfortable bow' }).click();
    const dialog = page.getByRole('dialog', { name: /Measure: slowest/ });
    await dialog.getByRole('button', { name: 'The bow starts' }).click();
    await dialog.getByRole('button', { name: 'At the tip' }).click();
    await expect(dialog).toContainText('expected a second or more');
    await dialog.getByRole('button', { name: 'Once more' }).click();
    await page.clock.runFor(1600);
    await dialog.getByRole('button', { name: 'At the tip' }).click();
    await expect(dialog.getByRole('button', { name: /^Use \d+(\.\d+)? cm\/s/ })).toBeVisible();
  });
});

test('bands go with the region, an own one stands, and the tempo of a tune that names none follows', async ({
  page,
}) => {
  await page.goto('/settings');
  await page.getByLabel('Region of the bands').selectOption('class');
  await expect(page.locator('[data-settings]')).toHaveAttribute('data-settings', 'kept');
  await page.getByRole('textbox', { name: /^reel, quickest/ }).fill('90');
  await page.getByRole('textbox', { name: /^reel, quickest/ }).press('Enter');
  await expect(page.locator('[data-settings]')).toHaveAttribute('data-settings', 'kept');
  await page.getByRole('textbox', { name: /^reel, slowest/ }).fill('95');
  await expect(page.getByText('expected 20 to 89 half notes; 70 still holds')).toBeVisible();
  await openTune(page, 'The Heron on the Slipway');
  await expect(page.getByText('a reel is danced at 70–90')).toBeVisible();
  await expect(page.getByRole('contentinfo')).toContainText('80 half notes');
});
