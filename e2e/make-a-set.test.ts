import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from './story';

const rows = (page: Page) => page.getByRole('list', { name: 'Tunes of the set' }).getByRole('listitem');
const verdict = (page: Page) => page.locator('[data-verdict]');
const known = (page: Page) => expect(page.locator('[data-set=known]')).toBeVisible();

async function openSet(page: Page, name: string): Promise<void> {
  await page.goto('/sets');
  await page.getByRole('link', { name: new RegExp(`^${name}`) }).click();
  await known(page);
}

test('tunes chosen in the book make a set; in another order it says what changes between them, and undo brings it back', async ({
  page,
}) => {
  await page.goto('/');
  for (const title of ['Lanterns at the Boathouse', 'Slow Ferry Home'])
    await page
      .getByRole('row', { name: new RegExp(title) })
      .getByRole('checkbox')
      .check();
  await page.getByRole('button', { name: 'Make a set' }).click();
  await known(page);
  await expect(rows(page)).toHaveCount(2);
  await expect(verdict(page)).toHaveText(/You have to retune before tune 2/);
  await expect(rows(page).nth(1)).toContainText('Retune the A string from A to G and the E string from E to D.');
  await page.getByRole('button', { name: 'Move “Slow Ferry Home” up' }).click();
  await expect(rows(page).first()).toContainText('Slow Ferry Home');
  await expect(rows(page).nth(1)).toContainText('Retune the A string from G to A and the E string from D to E.');
  await page.getByRole('button', { name: /^Undo: move/ }).click();
  await expect(rows(page).first()).toContainText('Lanterns at the Boathouse');
  await page.reload();
  await known(page);
  await expect(rows(page).first()).toContainText('Lanterns at the Boathouse');
});

test('a tune is dragged to another place', async ({ page }) => {
  await openSet(page, 'Reels at the boathouse');
  const handle = page.getByRole('button', { name: /^Move “Pewter Sky”: space/ });
  const [from, to] = [await handle.boundingBox(), await rows(page).first().boundingBox()];
  await page.mouse.move(from!.x + 10, from!.y + 10);
  await page.mouse.down();
  await page.mouse.move(from!.x + 10, from!.y - 40, { steps: 5 });
  await page.mouse.move(from!.x + 10, to!.y + 5, { steps: 10 });
  await page.mouse.up();
  await expect(rows(page).first()).toContainText('Pewter Sky');
});

test('a set is played through, tune by tune', async ({ page }) => {
  await openSet(page, 'Reels at the boathouse');
  await page.getByRole('button', { name: 'Play from “The Ebb, a Sketch”' }).click();
  await expect(rows(page).nth(1).getByText('playing, 1 of 2')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/^playing/)).toHaveCount(0);
});

test('a set is saved as one file and printed as one book, both in its order', async ({ page }) => {
  await openSet(page, 'Reels at the boathouse');
  const order = ['The Heron on the Slipway', 'The Ebb, a Sketch', 'Pewter Sky'];
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('Reels at the boathouse.abc');
  const text = readFileSync(await saved.path(), 'utf8');
  expect([...text.matchAll(/^T:(.*)$/gm)].map(([, title]) => title)).toEqual(order);
  await page.getByRole('link', { name: 'Print it' }).click();
  await expect(page.getByLabel('Name of the book')).toHaveValue('Reels at the boathouse');
  const [book] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Make the book' }).click(),
  ]);
  expect(book.suggestedFilename()).toBe('Reels at the boathouse.pdf');
  await expect(page.getByText(/The book is made: 3 tunes on \d+ pages\./)).toBeVisible();
});

test('by keys alone a set is begun, named, filled and deleted, and undo brings it back', async ({ page }) => {
  await page.goto('/sets');
  await page.getByRole('button', { name: 'New set' }).press('Enter');
  const name = page.getByRole('textbox', { name: 'Name of the set' });
  await name.focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Waltzes');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add a tune' }).press('Enter');
  await page.keyboard.type('slow ferry');
  await expect(page.getByRole('option', { name: /Slow Ferry Home/ })).toBeVisible();
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await known(page);
  await expect(verdict(page)).toHaveText('One tune by itself.');
  await page.getByRole('button', { name: 'Delete the set “Waltzes”' }).press('Enter');
  await expect(page.getByRole('link', { name: /^Waltzes/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^Waltzes/ })).toBeVisible();
});

test('a tune that is gone from the book leaves its place, which can be removed', async ({ page }) => {
  const { sets, revision } = (await (await page.request.get('/api/sets')).json()) as {
    revision: number;
    sets: { sets: { tunes: object[] }[] };
  };
  const gone = { tuneId: '00000000-0000-4000-8000-000000000000', times: 1 };
  const [first, ...rest] = sets.sets;
  await page.request.put('/api/sets', {
    data: { baseRevision: revision, sets: { sets: [{ ...first, tunes: [gone, ...first!.tunes] }, ...rest] } },
  });
  await page.goto('/sets');
  await page.getByRole('link', { name: /^Reels at the boathouse/ }).click();
  await expect(page.getByText('This tune is not in the book.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove “A tune that is missing” from the set' }).click();
  await known(page);
});

test.describe('on a phone', () => {
  test.use({ ownContext: true, viewport: { width: 390, height: 844 } });
  test('a set fits, and nothing is wrong for those who do not see it', async ({ page }) => {
    await openSet(page, 'Last waltz and home');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(violations.map(({ id, nodes }) => [id, nodes[0]!.html])).toEqual([]);
    await page.getByRole('link', { name: 'all sets' }).click();
    await expect(page.getByRole('link', { name: /^Reels at the boathouse/ })).toBeVisible();
  });
});
