import { addTune, kept, ODD_REEL } from './bench';
import { expect, test } from './story';

test('the end of a stroke is pulled in the bow lane, and one undo takes it back', async ({ page }) => {
  await addTune(page, ODD_REEL('Pulled Longer'));
  await page.locator('[data-lane="bow"]').first().scrollIntoViewIfNeeded();
  await page.locator('[data-note]').nth(2).hover();
  const end = page.locator('[data-stroke-end]').nth(2);
  await expect(end).toBeAttached();
  await end.scrollIntoViewIfNeeded();
  const box = (await end.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const lane = page.locator('[data-lane="bow"] > path').nth(1);
  const before = await lane.getAttribute('d');
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 12, { steps: 4 });
  await expect(page.locator('[data-layer="stroke-ends"] text')).toContainText('×');
  await page.mouse.up();
  await expect(page.getByRole('group', { name: 'Selected notes' })).toContainText('× its own');
  await expect(lane).not.toHaveAttribute('d', before!);
  await page.getByRole('button', { name: /^Undo: stroke longer than its own/ }).click();
  await expect(lane).toHaveAttribute('d', before!);
});

test('the same by keyboard, and a pulse swells the line', async ({ page }) => {
  await addTune(page, ODD_REEL('Longer by Keys'));
  const card = page.getByRole('group', { name: 'Selected notes' });
  await page.locator('[data-note]').nth(2).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('e');
  await page.keyboard.press('e');
  await expect(card).toContainText('1.21 × its own');
  await page.keyboard.press('q');
  await expect(card).toContainText('1.10 × its own');
  await page.keyboard.press('v');
  await expect(page.locator('[data-mark="pulse"]')).toHaveCount(1);
  await expect(page.locator('[data-note][aria-selected="true"]')).toHaveAttribute('aria-label', /pulsed/);
  await kept(page);
  await page.reload();
  await expect(page.locator('[data-mark="pulse"]')).toHaveCount(1);
});
