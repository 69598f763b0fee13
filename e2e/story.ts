import { type BrowserContext, expect, type Page, test as base } from '@playwright/test';
import pg from 'pg';

const servers = JSON.parse(process.env.STORY_SERVERS ?? '[]') as { url: string; databaseUrl: string }[];

interface StoryFixtures {
  /** A browser context that is used for nothing else: where a story changes what outlasts its pages, as the clock. */
  readonly ownContext: boolean;
  readonly demoBook: void;
}

/** A story: it runs on its worker's own server, whose book is brought back to the demo before it begins. */
export const test = base.extend<StoryFixtures, { readonly sharedContext: BrowserContext }>({
  ownContext: [false, { option: true }],
  baseURL: async ({}, use, { parallelIndex }) => use(servers[parallelIndex]?.url),
  demoBook: [
    async ({}, use, { parallelIndex }) => {
      await bringBack(servers[parallelIndex]!.databaseUrl);
      await use();
    },
    { auto: true },
  ],
  // Pages of one context share a process, which has compiled the application already: half the work of a new one.
  sharedContext: [
    async ({ browser }, use, { parallelIndex, project }) => {
      const context = await browser.newContext({
        baseURL: servers[parallelIndex]!.url,
        viewport: project.use.viewport ?? null,
      });
      // Who is here for the first time is greeted in a story of its own.
      await context.addInitScript(() => localStorage.setItem('morrin.welcome', 'seen'));
      // It keeps the process alive between stories, and has no script of its own.
      await (await context.newPage()).goto('/icon.svg');
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, baseURL, viewport, bypassCSP, ownContext, sharedContext }, use) => {
    if (ownContext) {
      const context = await browser.newContext({ baseURL, viewport, bypassCSP });
      await use(context);
      return context.close();
    }
    await use(sharedContext);
    const [idle, ...pages] = sharedContext.pages();
    await sharedContext.unrouteAll({ behavior: 'ignoreErrors' });
    for (const page of pages) {
      // What is on its way to the log would reach the book of the next story.
      await page.locator('[data-waiting]:not([data-waiting="0"])').waitFor({ state: 'hidden', timeout: 5_000 });
      await page.close();
    }
    await idle!.evaluate(() => {
      localStorage.clear();
      indexedDB.deleteDatabase('morrin-drafts');
      indexedDB.deleteDatabase('morrin-histories');
      indexedDB.deleteDatabase('morrin-attempts');
    });
    await sharedContext.clearCookies();
  },
});

export { type Page, expect };

/** What the last story still has under way may be in the way of the tables: then once more. */
async function bringBack(databaseUrl: string): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    for (let tries = 1; ; tries++)
      try {
        await client.query('SELECT kept.bring_back()');
        return;
      } catch (error) {
        const isDeadlock = error instanceof pg.DatabaseError && error.code === '40P01';
        if (!isDeadlock || tries === 5) throw error;
      }
  } finally {
    await client.end();
  }
}
