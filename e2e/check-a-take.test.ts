import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { reportTune } from '#core/report';
import { mistakeAt, simulate } from '#core/simulatedPlayer';
import { readAbc } from '#formats/abc';
import { writeWav } from '#formats/wav';
import { openTune } from './bench';
import { expect, type Page, test } from './story';

const tools = (page: Page) => page.getByRole('complementary', { name: 'Tools' });

async function openTakes(page: Page): Promise<void> {
  await openTune(page, 'The Heron on the Slipway');
  await page.keyboard.press('Shift+K');
  await expect(tools(page).getByRole('heading', { name: 'Take check' })).toBeVisible();
}

test('the simulated player plays a tune with a mistake; it is told with its place and drill, shown under the score and kept', async ({
  page,
}) => {
  await openTakes(page);
  await page.getByLabel('Listen to', { exact: true }).selectOption('the simulated player');
  await page.getByRole('checkbox', { name: 'sharp' }).check();
  await page.getByLabel('How it plays', { exact: true }).selectOption('steady');
  await page.getByRole('button', { name: 'Let it play' }).click();
  const heard = page.getByRole('region', { name: 'What was heard' });
  await expect(heard.getByText(/to mend/)).toBeVisible({ timeout: 60_000 });
  await expect(heard.locator('[data-take-finding="sharp"]')).toContainText(/sharp by \d+ cents/);
  await expect(heard.getByRole('link', { name: 'Tone match' }).first()).toBeVisible();
  await expect(page.locator('[data-lane="take"]').first()).toBeVisible();
  await expect(page.getByText(/^1 take kept here/)).toBeVisible();
  // Its place is shown in the score, on the pass where it was.
  await heard.locator('[data-take-finding="sharp"]').first().getByRole('button').click();
  // With the tools closed it stands in the margin, beside its line.
  await page.keyboard.press('Escape');
  await expect(page.getByRole('group', { name: 'From the take' }).first()).toContainText('sharp by');
  // It is still there after the page was loaded again, and one undo brings it back when it was deleted.
  await page.reload();
  await expect(page.locator('[data-note]').first()).toBeVisible();
  await page.keyboard.press('Shift+K');
  await page.getByRole('button', { name: /^Delete the take of/ }).click();
  await expect(page.getByText('Deleted.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).last().click();
  await expect(page.getByText(/^1 take kept here/)).toBeVisible();
});

test('two files are listened to, compared, and one is saved as WAV; what is no sound is refused in words', async ({
  page,
}) => {
  const { tune } = readAbc(readFileSync('demo/heron.abc', 'utf8')).tunes[0]!;
  const report = reportTune(tune);
  const take = (mistake: boolean) => {
    const mistakes = mistake ? [mistakeAt('left-out', 20)] : [];
    return Buffer.from(writeWav(simulate(report, { player: 'steady', mistakes, sampleRate: 22050 }).samples, 22050));
  };
  await openTakes(page);
  await page.getByLabel('Listen to', { exact: true }).selectOption('a sound file');
  const file = page.getByLabel(/^Sound file/);
  await file.setInputFiles({ name: 'words.wav', mimeType: 'audio/wav', buffer: Buffer.from('X:1\nT:No sound\nK:D\n') });
  await expect(page.getByText(/expected a sound file that this browser can read/)).toBeVisible();
  await file.setInputFiles({ name: 'one.wav', mimeType: 'audio/wav', buffer: take(true) });
  await expect(page.getByText('1 thing to mend.')).toBeVisible({ timeout: 60_000 });
  await file.setInputFiles({ name: 'two.wav', mimeType: 'audio/wav', buffer: take(false) });
  await expect(page.getByText('Clean.', { exact: true })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Compare the first with the last' }).click();
  const compared = page.getByRole('region', { name: 'Two takes compared' });
  await expect(compared.getByRole('row', { name: /^to mend/ })).toContainText(/1\s*0/);
  const download = page.waitForEvent('download');
  await page
    .getByRole('button', { name: /as WAV$/ })
    .first()
    .click();
  expect((await download).suggestedFilename()).toMatch(/^take-.*\.wav$/);
});

test('the ladder listens to the simulated player, says the one thing that mattered, and logs nothing of it', async ({
  page,
}) => {
  await openTune(page, 'The Heron on the Slipway');
  await page.goto(`${page.url().split('?')[0]}/practice/bite-b1`);
  await page.getByRole('button', { name: 'Listen to me' }).press('Enter');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-ear="playing"]')).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('[data-ear="told"]')).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('[data-ear-said]')).toHaveText(/\.$/);
  // What was heard stands under the bite.
  await expect(page.locator('[data-lane="take"]').first()).toBeVisible();
  await expect(page.getByText('none of it goes into your log')).toBeVisible();
  await expect(page.locator('[data-waiting="0"]')).toBeVisible();
  await page.getByRole('button', { name: 'Stop listening' }).click();
  await expect(page.getByRole('button', { name: 'Listen to me' })).toBeVisible();
  // In silence there is nothing to listen to, and of a simulated loop there is nothing to put right.
  await expect(page.getByRole('group', { name: 'What went wrong' })).toHaveCount(0);
  await page.getByRole('button', { name: 'without sound' }).click();
  await expect(page.getByRole('button', { name: 'Listen to me' })).toHaveCount(0);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('the take sheet fits, and nothing is wrong for those who do not see it', async ({ page }) => {
    await openTakes(page);
    await page.getByLabel('Listen to', { exact: true }).selectOption('the simulated player');
    await expect(page.getByRole('button', { name: 'Let it play' })).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(violations.map(({ id }) => id)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  });
});
