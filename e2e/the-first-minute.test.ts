import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './story';

test.describe('for who is here for the first time', () => {
  test.use({ ownContext: true });

  test('three ways in are offered; one leads to a tune with something to mend, and help is a key away', async ({
    page,
  }) => {
    await page.goto('/');
    const welcome = page.getByRole('region', { name: 'Does the bowing work?' });
    await expect(welcome).toContainText('a demo');
    for (const door of ['Look at one', 'Bring a tune', 'Begin one'])
      await expect(welcome.getByRole('button', { name: door })).toBeVisible();
    expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([]);
    await welcome.getByRole('button', { name: 'Look at one' }).click();
    await expect(page.locator('[data-verdict="bad"]')).toBeVisible();
    // Greeted once.
    await page.goto('/');
    await expect(page.getByRole('table')).toBeVisible();
    await expect(welcome).toHaveCount(0);
    await page.keyboard.press('?');
    const help = page.getByRole('dialog', { name: 'The book' });
    await expect(help).toContainText('comes round: Every time through');
    expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([]);
    await page.keyboard.press('Escape');
    await expect(help).toHaveCount(0);
  });
});

test('undo goes from room to room, and is still there after the page is loaded again', async ({ page }) => {
  await page.goto('/?words=Marsh+Lamps');
  await page.getByRole('link', { name: 'Marsh Lamps' }).click();
  await page.locator('[data-note]').nth(4).click();
  await page.keyboard.press('Shift+C');
  const undo = page.getByRole('button', { name: /^Undo: cut in / });
  await expect(undo).toBeEnabled();
  for (const room of ['Ground', 'Dance']) {
    await page.getByRole('link', { name: room, exact: true }).click();
    await expect(page.getByRole('link', { name: 'back to the bench' })).toBeVisible();
    await expect(undo).toBeEnabled();
  }
  await page.goto(`${page.url().replace(/\/dance$/, '')}/handout`);
  await expect(undo).toBeEnabled();
  await page.goto(page.url().replace(/\/handout$/, ''));
  await expect(page.locator('[data-note]').nth(4)).toHaveAttribute('aria-label', /with a cut/);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-note]').nth(4)).not.toHaveAttribute('aria-label', /with a cut/);
  await expect(page.getByRole('button', { name: /^Redo: cut in / })).toBeEnabled();
});

test('focus comes back to the note after a window and after a tool, and keys work without a press in the score', async ({
  page,
}) => {
  await page.goto('/?words=Marsh+Lamps');
  await page.getByRole('link', { name: 'Marsh Lamps' }).click();
  await expect(page.locator('[data-note]').first()).toBeVisible();
  // Nothing was pressed in the score.
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  const second = page.locator('[data-note]').nth(1);
  await expect(second).toBeFocused();
  await page.keyboard.press('n');
  await expect(page.getByLabel('Chord name')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(second).toBeFocused();
  await page.keyboard.press('a');
  await expect(page.getByRole('complementary', { name: 'Tools' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(second).toBeFocused();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Form/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'More', exact: true })).toBeFocused();
});
