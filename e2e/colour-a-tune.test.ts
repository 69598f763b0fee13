import { kept, openTune, tools } from './bench';
import { expect, test } from './story';

test('a drone is chosen beside a note, written on the staff, and a line of drones is set and taken off', async ({
  page,
}) => {
  await openTune(page, 'Slow Ferry Home');
  const note = page.locator('[data-note]').nth(8);
  await note.click();
  const arm = page.locator('[data-line]').first().locator('[data-lane="arm"] path').first();
  const before = await arm.getAttribute('d');
  await note.press('c');
  const dialog = tools(page);
  await expect(dialog).toContainText('the sweetest here');
  await dialog
    .getByRole('listitem')
    .filter({ hasText: 'open' })
    .getByRole('button', { name: /take it/ })
    .first()
    .click();
  await expect(arm).not.toHaveAttribute('d', before ?? '');
  await expect(page.locator('[data-note]').nth(8)).toHaveAttribute('aria-label', /with the open/);

  await dialog.getByRole('tab', { name: 'A whole line' }).click();
  await dialog.getByRole('radio', { name: 'the tune', exact: true }).check();
  await dialog.getByRole('radio', { name: 'one pair of strings throughout' }).check();
  await expect(dialog.locator('[data-drone-line]')).toContainText('% of the time');
  await dialog.getByRole('button', { name: 'Take these drones' }).click();
  await kept(page);
  const off = dialog.getByRole('button', { name: /^Remove \d+ drones$/ });
  await off.click();
  await expect(page.locator('[data-note][aria-label*="with the open"]')).toHaveCount(0);
});

test('from the card of a note: an ornament, a drone and a finger, each in two clicks and on the screen', async ({
  page,
}) => {
  await openTune(page, 'Marsh Lamps');
  const note = page.locator('[data-note]').nth(6);
  await note.click();
  const menu = page.getByRole('menu');
  const screen = page.viewportSize()!;
  for (const [name, item, told] of [
    ['ornament', /^cut/, /with a cut/],
    ['drone', /^the open/, /with the open/],
  ] as const) {
    await page.getByRole('button', { name, exact: true }).click();
    const box = (await menu.boundingBox())!;
    expect(box.y).toBeGreaterThanOrEqual(0);
    expect(box.y + box.height).toBeLessThanOrEqual(screen.height);
    await menu.getByRole('menuitemcheckbox', { name: item }).first().click();
    await expect(note).toHaveAttribute('aria-label', told);
  }
  await page.getByRole('button', { name: 'finger', exact: true }).click();
  await menu.getByRole('menuitem', { name: /beside the score/ }).click();
  await expect(tools(page)).toBeVisible();
});

test('drones are painted on the arm lane, and painted off again', async ({ page }) => {
  await openTune(page, 'The Heron on the Slipway');
  const line = page.locator('[data-line]').first();
  await line.hover();
  const strip = line.locator('[data-pair="DA"]');
  const notes = line.locator('[data-note]');
  const [from, to] = [(await notes.nth(1).boundingBox())!, (await notes.nth(3).boundingBox())!];
  const box = (await strip.boundingBox())!;
  const y = box.y + box.height / 2;
  const draw = async () => {
    await page.mouse.move(from.x + from.width / 2, y);
    await page.mouse.down();
    await page.mouse.move(to.x + to.width / 2, y, { steps: 5 });
    await page.mouse.up();
  };
  await draw();
  await expect(page.getByRole('button', { name: /^Undo: drone on \d notes?$/ })).toBeEnabled();
  const droned = line.locator('[data-note][aria-label*="with the open"]');
  expect(await droned.count()).toBeGreaterThan(0);
  await line.hover();
  await draw();
  await expect(droned).toHaveCount(0);
});

test('an ornament that does not fit says why, one set by rule is drawn, an easier version takes it off', async ({
  page,
}) => {
  await openTune(page, 'Over the Stile to the Strand');
  await page.locator('[data-note]').nth(0).click();
  await page.locator('[data-note]').nth(0).press('a');
  const dialog = tools(page);
  await expect(dialog.locator('[data-ornament="roll"]')).toContainText('nothing lies below an open string');
  await dialog.getByRole('tab', { name: 'By rule' }).click();
  await dialog.getByLabel('Place').selectOption('on-beat');
  await expect(dialog.locator('[data-rule]')).toContainText('where it fits on every pass');
  await dialog.getByRole('button', { name: 'Take them' }).click();
  await expect(page.locator('[data-note][aria-label*="with a flick"]').first()).toBeAttached();
  await dialog.getByRole('tab', { name: 'Easier, fuller' }).click();
  await dialog.getByRole('button', { name: /^take it.*without cuts and flicks/ }).click();
  await expect(page.locator('[data-note][aria-label*="with a flick"]')).toHaveCount(0);
});
