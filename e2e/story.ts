import { type Page, test as base, expect } from '@playwright/test';
import pg from 'pg';

const servers = JSON.parse(process.env.STORY_SERVERS ?? '[]') as { url: string; databaseUrl: string }[];

/** A story: it runs on its worker's own server, whose book is brought back to the demo before it begins. */
export const test = base.extend<{ demoBook: void }>({
  baseURL: async ({}, use, { parallelIndex }) => use(servers[parallelIndex]?.url),
  demoBook: [
    async ({}, use, { parallelIndex }) => {
      await bringBack(servers[parallelIndex]!.databaseUrl);
      await use();
    },
    { auto: true },
  ],
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
