import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { createServer, type ViteDevServer } from 'vite';

const ROOT = join(import.meta.dirname, '..');
/** With GALLERY_PICTURES=1 each scene is kept as a picture, to be looked at. */
const PICTURES = process.env.GALLERY_PICTURES ? join(ROOT, '.data', 'gallery') : null;

let server: ViteDevServer;
test.beforeAll(async () => {
  server = await createServer({
    root: ROOT,
    logLevel: 'error',
    cacheDir: join(ROOT, 'node_modules', '.cache', 'gallery'),
    // All packages are bundled before the first page asks for one.
    optimizeDeps: { entries: ['src/web/main.tsx', 'src/web/gallery/GalleryPage.tsx'] },
    server: { host: '127.0.0.1', port: 0, hmr: false },
  });
  await server.listen();
});
test.afterAll(() => server.close());

/** Every sheet of the pages. */
const SHEETS = readdirSync(join(ROOT, 'src/web'), { recursive: true, encoding: 'utf8' }).flatMap((path) =>
  path.startsWith('ui') ? [] : (/(\w+Sheet)\.tsx$/.exec(path)?.[1] ?? []),
);

test('every sheet has scenes, and axe finds nothing in any of them in either theme', async ({ page }) => {
  test.setTimeout(300_000);
  await page.route(
    ({ pathname }) => pathname.startsWith('/api/'),
    (route) => route.fulfill({ status: 503, json: { code: 'unreachable' } }),
  );
  await page.goto(`${server.resolvedUrls!.local[0]}gallery`);
  await expect(page.getByRole('heading', { name: 'Gallery' })).toBeVisible({ timeout: 120_000 });
  const scenes = await page.getByRole('main').getByRole('link').allTextContents();
  expect(SHEETS.filter((sheet) => !scenes.some((name) => name.startsWith(`${sheet}: `)))).toEqual([]);
  const found: string[] = [];
  for (const scene of scenes) {
    await page.evaluate((name) => {
      history.pushState(null, '', `?scene=${encodeURIComponent(name)}`);
      dispatchEvent(new PopStateEvent('popstate'));
    }, scene);
    await expect(page.locator('[data-scene]')).toHaveAttribute('data-scene', scene);
    await expect(page.getByRole('dialog')).toHaveCount(1);
    for (const theme of ['day', 'evening'] as const) {
      await page.evaluate((name) => void (document.documentElement.dataset.theme = name), theme);
      await page.evaluate(() => Promise.all(document.getAnimations().map(({ finished }) => finished)));
      const axe = new AxeBuilder({ page }).setLegacyMode().include('[role=dialog]');
      // A theme changes colours and nothing else.
      if (theme === 'evening') axe.withRules(['color-contrast']);
      const { violations } = await axe.analyze();
      for (const { id, impact, nodes } of violations)
        found.push(
          `${scene}, ${theme}: ${id} (${impact}): ${nodes
            .map(({ html }) => html)
            .join(' ')
            .slice(0, 200)}`,
        );
      if (PICTURES) await page.screenshot({ path: join(PICTURES, theme, `${scene.replace(/[^\w]+/g, '-')}.png`) });
    }
  }
  expect(found).toEqual([]);
});
