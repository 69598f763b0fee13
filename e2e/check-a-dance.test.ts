import { kept, openTune } from './bench';
import { expect, type Page, test } from './story';

async function toTheDanceCheck(page: Page, title: string): Promise<void> {
  await openTune(page, title);
  await page.getByRole('link', { name: 'Dance', exact: true }).click();
  await expect(page.locator('[data-gains="new"]')).toBeVisible({ timeout: 20_000 });
}

/** Up to which tempo it holds, as the verdict says. */
const ceiling = async (page: Page) =>
  Number(/(?:up to|above) (\d+)/.exec((await page.locator('[data-verdict]').textContent()) ?? '')?.[1]);

test('the binding event is found, its best mend is made, and the ceiling rises as promised', async ({ page }) => {
  await toTheDanceCheck(page, 'The Heron on the Slipway');
  await expect(page.locator('[data-verdict]')).toContainText('the tune breaks above');
  const before = await ceiling(page);
  const tightest = page.locator('[data-tight]').first();
  await expect(tightest).toContainText('slur over a skipped string');
  await expect(tightest).toContainText(String(before));
  const best = page.locator('[data-gains] li').first();
  const promised = Number(/the tune up to (\d+)/.exec((await best.textContent()) ?? '')![1]);
  expect(promised).toBeGreaterThan(before);
  await best.getByRole('button', { name: /^Take it/ }).click();
  await expect.poll(() => ceiling(page)).toBeCloseTo(promised, 1);
  await kept(page);
  await page.getByRole('button', { name: /^Undo: / }).click();
  await expect.poll(() => ceiling(page)).toBeCloseTo(before, 1);
  await kept(page);
});

test('the tempo is changed and trouble answers; all by keyboard, to the note on the bench', async ({ page }) => {
  await toTheDanceCheck(page, 'The Heron on the Slipway');
  const words = page.locator('[data-trouble]');
  await expect(words).toContainText('At 109 half notes');
  const thumb = page.getByRole('slider', { name: 'Tempo wanted' });
  await thumb.focus();
  // By tens and by ones.
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowLeft');
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft');
  await expect(words).toContainText('At 84 half notes every place has its time');
  await expect(page.locator('[data-verdict]')).toContainText('holds up to');
  // Whatever had the focus is gone: undo answers all the same.
  await thumb.evaluate((element) => element.blur());
  // Steps of the goal are one.
  await page.keyboard.press('Control+z');
  await expect(words).toContainText('At 109 half notes');
  await kept(page);
  await page.locator('[data-tight] a').first().focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/tunes\/[0-9a-f-]+$/);
  await expect(page.locator('[data-note][aria-selected="true"]')).toHaveCount(1);
});

test('the fewest changes for a tempo are found, looked at and taken; then it holds', async ({ page }) => {
  await toTheDanceCheck(page, 'Slow Ferry Home');
  await page.getByLabel(/^at/).fill('380');
  await page.getByLabel(/^at/).press('Enter');
  const found = page.locator('[data-standing="done"]');
  await expect(found).toBeVisible({ timeout: 30_000 });
  const promised = Number(/holds up to ([\d.]+)/.exec((await found.textContent()) ?? '')![1]);
  expect(promised).toBeGreaterThanOrEqual(380);
  await found.getByRole('button', { name: /^Take/ }).click();
  await expect.poll(() => ceiling(page)).toBeCloseTo(promised, 1);
  await expect(found).toContainText('The tune has changed since');
  await page.getByRole('button', { name: /^Undo: make it hold at 380/ }).click();
  await kept(page);
});

test('no tempo is asked for that is none', async ({ page }) => {
  await toTheDanceCheck(page, 'The Heron on the Slipway');
  await page.getByLabel(/^at/).fill('fast');
  await expect(page.getByRole('alert').filter({ hasText: 'expected a tempo from 20 to 400' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Find the fewest changes' })).toBeDisabled();
});

test('a lilt is chosen, the ceiling moves with it, and it is kept with the tune', async ({ page }) => {
  await toTheDanceCheck(page, 'Pewter Sky');
  const before = await ceiling(page);
  await page.getByLabel('lilt', { exact: true }).selectOption('dotted');
  await expect.poll(() => ceiling(page)).toBeLessThan(before - 5);
  await expect(page.getByText(/The even notes of a beat last \d+/)).toBeVisible();
  await kept(page);
  await page.reload();
  await expect(page.getByLabel('lilt', { exact: true })).toHaveValue('dotted');
  await expect(page.locator('[data-gains="new"]')).toBeVisible();
  await page.getByRole('button', { name: 'play it straight' }).click();
  await expect.poll(() => ceiling(page)).toBeCloseTo(before, 1);
  await kept(page);
});

test('a tight place is heard over and over', async ({ page }) => {
  await toTheDanceCheck(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: /^Hear bar 2 of B, the “and” of 3, over and over/ }).click();
  await expect(page.locator('[data-playing]')).toContainText(/round \d+/, { timeout: 20_000 });
  await page.getByRole('button', { name: 'Stop (Space)' }).click();
});

test('a lilt of one’s own is made, one that lets a note grow is refused with the tempo, and it is taken away', async ({
  page,
}) => {
  await toTheDanceCheck(page, 'Pewter Sky');
  const before = await ceiling(page);
  await page.getByRole('button', { name: 'one of your own …' }).click();
  const dialog = page.getByRole('dialog', { name: 'A lilt of your own' });
  await dialog.getByLabel('Name').fill('harbour');
  await dialog.getByLabel('Shares of a quarter').fill('80 20');
  await expect(dialog.locator('[data-lilt-problem]')).toContainText(
    'would grow longer as the tempo rises from 110 to 132',
  );
  await expect(dialog.getByRole('button', { name: 'Save' })).toBeDisabled();
  await dialog.getByLabel('Shares of a quarter').fill('60 40');
  await dialog.getByLabel('Name').press('Enter');
  await expect(dialog).toHaveCount(0);
  await expect(page.getByLabel('lilt', { exact: true })).toHaveValue('harbour');
  await expect.poll(() => ceiling(page)).toBeLessThan(before - 3);
  await kept(page);
  await page.getByRole('button', { name: 'change “harbour” …' }).click();
  await page.getByRole('button', { name: 'Delete it' }).click();
  await expect(page.getByLabel('lilt', { exact: true })).toHaveValue('straight');
  await expect.poll(() => ceiling(page)).toBeCloseTo(before, 1);
  await kept(page);
});
