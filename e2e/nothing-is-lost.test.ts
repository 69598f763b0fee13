import { addTune, kept, ODD_REEL, openTune } from './bench';
import { expect, test } from './story';

test('a tab that dies right after an edit loses nothing', async ({ page, context }) => {
  await addTune(page, ODD_REEL('Crash Proof'));
  await expect(page.locator('[data-note]').first()).toBeVisible();
  const url = page.url();
  // The save never reaches the server before the tab is gone.
  await context.route('**/api/tunes/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await page.close({ runBeforeUnload: false });
  await context.unroute('**/api/tunes/*');

  const again = await context.newPage();
  await again.goto(url);
  await expect(again.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);
  await kept(again);
  await expect
    .poll(() =>
      again.evaluate(
        () =>
          new Promise<number>((resolve) => {
            indexedDB.open('morrin-drafts').onsuccess = ({ target }) => {
              const db = (target as IDBOpenDBRequest).result;
              db.transaction('drafts').objectStore('drafts').count().onsuccess = (counted) => {
                db.close();
                resolve((counted.target as IDBRequest<number>).result);
              };
            };
          }),
      ),
    )
    .toBe(0);
});

test('while the server is away edits go on, the state says so, and they are kept when it is back', async ({
  page,
  context,
}) => {
  await addTune(page, ODD_REEL('Server Away'));
  await expect(page.locator('[data-note]').first()).toBeVisible();
  await context.route('**/api/tunes/*', (route) => route.abort('connectionrefused'));
  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await expect(page.locator('[data-save]')).toContainText('no connection, will retry');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('s');
  await context.unroute('**/api/tunes/*');
  await kept(page);
  await page.reload();
  await expect(page.locator('[data-note]').nth(2)).toHaveAttribute('aria-label', /slurred to the one before/);
});

test('two windows on one tune: a stale save overwrites nothing, and either version can be taken', async ({
  page,
  context,
}) => {
  await addTune(page, ODD_REEL('Two Windows'));
  await expect(page.locator('[data-note]').first()).toBeVisible();
  const other = await context.newPage();
  await openTune(other, 'Two Windows');
  // What is kept in one window is taken up by the other where nothing is in the way.
  await other.locator('[data-note]').nth(2).click();
  await other.keyboard.press('s');
  await kept(other);
  await expect(page.locator('[data-note]').nth(2)).toHaveAttribute('aria-label', /slurred to the one before/);
  await other.keyboard.press('Control+z');
  await kept(other);
  await expect(page.locator('[data-note]').nth(2)).not.toHaveAttribute('aria-label', /slurred to the one before/);
  // One that cannot save for a while does not know of the other.
  await page.route('**/api/tunes/*', (route) => route.abort('connectionrefused'));
  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await expect(page.locator('[data-save]')).toContainText('safe in this browser');
  await other.locator('[data-note]').nth(3).click();
  await other.keyboard.press('s');
  await kept(other);

  await page.unroute('**/api/tunes/*');
  await expect(page.getByRole('dialog', { name: 'Two versions of this tune' })).toBeVisible();
  await page.getByRole('button', { name: 'Use the other version' }).click();
  await expect(page.locator('[data-note]').nth(3)).toHaveAttribute('aria-label', /slurred to the one before/);
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /up-bow/);
  // Mine is one undo away, and now stands on top of the other.
  await page.locator('[data-note]').nth(0).click();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);
  await kept(page);
});

test('a tune that is deleted for good while it is open can be kept as a new one', async ({ page, request }) => {
  await addTune(page, ODD_REEL('Gone Meanwhile'));
  await expect(page.locator('[data-note]').first()).toBeVisible();
  const id = /tunes\/([^/?]+)/.exec(page.url())![1]!;
  await request.post('/api/book/changes', { data: { choice: { ids: [id] }, deed: { kind: 'remove' } } });
  const { asOf } = (await (await request.get('/api/book/facets')).json()) as { asOf: string };
  expect((await request.delete(`/api/book/removed?by=${encodeURIComponent(asOf)}`)).ok()).toBe(true);
  await page.locator('[data-note]').nth(1).click();
  await page.keyboard.press('s');
  await expect(page.getByRole('alert')).toContainText('deleted from the book while you had it open');
  await page.getByRole('button', { name: 'Save it as a new tune' }).click();
  await expect(page).not.toHaveURL(new RegExp(id));
  await kept(page);
  await page.reload();
  await expect(page.locator('[data-note]').nth(1)).toHaveAttribute('aria-label', /slurred to the one before/);
});
