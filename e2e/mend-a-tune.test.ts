import { addTune, bringIn, comesRound, fromMenu, kept, ODD_REEL, openTune, tools, verdict } from './bench';
import { expect, test } from './story';

test('bring a tune in, lay a pattern on it, see that it does not come round, mend it, and it is still mended later', async ({
  page,
}) => {
  await bringIn(page, ODD_REEL('Mended by Mouse'));
  await expect(page.getByRole('heading', { level: 1, name: 'Mended by Mouse' })).toBeVisible();

  await fromMenu(page, 'Bow', 'Bowing patterns …');
  await tools(page).getByText('Pair-first shuffle', { exact: true }).click();
  await page.getByRole('radio', { name: 'whole tune' }).check();
  // It is seen in the score before it is taken.
  await expect(page.locator('[data-score]')).toHaveAttribute('data-preview', 'true');
  await expect(page.locator('[data-verdict-preview]')).toContainText('flip');
  await page.getByRole('button', { name: 'Take it for the tune' }).click();
  await expect(verdict(page)).toContainText('flip');
  await page.getByRole('button', { name: 'Close the tools (Esc)' }).click();

  for (let tries = 0; tries < 3 && !(await verdict(page).textContent())?.includes('It comes round'); tries++)
    await page.locator('[data-finding="part-flips"] li button').first().click();
  await comesRound(page);
  await kept(page);

  await page.reload();
  await comesRound(page);
  await expect(page.locator('[data-finding="part-flips"]')).toHaveCount(0);
});

test('the same by keyboard only', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  const tabTo = async (name: RegExp) => {
    for (let presses = 0; presses < 60; presses++) {
      await page.keyboard.press('Tab');
      const label = await page.evaluate(() => {
        const focused = document.activeElement;
        if (focused === document.body) return '';
        return `${focused?.getAttribute('aria-label') ?? ''} ${focused?.textContent ?? ''}`;
      });
      if (name.test(label)) return;
    }
    throw new Error(`${name} was not reached with the tab key`);
  };
  await tabTo(/Bring tunes in/);
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Text')).toBeFocused();
  await page.keyboard.insertText(ODD_REEL('Mended by Keys'));
  await tabTo(/Read it/);
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 tune read.')).toBeVisible();
  await tabTo(/Add 1 tune/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Mended by Keys' })).toBeVisible();
  await expect(page.locator('[data-note]').first()).toBeVisible();

  await tabTo(/Bar 1, beat 1: D/);
  await page.keyboard.press('p');
  await expect(page.getByRole('radio', { name: /Pair-first shuffle/ })).toBeFocused();
  await tabTo(/Take it for part A/);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(verdict(page)).toContainText(/flips? the 2nd time/);

  // A mend of the margin for each part that flips.
  for (let mends = 0; mends < 3 && !(await verdict(page).textContent())?.includes('It comes round'); mends++) {
    await tabTo(/: (comes round|holds up to)/);
    await page.keyboard.press('Enter');
  }
  await comesRound(page);
  await kept(page);
  await page.reload();
  await comesRound(page);
});

test('gestures, locks, passes and undo answer by mouse and by key', async ({ page }) => {
  await addTune(page, ODD_REEL('Gestures'));
  const notes = page.locator('[data-note]');
  await notes.nth(1).click();
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /Bar 1, the “and” of 1: A, A string, open, up-bow/);
  await page.keyboard.press('s');
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /down-bow, slurred to the one before/);
  await expect(notes.nth(0)).toHaveAttribute('aria-label', /slurred with the next/);
  await page.getByRole('button', { name: 'retake', exact: true }).click();
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /down-bow, retaken/);
  await page.keyboard.press('Control+z');
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);
  await page.getByRole('button', { name: /^Undo: slur/ }).click();
  await expect(notes.nth(1)).toHaveAttribute('aria-label', /open, up-bow/);

  await notes.nth(1).click();
  await page.keyboard.press('d');
  await expect(page.locator('[data-finding="lock-contradicted"]')).toContainText('You locked this down-bow');
  await page
    .locator('[data-finding="lock-contradicted"]')
    .getByRole('button', { name: /^retake/ })
    .click();
  await expect(page.locator('[data-finding="lock-contradicted"]')).toHaveCount(0);

  await page.getByRole('button', { name: /^A, 2nd time/ }).click();
  await expect(page.getByRole('button', { name: /^A, 2nd time/ })).toHaveAttribute('aria-pressed', 'true');

  await notes.nth(4).click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.locator('[data-note][aria-selected="true"]')).toHaveCount(3);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('what to do is found by its name, done and undone, and the keys come back to the score', async ({ page }) => {
  await openTune(page, 'The Heron on the Slipway');
  await page.locator('[data-note]').nth(2).click();
  await page.keyboard.press('Control+k');
  const palette = page.getByRole('dialog', { name: 'What do you want to do?' });
  await page.keyboard.type('other bow');
  await expect(palette.getByRole('option').first()).toHaveText(/^Begin the tune on the other bow/);
  await page.keyboard.press('Enter');
  await expect(palette).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Undo: start on the up-bow' })).toBeEnabled();
  await page.keyboard.press('t');
  await expect(page.getByRole('button', { name: /^Undo: turn in bar 1 of A/ })).toBeEnabled();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  // What cannot be done here is not offered.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('paste');
  await expect(palette.getByText(/No command of that name works here/)).toBeVisible();
});

