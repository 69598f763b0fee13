import { expect, test } from './story';

const EVENING = new Date('2026-11-25T23:30:00Z');

for (const [zone, day] of [
  ['America/Los_Angeles', '25 November 2026'],
  ['Asia/Tokyo', '26 November 2026'],
] as const)
  test(`what is kept today is shown under the day of the player's own calendar, in ${zone}`, async ({
    browser,
    baseURL,
  }) => {
    const context = await browser.newContext({ baseURL, timezoneId: zone });
    const page = await context.newPage();
    await page.clock.setFixedTime(EVENING);
    await page.goto('/pegs');
    await page.getByRole('button', { name: 'Fiddle and strings' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('measured now').fill('7.5');
    await page.keyboard.press('Enter');
    await expect(sheet.getByText(`${day}: 7.5 mm`)).toBeVisible();
    await expect(sheet.getByLabel(/The E string was fitted on/)).toHaveAttribute('max', /^2026-11-2[56]$/);
    await context.close();
  });
