import { expect, type Page, test } from './story';

/** Turns the peg at hand by what the screen says, until the string stands. */
async function tune(page: Page) {
  const said = page.locator('[data-stands]');
  for (let tries = 0; tries < 40; tries++) {
    // A second of readings is what the line is the middle of.
    await page.clock.runFor(1100);
    if ((await said.getAttribute('data-stands')) === 'stands') return;
    const words = await said.innerText();
    const found = /([\d.]+) (semitones|cents) (low|high)/.exec(words);
    if (!found) continue;
    const cents = found[2] === 'semitones' ? 100 * Number(found[1]) : Number(found[1]);
    const way = found[3] === 'low' ? 'up' : 'down';
    const step = cents > 60 ? `a semitone ${way}` : cents > 12 ? way : `a touch ${way}`;
    await page.getByRole('button', { name: step, exact: true }).press('Enter');
  }
  throw new Error(`never stood: ${await said.innerText()}`);
}

test.describe('with a clock of its own', () => {
  test.use({ ownContext: true });

  test('the simulated fiddle is brought from standard to a high bass by following the plan, and its drift is forecast', async ({
    page,
  }) => {
    await page.clock.install();
    await page.goto('/pegs');
    await page.getByLabel('into').selectOption('A3 D4 A4 E5');
    await expect(page.locator('[data-safety]')).toContainText('face and eyes away from the string');
    await expect(page.locator('[data-steps] li')).toHaveCount(5);
    await page.getByRole('button', { name: 'simulated fiddle' }).click();
    for (let step = 0; step < 5; step++) {
      await tune(page);
      await page.getByRole('button', { name: /^(In tune: next string|Done: all strings are in tune)$/ }).click();
    }
    await expect(page.getByText('is in A3 D4 A4 E5')).toBeVisible();
    await page.getByRole('radio', { name: /^G/ }).click();
    await expect(page.locator('[data-forecast]')).toContainText(/Check again in|retune it now/);
    await expect(page.locator('[data-forecast]')).toContainText(/from \d+ readings/);
    await page.getByRole('button', { name: 'Record this check' }).click();
    await expect(page.getByRole('button', { name: 'Undo: check of the G string' })).toBeEnabled();
    await page.reload();
    await expect(page.getByText('is in A3 D4 A4 E5')).toBeVisible();
  });
});

test('a tuning of one’s own is kept, a list read the wrong way round is refused with its reason', async ({ page }) => {
  await page.goto('/pegs');
  await page.getByRole('button', { name: 'your own' }).click();
  await page.getByLabel('Name').fill('Tide table');
  await page.getByLabel('Low to high').fill('E5 A4 D4 G3');
  await expect(page.getByText(/is the list low to high\?/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save it' })).toBeDisabled();
  await page.getByLabel('Low to high').fill('A3 D4 A4 D5');
  await page.getByRole('button', { name: 'Save it' }).click();
  await expect(page.getByLabel('into').locator('option:checked')).toHaveText('A3 D4 A4 D5, Tide table');
  await page.reload();
  await page.getByLabel('into').selectOption({ label: 'A3 D4 A4 D5, Tide table' });
  await page.getByRole('button', { name: 'Delete the tuning Tide table' }).click();
  await expect(page.getByLabel('into').getByText('Tide table')).toHaveCount(0);
});

test('an address that is no tuning, and one that would break a string, are answered in words', async ({ page }) => {
  await page.goto('/pegs?to=nonsense');
  await expect(page.getByRole('alert')).toContainText('is no tuning');
  await page.goto('/pegs?to=E5%20A4%20D4%20G3');
  await expect(page.getByRole('alert')).toContainText('This cannot be done');
});