test('where no single change brings a tune round, two do: made as one step, undone as one, by keyboard', async ({
  page,
}) => {
  // Both parts turn an odd number of times.
  await addTune(page, ODD_REEL('Two Odd Parts'));
  await expect(verdict(page)).toContainText('A and B flip the 2nd time');
  const mend = page
    .locator('[data-finding="part-flips"]')
    .first()
    .getByRole('button', { name: / and .*comes round/ });
  await mend.first().focus();
  await page.keyboard.press('Enter');
  await comesRound(page);
  await page.keyboard.press('Control+z');
  await expect(verdict(page)).toContainText('A and B flip');
  await page.keyboard.press('Control+y');
  await kept(page);
  await page.reload();
  await comesRound(page);
});

test('pointing at a mend, or reaching it by key, shows in the score what it would make', async ({ page }) => {
  await addTune(page, ODD_REEL('Looked at First'));
  const score = page.locator('[data-score]');
  const changed = page.locator('[data-sign="changed-bows"]').first();
  const mend = page.locator('[data-finding="part-flips"] li button').first();
  await mend.hover();
  await expect(score).toHaveAttribute('data-preview', 'true');
  await expect(changed).toBeAttached();
  await expect(page.locator('[data-verdict-preview]')).toContainText('comes round');
  await page.mouse.move(2, 2);
  await expect(score).not.toHaveAttribute('data-preview');
  await expect(changed).toHaveCount(0);
  await mend.focus();
  await expect(score).toHaveAttribute('data-preview', 'true');
  await page.keyboard.press('Enter');
  await expect(score).not.toHaveAttribute('data-preview');
  await comesRound(page);
});

test('a figure bowed in two ways is found and bowed alike, by keyboard', async ({ page }) => {
  await addTune(page, 'X:1\nT:Twins Apart\nR:reel\nM:4/4\nL:1/8\nK:D\n|:dfaf d2A2|BdgB A2F2|(df)af d2A2|B2g2 d4:|\n');
  await page.locator('[data-note]').first().click();
  await page.keyboard.press('f');
  await expect(tools(page).getByRole('region', { name: 'Repeated figures' })).toBeVisible();
  await expect(page.getByText('bowed more than one way', { exact: true })).toBeVisible();
  await page.getByLabel('bow them all as in').focus();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByText('all bowed alike')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Undo: figure bowed as in A bar/ })).toBeEnabled();
});

test('a part takes up bars of another: an edit in one place is made in both, and one undo takes both back', async ({
  page,
}) => {
  await addTune(page, ODD_REEL('Taken Up'));
  await page.getByRole('button', { name: 'Form: parts and their order' }).click();
  await page.getByRole('button', { name: 'Reuse bars of another part' }).click();
  await page.getByLabel('Last bar to reuse').selectOption('1');
  await page.getByRole('button', { name: 'Reuse', exact: true }).click();
  await expect(page.getByText('bar 5 as A 1')).toBeVisible();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.locator('[data-sign="reuses"]').filter({ hasText: 'as A 1' })).toHaveCount(1);
  const last = page.locator('[data-note]').last();
  await expect(last).toHaveAttribute('aria-label', /: D, A string/);
  await page.locator('[data-note]').nth(7).click();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(last).toHaveAttribute('aria-label', /: E, /);
  await page.keyboard.press('Control+z');
  await expect(last).toHaveAttribute('aria-label', /: D, A string/);
});
