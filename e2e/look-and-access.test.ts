import AxeBuilder from '@axe-core/playwright';
import { fromMenu, openTune, tools } from './bench';
import { expect, type Page, test } from './story';

/** Opens pages in a theme; gives what looks them over, or only a part of them where the rest was looked over already. */
async function scanner(page: Page, theme: 'day' | 'evening') {
  await page.addInitScript((name) => localStorage.setItem('morrin.theme', name), theme);
  return async (where: string, within?: string) => {
    // There are no frames, so that one run in the page itself will do.
    const axe = new AxeBuilder({ page }).setLegacyMode();
    if (within) axe.include(within);
    // A theme changes colours and nothing else.
    if (theme === 'day') axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']);
    else axe.withRules(['color-contrast']);
    const { violations } = await axe.analyze();
    const told = violations.map(
      ({ id, nodes }) =>
        `${where}: ${id}: ${nodes
          .map(({ html }) => html)
          .join(' ')
          .slice(0, 300)}`,
    );
    expect(told).toEqual([]);
  };
}

const DIALOG = '[role=dialog]';

for (const theme of ['day', 'evening'] as const) {
  test(`nothing is found by axe on the bench in the ${theme} theme`, async ({ page }) => {
    test.setTimeout(120_000);
    const scan = await scanner(page, theme);
    await openTune(page, 'The Heron on the Slipway');
    await page.locator('[data-note]').nth(60).click();
    await scan('bench');
    for (const [key, tool] of [
      ['p', 'Bowing patterns'],
      ['w', 'Other bowings'],
      ['c', 'Drones and double stops'],
      ['a', 'Ornaments'],
      ['g', 'The fingering hand'],
      ['i', 'Tunings for this tune'],
      ['f', 'Repeated figures'],
      ['m', 'Bow amount and tone'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(tools(page).getByRole('region', { name: tool }).first()).toBeVisible();
      await expect(tools(page).locator('[aria-busy=true]')).toHaveCount(0, { timeout: 20_000 });
      await scan(tool, '[data-panel]');
      await page.keyboard.press('Escape');
      await expect(tools(page)).toHaveCount(0);
    }
    // The sheets in all their states are looked over in the gallery.
    await fromMenu(page, 'More', 'Find a command by name');
    await expect(page.getByRole('dialog')).toBeVisible();
    await scan('palette', DIALOG);
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.locator('[data-note]').nth(60).press('n');
    await expect(page.getByLabel('Chord name')).toBeFocused();
    await scan('note', DIALOG);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Enter', exact: true }).click();
    await expect(page.locator('[data-entry-field]')).toBeFocused();
    await scan('entry', '[data-entry]');
  });

  test(`nothing is found by axe in the other rooms in the ${theme} theme`, async ({ page }) => {
    test.setTimeout(120_000);
    const scan = await scanner(page, theme);
    await page.goto('/');
    await expect(page.getByRole('table')).toBeVisible();
    await scan('book');
    await page.getByRole('button', { name: 'Bring tunes in' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await scan('import', DIALOG);
    await openTune(page, 'The Heron on the Slipway');
    await page.getByRole('link', { name: 'Settings' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Settings' })).toBeVisible();
    await scan('settings');
    await page.goBack();
    await page.getByRole('link', { name: 'Ground' }).click();
    await expect(page.locator('[data-mode]')).toBeVisible();
    await scan('ground');
    await page.getByRole('link', { name: 'Dance', exact: true }).click();
    await expect(page.locator('[data-gains="new"]')).toBeVisible({ timeout: 20_000 });
    await scan('dance check');
    await page.getByRole('button', { name: 'Sound and loop' }).click();
    await expect(page.getByRole('button', { name: 'Sound files …' })).toBeVisible();
    await scan('listening', DIALOG);
    await page.getByRole('button', { name: 'Sound files …' }).click();
    await expect(page.getByRole('dialog', { name: 'Sound files' })).toBeVisible();
    await scan('sound files', DIALOG);
    await page.keyboard.press('Escape');
    await page.goBack();
    await page.getByRole('link', { name: 'Pegs' }).click();
    await page.getByLabel('into').selectOption('A3 E4 A4 E5');
    await page.getByRole('button', { name: 'simulated fiddle' }).click();
    await expect(page.locator('[data-stands="low"]')).toBeVisible();
    await scan('pegs');
    await page.getByRole('button', { name: 'Fiddle and strings' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await scan('fiddle', DIALOG);
    await page.keyboard.press('Escape');
    await page.goBack();
    await page.goBack();
    await fromMenu(page, 'More', 'Hand-out on paper');
    await expect(page.getByRole('button', { name: 'Save as PDF' })).toBeVisible();
    await scan('hand-out');
  });
}

test('no room is wider than a phone', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openTune(page, 'The Heron on the Slipway');
  const tune = new URL(page.url()).pathname;
  for (const [path, settled] of [
    [tune, '[data-note]'],
    [`${tune}/dance`, '[data-tight]'],
    [`${tune}/ground`, '[data-mode]'],
    [`${tune}/practice`, '[data-bite]'],
    ['/practice', 'main h1'],
    ['/practice/technique/pulse', '[data-skill]'],
    ['/log', '[data-progress]'],
    ['/pegs', 'main'],
    ['/settings', 'main h1'],
    ['/', 'main h1'],
  ] as const) {
    await page.goto(path);
    await expect(page.locator(settled).first()).toBeVisible({ timeout: 20_000 });
    const width = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(width, path).toBeLessThanOrEqual(390);
  }
});

/** Bars that stand in the fullest line of the score, as its notes say of themselves. */
const barsInALine = (page: Page) =>
  page.locator('[data-line]').evaluateAll((lines) =>
    Math.max(
      ...lines.map((line) => {
        const labels = [...line.querySelectorAll('[data-note]')].map((note) => note.getAttribute('aria-label') ?? '');
        return new Set(labels.map((label) => /bar \d+/i.exec(label)?.[0])).size;
      }),
    ),
  );

test('a wide screen is filled with six to eight bars a line, a phone with one or two', async ({ page }) => {
  await openTune(page, 'The Ferry Bell Rings Late');
  await page.setViewportSize({ width: 1920, height: 1080 });
  await expect.poll(() => barsInALine(page)).toBeGreaterThanOrEqual(6);
  expect(await barsInALine(page)).toBeLessThanOrEqual(9);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(() => barsInALine(page)).toBeLessThanOrEqual(2);
});

test.describe('under a finger', () => {
  test.use({ ownContext: true, viewport: { width: 390, height: 844 }, hasTouch: true });
  test('what is pressed is 44 px at least, and the foot leaves the music its room', async ({ page }) => {
    await page.addInitScript(() => localStorage.setItem('morrin.welcome', 'seen'));
    await openTune(page, 'The Ferry Bell Rings Late');
    expect((await page.locator('footer').boundingBox())!.height).toBeLessThanOrEqual(110);
    const small = await page.locator('nav a, nav button, footer button, header button').evaluateAll((boxes) =>
      boxes
        .filter((box) => box.checkVisibility() && !box.closest('.sr-only') && !box.matches('[data-term]'))
        .map((box) => [box.getAttribute('aria-label') ?? box.textContent, box.getBoundingClientRect()] as const)
        .filter(([, { width, height }]) => width < 44 || height < 44)
        .map(([name, { width, height }]) => `${name}: ${width} x ${height}`),
    );
    expect(small).toEqual([]);
    await page.getByRole('link', { name: 'Settings' }).click();
    await page.getByRole('button', { name: 'To the evening theme' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'evening');
  });
});

test('every room says in the title which it is', async ({ page }) => {
  await openTune(page, 'Pewter Sky');
  const tune = new URL(page.url()).pathname;
  const titles = new Set<string>();
  const rooms = ['', '/dance', '/ground', '/practice', '/handout', '/settings'].map((room) => `${tune}${room}`);
  const others = ['/', '/sets', '/practice', '/practice/technique/pulse', '/log', '/pegs', '/settings'];
  for (const path of [...rooms, ...others]) {
    await page.goto(path);
    await expect(page, path).toHaveTitle(/\S.* · Morrin$/);
    if (rooms.includes(path)) await expect(page, path).toHaveTitle(/Pewter Sky/);
    titles.add(await page.title());
  }
  expect(titles.size).toBe(rooms.length + others.length);
});

test('no request leaves the origin, and nothing is complained of in the console', async ({ page, baseURL }) => {
  const foreign: string[] = [];
  const complaints: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(baseURL!) && !request.url().startsWith('data:') && !request.url().startsWith('blob:'))
      foreign.push(request.url());
  });
  page.on('console', (message) => {
    if (message.type() === 'error') complaints.push(message.text());
  });
  page.on('pageerror', (error) => complaints.push(error.message));
  await openTune(page, 'The Ferry Bell Rings Late');
  await page.locator('[data-note]').nth(5).click();
  await page.keyboard.press('p');
  await expect(tools(page)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-note]').nth(5)).toBeFocused();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  expect(foreign).toEqual([]);
  expect(complaints).toEqual([]);
});

for (const width of [390, 768, 1280, 1920])
  test(`noteheads and lanes agree within half a pixel at ${width} px, also after an edit`, async ({ page }) => {
    await page.setViewportSize({ width, height: 900 });
    await openTune(page, 'The Ferry Bell Rings Late');
    const farthest = () =>
      page.evaluate(() => {
        let worst = 0;
        let compared = 0;
        for (const line of document.querySelectorAll('[data-line]')) {
          const left = line.getBoundingClientRect().left;
          // Noteheads as the engraver drew them; signs and lanes as their paths say.
          const heads = [...line.querySelectorAll('.vf-stavenote')].flatMap((note) => {
            const id = note.id.replace(/^vf-/, '');
            const head = note.querySelector('.vf-notehead text, .vf-notehead path');
            const target = line.querySelector(`[data-note="${id}"]`);
            if (!head || !target) return [];
            const box = (head as SVGGraphicsElement).getBoundingClientRect();
            return [{ id, middle: box.left + box.width / 2 - left, x: Number(target.getAttribute('data-x')) }];
          });
          const marks = ['down', 'up'].flatMap((name) => {
            const d = line.querySelector(`[data-heads="${name}"]`)?.getAttribute('d') ?? '';
            return [...d.matchAll(/M([\d.-]+),[\d.-]+A([\d.]+),/g)].map(([, x, radius]) => Number(x) - Number(radius));
          });
          for (const { middle, x } of heads) {
            worst = Math.max(worst, Math.abs(middle - x));
            compared += 1;
          }
          for (const mark of marks)
            worst = Math.max(worst, Math.min(...heads.map(({ middle }) => Math.abs(middle - mark))));
        }
        return { worst, compared };
      });
    const before = await farthest();
    expect(before.compared).toBeGreaterThan(100);
    expect(before.worst).toBeLessThan(0.5);
    await page.locator('[data-note]').nth(2).click();
    await page.keyboard.press('s');
    expect((await farthest()).worst).toBeLessThan(0.5);
  });

test('a page that is not there leads back to the book', async ({ page }) => {
  await page.goto('/nowhere/at/all');
  await page.getByRole('main').getByRole('link', { name: 'Back to the book' }).click();
  await expect(page.getByRole('heading', { name: 'Book' })).toBeVisible();
  await page.goto('/tunes/7c5e2f5e-0000-4000-8000-000000000000');
  await expect(page.getByRole('alert')).toContainText('This tune is not in the book.');
});
