import { cases } from '../src/core/testing/share';
import { expect, test } from './story';

const sheet = 'Bring tunes in';

test('a dropped file is read, its bars and messages are listed, and what could be read is kept', async ({ page }) => {
  await page.goto('/');
  const abc =
    'X:1\nT:Half <i>Read</i>\nM:4/4\nL:1/8\nK:D\nd8|(d2 e2 f2|g8|\n\nX:2\nT:No key\nM:4/4\n\nX:3\nT:Whole\nM:4/4\nL:1/8\nK:G\nG8|\n';
  const transfer = await page.evaluateHandle((text) => {
    const data = new DataTransfer();
    data.items.add(new File([text], 'three.abc', { type: 'text/vnd.abc' }));
    return data;
  }, abc);
  await page.locator('main').dispatchEvent('drop', { dataTransfer: transfer });
  const dialog = page.getByRole('dialog', { name: sheet });
  await expect(dialog.getByText('2 tunes read.')).toBeVisible();
  await expect(dialog.getByText('3 bars, 5 notes')).toBeVisible();
  await expect(dialog).toContainText('line 6, col. 4');
  await expect(dialog).toContainText('A slur is opened here and never closed');
  await expect(dialog).toContainText('This bar is too short: it holds 6 eighths, 8 eighths are expected.');
  await expect(dialog).toContainText('No K: line');
  await dialog.getByRole('button', { name: 'Add 2 tunes' }).click();
  await expect(page.getByRole('link', { name: 'Half <i>Read</i>' })).toBeVisible();
});

test('text pasted anywhere on the book is read', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Book' })).toBeVisible();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'X:1\nT:Pasted\nM:4/4\nL:1/8\nK:D\nd8|\n');
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(page.getByRole('dialog', { name: sheet })).toContainText('Pasted');
});

for (const [name, buffer, words] of [
  ['empty.abc', Buffer.alloc(0), 'The file is empty'],
  ['picture.abc', Buffer.from([137, 80, 78, 71, 13, 10, 26, 10, 0, 0, 0]), 'no file of tunes'],
  ['prose.abc', Buffer.from('Nothing but words about a tune.'), 'No K: line'],
  ['large.abc', Buffer.alloc(11 * 1024 * 1024, 'A'), 'too large: 11.0 MB'],
] as const)
  test(`${name} is refused in clear words and loses nothing`, async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: sheet }).click();
    await page.getByLabel('Text').fill('X:1\nT:Half typed');
    await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/plain', buffer });
    const dialog = page.getByRole('dialog', { name: sheet });
    await expect(dialog).toContainText(words);
    const back = dialog.getByRole('button', { name: 'Back to the text' });
    if (await back.isVisible()) await back.click();
    await expect(page.getByLabel('Text')).toHaveValue('X:1\nT:Half typed');
  });

test('a tune of thousands of bars is read, kept and opened', async ({ page }) => {
  test.setTimeout(120_000);
  const count = cases(10_000);
  const bars = Array.from({ length: count }, (_, i) => `dAFA defd|${i % 4 === 3 ? '\n' : ''}`).join('');
  await page.goto('/');
  await page.getByRole('button', { name: sheet }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'long.abc',
    mimeType: 'text/plain',
    buffer: Buffer.from(`X:1\nT:Ten Thousand Bars\nR:reel\nM:4/4\nL:1/8\nK:D\n${bars}`),
  });
  await expect(page.getByText(`${count} bars, ${8 * count} notes`)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Add 1 tune' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ten Thousand Bars' })).toBeVisible({ timeout: 60_000 });
});
