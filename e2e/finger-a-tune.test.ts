import { fromMenu, kept, openTune, tools } from './bench';
import { expect, test } from './story';

test('a note is taken another way, undone, the tune fingered afresh and folded, all by keyboard', async ({ page }) => {
  await openTune(page, 'The Ebb, a Sketch');
  const note = page.locator('[data-note]').nth(28);
  await note.click();
  await note.press('g');
  const dialog = tools(page);
  await expect(dialog).toContainText('outside first position');
  await expect(dialog).toContainText('guide note');
  const row = dialog.getByRole('row').filter({ hasText: 'in third position' }).first();
  const call = (await row.getByRole('rowheader').textContent())!;
  await row.getByRole('button').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: new RegExp(`^Undo: ${call.split(' ')[0]}`) })).toBeEnabled();
  await page.keyboard.press('Control+z');

  await dialog.getByRole('button', { name: /^Fold into first position/ }).focus();
  await page.keyboard.press('Enter');
  await kept(page);
  await expect(dialog).toContainText('all in first position');
});

test('a reported pain refingers the book, is told note by note, and is never suggested', async ({ page }) => {
  await page.goto('/settings');
  await page.getByLabel('Finger', { exact: true }).selectOption('1');
  await page.getByLabel('String', { exact: true }).selectOption('E');
  await page.getByLabel('Reason').selectOption('pain');
  await page.getByRole('button', { name: 'Leave it out' }).click();
  const outcome = page.locator('[data-outcome]');
  await expect(outcome).toContainText('refingered', { timeout: 30_000 });
  await expect(outcome).toContainText('E:1 →');
  await expect(page.getByText('Pain is a stop sign')).toBeVisible();

  await openTune(page, 'The Heron on the Slipway');
  await page.locator('[data-note]').nth(60).click();
  await page.locator('[data-note]').nth(60).press('g');
  const dialog = tools(page);
  await expect(dialog.getByRole('rowheader').first()).toBeVisible();
  for (const words of await dialog.getByRole('rowheader').allTextContents()) expect(words).not.toContain('E:1');
  await page.keyboard.press('Escape');

  await page.goto('/settings');
  await page.getByRole('button', { name: /^Allow the first finger/ }).click();
  await expect(outcome).toContainText('refingered', { timeout: 30_000 });
});

test('the ground tells places in millimetres and the real mode, and mirrors for a left-handed player', async ({
  page,
}) => {
  await openTune(page, 'Crossing the Wet Sands');
  await page.getByRole('link', { name: 'Ground' }).click();
  await expect(page.locator('[data-mode="agrees"]')).toContainText('D dorian');
  const rulers = page.getByRole('img', { name: /E string: E5 open, F5 low finger 1 at 18 mm/ });
  await expect(rulers).toBeVisible();
  const nut = async () => (await rulers.getByText('nut', { exact: true }).boundingBox())!.x;
  const right = await nut();
  await page.goto('/settings');
  await page.getByLabel(/I play left-handed/).check();
  await expect(page.locator('[data-settings="kept"]')).toBeVisible();
  await openTune(page, 'Crossing the Wet Sands');
  await page.getByRole('link', { name: 'Ground' }).click();
  await expect(page.locator('[data-mode]')).toBeVisible();
  expect(await nut()).toBeGreaterThan(right + 300);
  await page.goto('/settings');
  await page.getByLabel(/I play left-handed/).uncheck();
  await expect(page.locator('[data-settings="kept"]')).toBeVisible();
});

test('a tuning is taken up with its notes refingered, and the way there is a press away', async ({ page }) => {
  await openTune(page, 'Over the Stile to the Strand');
  await fromMenu(page, 'Hand', 'Tunings for this tune …');
  const dialog = tools(page);
  await expect(dialog.getByText(/\d+ ranked/)).toBeVisible();
  await dialog.getByRole('button', { name: /^look at A3 E4 A4 E5/ }).click();
  await expect(dialog.locator('[data-adopt]')).toContainText('refingered');
  await dialog.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByRole('button', { name: 'slide · A major · A3 E4 A4 E5' })).toBeVisible();
  await page.getByRole('button', { name: /^Undo: tuned/ }).click();
  await expect(page.getByRole('button', { name: 'slide · A major · G3 D4 A4 E5' })).toBeVisible();
});
