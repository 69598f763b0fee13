import { addTune, comesRound, fromMenu, kept, ODD_REEL, openTune, tools, verdict } from './bench';
import { expect, type Page, test } from './story';

const found = '[data-search="done"]';

test('other bowings are laid side by side with the plan, and one is taken for the B part only', async ({ page }) => {
  await openTune(page, 'The Heron on the Slipway');
  await fromMenu(page, 'Bow', 'Other bowings …');
  const dialog = tools(page);
  await expect(dialog.locator(found)).toHaveText('4 found');
  await expect(dialog.locator('[data-bowing]')).toHaveCount(5);
  await expect(dialog.locator('[data-bowing="As it is now"]')).toContainText('does not come round');
  const second = dialog.locator('[data-bowing="Bowing 2"]');
  await expect(second).toContainText('comes round');
  const promised = /holds up to (\d+)/.exec((await second.textContent())!)![1];

  await dialog.getByLabel('part').selectOption('B');
  await dialog.getByRole('button', { name: 'Bars after' }).click();
  await expect(dialog.getByText('bars 3–4')).toBeVisible();
  const before = await labels(page);
  await second.getByRole('button', { name: /^only for B/ }).click();
  await expect(page.getByRole('button', { name: 'Undo: bowing 2 for part B' })).toBeEnabled();
  const after = await labels(page);
  const inA = before.filter(({ part }) => part === 'A').map(({ words }) => words);
  expect(after.filter(({ part }) => part === 'A').map(({ words }) => words)).toEqual(inA);
  expect(after.filter(({ part }) => part === 'B')).not.toEqual(before.filter(({ part }) => part === 'B'));

  // The whole bowing gives what it promised.
  await page.keyboard.press('Control+z');
  await expect(dialog.locator(found)).toHaveText('4 found');
  await dialog
    .locator('[data-bowing="Bowing 2"]')
    .getByRole('button', { name: /^take it/ })
    .click();
  await expect(verdict(page)).toContainText(
    new RegExp(`It comes round, (and holds up to|but breaks above) ${promised}\\.`),
  );
  await page.keyboard.press('Control+z');
  await kept(page);
});

test('wishes change what is proposed', async ({ page }) => {
  await addTune(page, ODD_REEL('Wishes Heard'));
  await page.locator('[data-note]').first().click();
  await expect(page.locator('[data-note]').first()).toBeFocused();
  await page.keyboard.press('w');
  const dialog = tools(page);
  await expect(dialog.locator(found)).toBeVisible();
  const strokes = async () =>
    Number(/(\d\.\d) strokes a second/.exec((await dialog.locator('[data-bowing="Bowing 1"]').textContent())!)![1]);
  await dialog.getByRole('slider', { name: 'As it is now' }).fill('0');
  await dialog.getByRole('slider', { name: 'One way of bowing' }).fill('0');
  await dialog.getByLabel('Smoothness').fill('1');
  await expect.poll(strokes).toBeLessThan(2);
  await dialog.getByLabel('Smoothness').fill('0');
  await expect.poll(strokes).toBeGreaterThan(5);
});

test('a search of a long tune can be stopped and begun again', async ({ page }) => {
  const bar = (i: number) => ['dAFA defd', 'cAEA cdec', 'dBGB dgfe', 'fgaf gfed'][(i * i + i) % 4]!;
  const bars = Array.from({ length: 320 }, (_, i) => bar(i)).join('|');
  await addTune(page, `X:1\nT:The Long Way Out\nR:reel\nM:4/4\nL:1/8\nK:D\n|:${bars}:|\n`);
  await page.locator('[data-note]').first().click();
  await page.keyboard.press('w');
  const dialog = tools(page);
  await dialog.getByRole('button', { name: 'Stop' }).click();
  await expect(dialog.locator('[data-search="cancelled"]')).toHaveText('stopped');
  await dialog.getByRole('button', { name: 'Look again' }).click();
  await expect(dialog.locator(found)).toHaveText(/found/, { timeout: 20_000 });
});

test('a bowing is found and taken by keyboard only', async ({ page }) => {
  await addTune(page, ODD_REEL('Chosen by Keys'));
  await expect(verdict(page)).toContainText('flip');
  await page.locator('[data-note]').first().focus();
  await page.keyboard.press('w');
  await expect(page.getByRole('slider', { name: 'One way of bowing' })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator(found)).toBeVisible();
  for (let presses = 0; presses < 20; presses++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => document.activeElement?.textContent ?? '');
    if (label === 'take it: Bowing 1') break;
  }
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await comesRound(page);
  await kept(page);
  await page.reload();
  await comesRound(page);

  // For one part alone, and back.
  await page.locator('[data-note]').last().focus();
  await page.keyboard.press('w');
  await expect(page.locator(found)).toBeVisible();
  for (let presses = 0; presses < 30; presses++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => document.activeElement?.textContent ?? '');
    if (label.startsWith('only for A')) break;
  }
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Undo: bowing \d for part A/ })).toBeEnabled();
  await page.locator('[data-note]').first().focus();
  await page.keyboard.press('Control+z');
  await comesRound(page);
});

/** What is spoken of each note, by part: B begins where the bars are counted from 1 again. */
async function labels(page: Page): Promise<{ part: string; words: string }[]> {
  const words = await page.locator('[data-note]').evaluateAll((notes) => notes.map((note) => note.ariaLabel ?? ''));
  const second = words.findIndex((line, i) => i > 0 && line.startsWith('Bar 1, beat 1:'));
  return words.map((line, i) => ({ part: i < second ? 'A' : 'B', words: line }));
}
