import { addTune, fromMenu, kept, ODD_REEL, tools } from './bench';
import { expect, test } from './story';

test('a version gets a name, the difference to now is told in words, and it can be gone back to and undone', async ({
  page,
}) => {
  await addTune(page, ODD_REEL('Versions Told'));
  await expect(page.locator('[data-note]').first()).toBeVisible();
  await fromMenu(page, 'More', 'Named versions …');
  const sheet = tools(page);
  await sheet.getByLabel(/Save the tune as it is now/).fill('every note a stroke');
  await page.keyboard.press('Enter');
  await expect(sheet.getByText('The tune is the same now.')).toBeVisible();
  await page.keyboard.press('Escape');

  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await kept(page);
  await fromMenu(page, 'More', 'Named versions …');
  await expect(sheet).toContainText('A, bar 1: notes slurred');
  // What is different is seen on staff and lanes, against the plan as it is.
  await sheet.getByRole('button', { name: /^show it in the score/ }).click();
  await expect(page.locator('[data-changed="1"]')).toHaveCount(1);
  await expect(page.locator('[data-verdict-preview]')).toBeVisible();
  await sheet.getByRole('button', { name: /^back to the plan/ }).click();
  // Both are heard in turn, the plan as the other way.
  await sheet.getByRole('button', { name: 'both by turns' }).click();
  await expect(page.locator('[data-player]')).toHaveAttribute('data-player', 'playing');
  await expect(page.locator('[data-playing]')).toContainText('the other way');
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page.locator('[data-score]')).not.toHaveAttribute('data-preview');
  await sheet.getByRole('button', { name: 'Go back to it' }).click();
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /open, up-bow/);
  await page.getByRole('button', { name: 'Undo: back to “every note a stroke”' }).click();
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);

  await sheet.getByRole('button', { name: /^Delete “every note a stroke”/ }).click();
  await expect(sheet.getByText('No version has a name yet.')).toBeVisible();
  await sheet.getByRole('button', { name: 'restore it' }).click();
  await expect(sheet.getByText('every note a stroke', { exact: true })).toBeVisible();
});

test('an earlier edit is found under its time, told in words, and gone back to by keyboard', async ({ page }) => {
  await addTune(page, ODD_REEL('Once Other'));
  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await kept(page);
  await fromMenu(page, 'More', 'Named versions …');
  const sheet = tools(page);
  await sheet.getByRole('button', { name: 'show how it was after earlier edits' }).press('Enter');
  const edits = sheet.getByRole('region', { name: 'Earlier edits' });
  await edits.getByRole('listitem').getByRole('button').last().press('Enter');
  await expect(edits).toContainText('Since then:');
  await edits.getByRole('button', { name: 'Go back to it' }).press('Enter');
  await expect(page.locator('[data-note]').nth(1)).not.toHaveAttribute('aria-label', /slurred to the one before/);
  await kept(page);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);
});

test('an easier version is saved beside the plan with what was left out, and the hand-out prints it', async ({
  page,
}) => {
  await addTune(page, 'X:1\nT:Easier Saved\nR:reel\nM:4/4\nL:1/8\nK:D\n|:DEFG ABcd|dcBA GFED|A2 d2 f2 a2|a4 d4:|\n');
  await page.locator('[data-note]').nth(0).click();
  await page.keyboard.press('Shift+C');
  await page.keyboard.press('a');
  await tools(page).getByRole('tab', { name: 'Easier, fuller' }).click();
  await tools(page)
    .getByRole('button', { name: /save as a version.*without passing notes/ })
    .click();
  await expect(tools(page).getByRole('button', { name: /^saved/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await fromMenu(page, 'More', 'Named versions …');
  const sheet = tools(page);
  await expect(sheet.getByText('without passing notes', { exact: true })).toBeVisible();
  await expect(sheet).toContainText(/passing notes \(\d+ notes\)/);
  await page.keyboard.press('Escape');
  await kept(page);
  await fromMenu(page, 'More', 'Hand-out on paper');
  await expect(page.locator('[data-sign="fingers"] text').first()).toBeAttached();
  const count = () => page.locator('[data-sign="fingers"] text').count();
  const whole = await count();
  await page.getByLabel('version').selectOption({ label: 'without passing notes' });
  await expect.poll(count).toBeLessThan(whole);
  await expect(page.locator('[data-pages="1"]')).toBeVisible();
});
