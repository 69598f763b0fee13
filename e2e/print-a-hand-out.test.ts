import { readFile } from 'node:fs/promises';
import { fromMenu, openTune } from './bench';
import { expect, test } from './story';

test('a tune is laid out on paper and kept as PDF and SVG, staff at least 7 mm high, black on white', async ({
  page,
}) => {
  await page.addInitScript(() => localStorage.setItem('morrin.theme', 'evening'));
  await openTune(page, 'The Heron on the Slipway');
  await fromMenu(page, 'More', 'Hand-out on paper');
  await expect(page.locator('[data-sign="bows"]').first()).toBeAttached();
  await page.getByLabel('calls').check();
  await page.getByLabel('letters').check();
  await expect(page.locator('[data-sign="calls"] text').first()).toHaveText('A3');
  await expect(page.locator('[data-sign="letters"] text').first()).toHaveText('D');

  const staffMm = await page.evaluate(() => {
    const paths = [...document.querySelectorAll('.vf-stave path')].map((path) => path.getBoundingClientRect());
    const tops = paths.map(({ top }) => top).filter((top) => top < paths[0]!.top + 60);
    return ((Math.max(...tops) - Math.min(...tops)) * 25.4) / 96;
  });
  expect(staffMm).toBeGreaterThanOrEqual(7);
  const ink = await page
    .locator('.engraving path')
    .first()
    .evaluate((path) => getComputedStyle(path).stroke);
  expect(ink).toBe('rgb(0, 0, 0)');

  const download = async (button: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ]);
    return { name: file.suggestedFilename(), bytes: await readFile(await file.path()) };
  };
  const pdf = await download('Save as PDF');
  expect(pdf.name).toBe('The Heron on the Slipway.pdf');
  expect(pdf.bytes.subarray(0, 5).toString()).toBe('%PDF-');
  const svg = (await download('Save as SVG')).bytes.toString();
  expect(svg).toContain('font-family:"Bravura"');
  expect(svg).not.toMatch(/href="http|url\(http/);

  await page.getByLabel('paper').selectOption('letter');
  const widthMm = await page
    .locator('.handout-paper')
    .evaluate((paper) => (paper.getBoundingClientRect().width * 25.4) / 96);
  expect(widthMm).toBeCloseTo(215.9, 0);
});

test('a second short tune stands under the first on the same page, with what its signs mean said once', async ({
  page,
}) => {
  await openTune(page, 'Marsh Lamps');
  await fromMenu(page, 'More', 'Hand-out on paper');
  const pages = page.locator('[data-pages]');
  await expect(pages).toHaveText('1 page');
  await page.getByRole('button', { name: 'Add a second tune' }).click();
  await page.keyboard.type('ebb');
  await page.getByRole('option', { name: /The Ebb, a Sketch/ }).click();
  await expect(page.getByRole('heading', { name: 'The Ebb, a Sketch' })).toBeVisible();
  await expect(page.getByText(/^Figures under the staff/)).toHaveCount(1);
  const [request] = await Promise.all([
    page.waitForRequest((asked) => asked.url().endsWith('/api/handout/pdf')),
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PDF' }).click(),
  ]);
  const { pages: drawn } = request.postDataJSON() as { pages: string[] };
  expect(drawn).toHaveLength(Number((await pages.getAttribute('data-pages'))!));
  expect(drawn[0]).toContain('Marsh Lamps');
  expect(drawn.join('')).toContain('The Ebb, a Sketch');
  await page.getByRole('button', { name: 'Remove the second tune' }).click();
  await expect(page.getByRole('heading', { name: 'The Ebb, a Sketch' })).toHaveCount(0);
});
