import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type BrowserContext, chromium, type Page } from '@playwright/test';
import { tuneRecordSchema } from '#contract/tunes';
import { seeded } from '../src/core/testing/tunes';
import { longTune } from './enormous';
import { kill, processesWith } from './processes';
import { type RunningServer, startServer } from './running';

declare const TEST_SHARE: number;
const KILLS = TEST_SHARE === 1 ? 50 : 2;
/** A browser is killed up to so long after an edit. */
const MAX_WAIT_MS = 6_000;

let server: RunningServer;
beforeAll(async () => {
  server = await startServer('drafts');
}, 60_000);
afterAll(() => server.stop());

/** A browser on a profile of its own, that can be killed as a whole. */
async function openBrowser(profile: string): Promise<{ context: BrowserContext; kill: () => Promise<void> }> {
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
    viewport: { width: 1280, height: 800 },
  });
  return {
    context,
    kill: async () => {
      const closed = new Promise((resolve) => context.once('close', resolve));
      // Every process of this profile, at once, as when the machine is switched off.
      kill(...processesWith(profile));
      await closed;
    },
  };
}

const label = (page: Page, at: number) => page.locator('[data-note]').nth(at).getAttribute('aria-label');
const isSlurred = async (page: Page, at: number) => /slurred to the one before/.test((await label(page, at)) ?? '');

test('a browser killed after an edit loses it only before the page says that it is kept', async () => {
  const random = seeded(99);
  let [kept, lostUnsaid, lostSaid] = [0, 0, 0];
  const profile = mkdtempSync(path.join(tmpdir(), 'morrin-profile-'));
  try {
    for (let number = 0; number < KILLS; number++) {
      const isAway = number % 2 === 1;
      const made = await fetch(`${server.url}/api/tunes`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ tunes: [{ tune: longTune(8, `Killed ${number}`) }] }),
      });
      const { id } = ((await made.json()) as { tunes: [{ id: string }] }).tunes[0];
      const before = await openBrowser(profile);
      const page = await before.context.newPage();
      await page.goto(`${server.url}/tunes/${id}`);
      await page.locator('[data-note]').nth(3).click({ timeout: 30_000 });
      if (isAway) await page.route('**/api/tunes/*', (route) => route.abort('connectionrefused'));
      await page.keyboard.press('s');
      const wait = random() < 0.4 ? 60 * random() : MAX_WAIT_MS * random();
      await page.waitForTimeout(wait);
      const said = (await page.locator('[data-save]').textContent({ timeout: 5_000 })) ?? '';
      await before.kill();
      const isSaid = /^kept|safe in this browser/.test(said);

      const after = await openBrowser(profile);
      const again = await after.context.newPage();
      await again.goto(`${server.url}/tunes/${id}`);
      await again.locator('[data-note]').first().waitFor({ timeout: 30_000 });
      if (await isSlurred(again, 3)) {
        kept += 1;
        // What was in the browser goes to the server.
        await again.locator('[data-save="kept"]').waitFor({ timeout: 30_000 });
        const record = tuneRecordSchema.parse(await (await fetch(`${server.url}/api/tunes/${id}`)).json());
        expect(JSON.stringify(record.tune.parts)).toContain('"slur"');
      } else if (isSaid) lostSaid += 1;
      else lostUnsaid += 1;
      await after.context.close();
    }
  } finally {
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }
  console.log(
    `${KILLS} browsers killed: ${kept} edits there again, ${lostUnsaid} lost before it was said, ${lostSaid} after`,
  );
  expect(lostSaid).toBe(0);
  expect(kept).toBeGreaterThan(KILLS / 2);
}, 3_600_000);
