import AxeBuilder from '@axe-core/playwright';
import { openTune } from './bench';
import { expect, type Page, test } from './story';

const HERON = 'The Heron on the Slipway';

interface Listed {
  readonly tunes: readonly {
    readonly id: string;
    readonly title: string;
    readonly ceilingBpm: number;
    readonly own: { readonly median: number } | null;
  }[];
}
async function listed(page: Page, title: string) {
  const answer = await page.request.get(`/api/book/tunes?words=${encodeURIComponent(title)}`);
  return ((await answer.json()) as Listed).tunes.find((tune) => tune.title === title)!;
}
const row = (page: Page, title: string) => page.getByRole('row', { name: title, exact: true });

test('weeks of log tell another ceiling than the guess; the limit is taken, the book changes, and undo takes it back', async ({
  page,
}) => {
  const before = await listed(page, HERON);
  expect(Math.abs(before.own!.median - before.ceilingBpm)).toBeGreaterThan(5);
  await page.goto('/');
  await expect(row(page, HERON)).toContainText(`you ${Math.floor(before.own!.median)}`);
  await openTune(page, HERON);
  await expect(page.locator('[data-own]')).toContainText(`for you up to ${Math.floor(before.own!.median)}`);
  await page.getByText('why', { exact: true }).first().click();
  await expect(
    page.getByText(/^From \d+ attempts since .*: your crossings are \d+ % slower than the limit/),
  ).toBeVisible();

  await page.goto('/settings');
  await page.getByRole('button', { name: /^Take \d+ ms for crossings$/ }).click();
  await expect(page.locator('[data-outcome]')).toContainText(HERON);
  await expect(page.getByText(/^learnt from \d+ attempts/).first()).toBeVisible();
  await expect.poll(async () => (await listed(page, HERON)).ceilingBpm).toBeLessThan(before.ceilingBpm - 5);
  await page.getByRole('link', { name: 'Book', exact: true }).click();
  const now = await listed(page, HERON);
  await expect(row(page, HERON)).toContainText(String(Math.floor(now.ceilingBpm)));
  // It is counted anew by the limit that was taken, and comes to much the same.
  await expect
    .poll(async () => Math.abs((await listed(page, HERON)).own!.median / before.own!.median - 1), { timeout: 20_000 })
    .toBeLessThan(0.12);

  await page.getByRole('link', { name: 'Settings', exact: true }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('[data-outcome]')).toContainText('Undone');
  await expect.poll(async () => (await listed(page, HERON)).ceilingBpm).toBe(before.ceilingBpm);
});

test('a forecast is told with enough days, and with few it is said how many there are', async ({ page }) => {
  await page.goto('/log');
  await page.getByLabel('Tune', { exact: true }).selectOption({ label: HERON });
  await expect(page.locator('[data-progress]')).toBeVisible();
  const stretch = page.getByRole('combobox', { name: /^stretch/ });
  await stretch.selectOption({ label: 'the whole tune' });
  await expect(page.locator('[data-forecast]')).toContainText(/109 (in about|is not on this path|comes out clean)/);
  // Today, once: of a stretch that was never played before.
  const { id } = await listed(page, 'Pewter Sky');
  await page.goto(`/tunes/${id}/practice`);
  await page.getByText('What you played').click();
  await page.getByRole('button', { name: 'Add one by hand' }).click();
  await page.getByRole('button', { name: 'Put it in the log' }).click();
  await expect(page.locator('[data-attempts="1"]')).toBeVisible();
  await page.goto(`/log?tune=${id}`);
  await expect(page.locator('[data-forecast]')).toContainText(
    'it takes 4 days on which something came out clean, and there is 1',
  );
});

test('a tune two skills away says what is new in it, with its drills and the tune that leads there', async ({
  page,
}) => {
  await page.goto('/');
  const far = row(page, 'Over the Stile to the Strand');
  await expect(far).toContainText('2 skills');
  await far.getByRole('link', { name: /2 skills/ }).click();
  const ready = page.locator('[data-ready="2"]');
  await expect(ready).toBeInViewport();
  await expect(ready.getByRole('row')).toHaveCount(3);
  const stones = page.locator('[data-stones="1"]');
  await expect(stones).toContainText('adds roll');
  await stones.getByRole('link').first().click();
  await expect(page.locator('[data-ready="1"]')).toBeAttached();
  // The book is filtered by it.
  await page.goto('/?ready=one');
  await expect(row(page, 'Crossing the Wet Sands')).toBeVisible();
  await expect(row(page, 'Over the Stile to the Strand')).toHaveCount(0);
});

test('an entry of the log is found, put right, noted on and undone by keys alone', async ({ page }) => {
  await page.goto('/log');
  await expect(page.locator('[data-progress]')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('marsh');
  await expect(page.locator('[data-day]').first()).toContainText('Marsh Lamps');
  await expect(page.locator('[data-day]').first()).not.toContainText('Lanterns');
  await page.locator('[data-day] button').first().focus();
  await page.keyboard.press('Enter');
  const first = page
    .getByRole('row')
    .filter({ has: page.getByRole('button', { name: /^Remove / }) })
    .first();
  const clean = first.getByRole('button', { name: /change to/ });
  await expect(clean).toBeVisible();
  const was = await clean.textContent();
  await clean.focus();
  await page.keyboard.press('Enter');
  await expect(clean).not.toHaveText(was!);
  await expect(page.getByRole('button', { name: 'Undo: correct an attempt' })).toBeVisible();
  await page.locator('main').press('Control+z');
  await expect(clean).toHaveText(was!);
  await first.getByRole('button', { name: /^(Add|Change) (a|the) note/ }).press('Enter');
  await page.keyboard.type('better in the second half');
  await page.keyboard.press('Enter');
  await expect(first).toContainText('better in the second half');
  await expect
    .poll(async () => {
      const answer = await page.request.get('/api/log/attempts?words=second+half');
      return ((await answer.json()) as { attempts: unknown[] }).attempts.length;
    })
    .toBe(1);
});

test('what is due by the hours that were logged is told at the pegs and before a session, and done with one press', async ({
  page,
}) => {
  await page.goto('/practice');
  await expect(page.locator('[data-due]')).toContainText('The A string has');
  await page.getByRole('link', { name: 'to the pegs' }).click();
  await expect(page.getByRole('list', { name: 'Reminders' })).toContainText('The A string has');
  await page.getByRole('button', { name: 'Fiddle and strings' }).click();
  await page.getByRole('row', { name: /^A / }).getByRole('button', { name: 'new today' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('The A string has')).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('list', { name: 'Reminders' })).toContainText('The A string has');
});

test('on a phone the log reads from top to bottom, and axe finds nothing', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/log');
  await expect(page.locator('[data-progress]')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.locator('[data-day] button').first().click();
  await expect(page.getByRole('button', { name: /^Remove / }).first()).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html.slice(0, 200)}`)).toEqual([]);
});
