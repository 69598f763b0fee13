import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { fromMenu, openTune } from './bench';
import { expect, type Page, test } from './story';

const bpm = async (page: Page) => Number(await page.locator('[data-bpm]').getAttribute('data-bpm'));
const run = (page: Page) => page.locator('[data-run]');
const said = (page: Page) => page.locator('[data-said]');
const score = (page: Page) => expect(page.locator('[data-plain-score]').first()).toBeVisible();
/** The running screen itself: the page before it shows a score, too. */
const begun = (page: Page) => expect(run(page).locator('[data-plain-score]')).toBeVisible();

interface Listed {
  readonly attempts: {
    readonly clean: boolean;
    readonly wrong: string | null;
    readonly bpm: number;
    readonly what: string;
    readonly layer: string;
    readonly way: string;
    readonly pain: { readonly finger: number | null } | null;
  }[];
}
async function logged(page: Page, id: string): Promise<Listed['attempts']> {
  const answer = await page.request.get(`/api/log/attempts?tune=${id}&limit=500`);
  return ((await answer.json()) as Listed).attempts;
}
const idOf = (page: Page) => page.url().split('/tunes/')[1]!.split('/')[0]!;

async function practise(page: Page, title: string): Promise<void> {
  await openTune(page, title);
  await fromMenu(page, 'More', 'Practise it');
  await score(page);
}

test('from a tune to a running ladder in three actions', async ({ page }) => {
  await openTune(page, 'Pewter Sky');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Practise it' }).click();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  const start = await bpm(page);
  expect(start).toBeLessThan(109);
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: /^Clean/ }).click();
  await expect.poll(() => bpm(page)).toBeCloseTo(start * 1.04, 0);
});

test('ten attempts by keys alone with the server away in between are all in the log after', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  const id = idOf(page);
  await page.getByRole('button', { name: 'Start', exact: true }).press('Enter');
  await begun(page);
  for (const key of ['ArrowRight', 'ArrowLeft', '2']) await page.keyboard.press(key);
  await expect(page.locator('[data-waiting="0"]')).toBeVisible();
  await page.route('**/api/log/attempts', (route) => route.abort());
  for (const key of ['PageDown', 'PageUp', 'c', 'n', 'ArrowRight']) await page.keyboard.press(key);
  await expect(page.getByText(/5 times kept here until the server answers/)).toBeVisible();
  // The page is left and opened again: what waits is in the browser.
  await page.reload();
  await begun(page);
  for (const key of ['ArrowRight', 'ArrowRight', 'ArrowLeft']) await page.keyboard.press(key);
  await page.unroute('**/api/log/attempts');
  await expect.poll(async () => (await logged(page, id)).length, { timeout: 15_000 }).toBe(10);
  const attempts = await logged(page, id);
  expect(attempts.filter(({ clean }) => clean)).toHaveLength(6);
  expect(attempts.filter(({ wrong }) => wrong === 'crossing')).toHaveLength(1);
});

test('a repetition is taken back, and the log shows it no more', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  const id = idOf(page);
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await page.keyboard.press('ArrowRight');
  await expect(said(page)).toContainText('Clean 1 of 3');
  await page.keyboard.press('Backspace');
  await expect.poll(async () => (await logged(page, id)).length).toBe(0);
});

test('what was logged wrong is put right, removed and brought back, and an attempt is added by hand', async ({
  page,
}) => {
  await practise(page, 'The Heron on the Slipway');
  const id = idOf(page);
  const before = (await logged(page, id)).length;
  await page.getByText('What you played').click();
  const rows = page.getByRole('region', { name: 'What you played' }).locator('tbody tr');
  const isClean = async () => (await logged(page, id))[0]!.clean;
  const first = await isClean();
  const toggle = rows.first().getByRole('button', { name: /change to/ });
  await toggle.click();
  await expect.poll(isClean).toBe(!first);
  await page.getByRole('button', { name: 'Undo: correct an attempt' }).click();
  await expect.poll(isClean).toBe(first);
  await rows
    .first()
    .getByRole('button', { name: /^Remove/ })
    .click();
  await expect.poll(async () => (await logged(page, id)).length).toBe(before - 1);
  await page.getByRole('button', { name: 'Undo: remove an attempt' }).click();
  await expect.poll(async () => (await logged(page, id)).length).toBe(before);

  // It holds here at once while the server is away, and is not lost on the way.
  await page.route('**/api/log/attempts', (route) => route.abort());
  for (const clean of [!first, first, !first]) {
    await toggle.click();
    await expect(toggle).toHaveText(clean ? 'clean' : 'not yet');
  }
  await expect(page.getByText('3 entries on the way to the log')).toBeVisible();
  await page.unroute('**/api/log/attempts');
  await expect.poll(isClean, { timeout: 15_000 }).toBe(!first);
  expect(await logged(page, id)).toHaveLength(before);

  await page.getByRole('button', { name: 'Add one by hand' }).click();
  await page.getByLabel('Tempo, half notes a minute').fill('fast');
  await page.getByRole('button', { name: 'Put it in the log' }).click();
  await expect(page.getByRole('alert')).toContainText('expected a number');
  await page.getByLabel('Tempo, half notes a minute').fill('92');
  await page.getByRole('textbox', { name: 'Note', exact: true }).fill('at the session');
  await page.getByRole('button', { name: 'Put it in the log' }).click();
  await expect.poll(async () => (await logged(page, id)).length).toBe(before + 1);
  await expect(rows.first()).toContainText(/the whole tune.*at the session/);
});

test('what fails at the first tempo is taken apart, shrinks, and grows again', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(run(page)).toHaveAttribute('data-run', 'cell');
  await expect(said(page)).toContainText('2 beats of rest');
  const clean = async () => {
    for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  };
  for (const words of [
    '1 beat of rest',
    'Half a beat of rest',
    'A quarter of a beat of rest',
    'No rest',
    'Growing again',
  ]) {
    await clean();
    await expect(said(page)).toContainText(words);
  }
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(said(page)).toContainText('No rest');
  await page.getByRole('button', { name: 'Back to the whole' }).click();
  await expect(run(page)).toHaveAttribute('data-run', 'bite');
});

test('pain ends the block, keeps the finger out, and the tune is fingered around it', async ({ page }) => {
  await practise(page, 'The Heron on the Slipway');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await page.keyboard.press('h');
  await page.getByLabel('where').selectOption('3');
  await page.getByRole('button', { name: 'Stop here' }).click();
  await expect(said(page)).toContainText('The block is over');
  await expect(page.getByRole('button', { name: /^Clean/ })).toBeDisabled();
  await page.getByRole('button', { name: 'It is better: go on' }).click();
  await expect(page.getByRole('button', { name: /^Clean/ })).toBeEnabled();
  // No third finger any more, wherever another reaches the note.
  await expect(page.locator('[data-sign="fingers"] text', { hasText: /^3$/ })).toHaveCount(0);
  // The ladder stays while the finger is kept out, and nothing is measured.
  const held = await bpm(page);
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight');
  await expect(said(page)).toContainText('The tempo stays while a finger hurts.');
  expect(await bpm(page)).toBe(held);
  expect((await logged(page, idOf(page))).some(({ pain }) => pain?.finger === 3)).toBe(true);
  await page.goto('/settings');
  await page
    .getByRole('button', { name: /^Measure: / })
    .first()
    .click();
  await expect(page.getByRole('dialog')).toContainText('Measuring waits while something hurts');
});

test('what hurt rests: it is in no session until the player takes it up again', async ({ page }) => {
  await page.goto('/practice');
  const session = page.getByRole('list', { name: 'Today’s session' });
  const start = session.getByRole('link', { name: /^Start.*Heron.*bars 1–2 of B/ });
  await start.click();
  await begun(page);
  await page.keyboard.press('h');
  await page.getByRole('button', { name: 'Stop here' }).click();
  await expect(said(page)).toContainText('The block is over');
  await page.goto('/practice');
  await expect(session.getByRole('listitem').first()).toContainText('Warm-up');
  await expect(start).toHaveCount(0);
  await practise(page, 'The Heron on the Slipway');
  await expect(page.getByText(/it hurt on .*: resting/)).toBeVisible();
  // Nor is it offered as what comes next.
  await expect(page.locator('[data-next]')).not.toContainText('bars 1–2 of B');
  await page.getByRole('button', { name: 'Practise bars 1–2 of B' }).click();
  await begun(page);
  await expect(page.getByRole('button', { name: /^Clean/ })).toBeDisabled();
  await page.getByRole('button', { name: 'It is better: go on' }).click();
  await expect(page.getByRole('button', { name: /^Clean/ })).toBeEnabled();
  await page.getByRole('link', { name: 'The Heron on the Slipway' }).click();
  await expect(page.getByText(/it hurt on/)).toHaveCount(0);
});

test('the first joint that fails the body check is what is watched in the next run', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await expect(page.getByText('Let the wrist bend.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Enough' }).click();
  await page.getByRole('group', { name: 'Body check' }).getByRole('button', { name: /wrist/ }).click();
  await expect(page.getByText('Next: Let the wrist bend.')).toBeVisible();
  await page.getByRole('link', { name: 'Back to the bites' }).click();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await expect(page.getByText('Let the wrist bend.')).toBeVisible();
});

test('a cut is moved by keys, a bite is named, and undo brings both back', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  const handles = page.getByRole('button', { name: /^Cut before/ });
  await expect(handles.first()).toBeVisible();
  const before = await handles.first().getAttribute('aria-label');
  await handles.first().press('ArrowRight');
  await expect(handles.first()).not.toHaveAttribute('aria-label', before!);
  await page.getByRole('button', { name: 'Undo: move a cut' }).click();
  await expect(handles.first()).toHaveAttribute('aria-label', before!);
  await page
    .getByRole('button', { name: /^Bite / })
    .nth(1)
    .click();
  await page.getByLabel('name it').fill('the climb');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Bite the climb' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Bite the climb' })).toBeVisible();
});

test('any stretch can be named on the bench, is met again elsewhere, practised and printed by its name', async ({
  page,
}) => {
  await openTune(page, 'The Heron on the Slipway');
  const note = page.locator('[data-note]');
  await note.nth(3).click();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight');
  await fromMenu(page, 'More', 'Landmarks');
  await page.getByLabel('Name of the landmark').fill('the climb');
  await page.keyboard.press('Enter');
  const landmark = page.locator('[data-landmark="the climb"]');
  await expect(landmark.getByRole('button', { name: /select it/ })).toHaveCount(2);
  // The same notes in bar 5 have the name, too.
  await landmark.getByRole('button', { name: /bars 5–6 of A/ }).click();
  await expect(page.getByLabel('Selected notes')).toBeVisible();
  await landmark.getByRole('link', { name: 'practise the climb' }).click();
  await begun(page);
  await expect(page.getByRole('heading', { name: 'The climb' })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.goto(page.url().replace(/practice.*/, 'practice'));
  await page.getByText('What you played').click();
  await expect(page.getByRole('region', { name: 'What you played' }).locator('tbody tr').first()).toContainText(
    'the climb',
  );
  await page.goto(page.url().replace('practice', 'handout'));
  await page.getByLabel('landmarks').check();
  await expect(page.locator('[data-handout-line]').filter({ hasText: 'the climb' })).toHaveCount(2);
});

test('a cut is dragged to where it may stand', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  const handles = page.getByRole('button', { name: /^Cut before/ });
  const before = await handles.first().getAttribute('aria-label');
  const box = (await handles.first().boundingBox())!;
  await page.mouse.move(box.x + 8, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo: move a cut' })).toBeVisible();
  await expect(handles.first()).not.toHaveAttribute('aria-label', before!);
});

test('a drill goes through its stages, and one of them becomes a tune of the book', async ({ page }) => {
  await practise(page, 'Lanterns at the Boathouse');
  const drill = page.locator('[data-drill="jig-accent"]');
  await drill.getByRole('button', { name: /stages/ }).click();
  await drill.getByRole('button', { name: /^add to the book.*stage 2$/ }).click();
  await expect(page.getByRole('heading', { name: /^Jig accent 2, from Lanterns/ })).toBeVisible();
  await expect(page.locator('[data-note]').first()).toBeVisible();
  await practise(page, 'Lanterns at the Boathouse');
  await drill.getByRole('button', { name: /^Practise/ }).click();
  await begun(page);
  await expect(said(page)).toContainText('Stage 1 of');
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await expect(said(page)).toContainText('Stage 2 of');
});

test('today’s session has reasons, is ordered by keys, and leads to a run', async ({ page }) => {
  await page.goto('/practice');
  const list = page.getByRole('list', { name: 'Today’s session' });
  await expect(list.getByRole('listitem').first()).toContainText('Warm-up');
  await expect(list).toContainText('Its day has come');
  const nameOf = async (at: number) =>
    list
      .getByRole('listitem')
      .nth(at)
      .getByRole('link', { name: /^Start/ })
      .getAttribute('aria-label');
  const second = await nameOf(1);
  await list
    .getByRole('listitem')
    .nth(1)
    .getByRole('button', { name: /” down$/ })
    .press('Enter');
  expect(await nameOf(2)).toBe(second);
  await list
    .getByRole('listitem')
    .nth(2)
    .getByRole('button', { name: /^Leave/ })
    .click();
  await page.getByRole('button', { name: 'As it was proposed' }).click();
  expect(await nameOf(1)).toBe(second);
  await list
    .getByRole('listitem')
    .nth(1)
    .getByRole('link', { name: /^Start/ })
    .click();
  await begun(page);
});

test('a session says which tunes did not come, and fetches them again', async ({ page }) => {
  await page.route('**/api/tunes/*', (route) => route.abort());
  await page.goto('/practice');
  await expect(page.getByRole('alert')).toContainText('could not be fetched', { timeout: 20_000 });
  await page.unroute('**/api/tunes/*');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('list', { name: 'Today’s session' }).getByRole('listitem').first()).toContainText(
    'Warm-up',
  );
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test.describe('on a phone', () => {
  test.use({ ownContext: true, viewport: { width: 390, height: 844 } });
  test('session, bites and run fit, and nothing is wrong for those who do not see them', async ({ page }) => {
    await page.goto('/practice');
    await expect(page.getByRole('list', { name: 'Today’s session' })).toBeVisible();
    const fits = async () => {
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map(({ id, nodes }) => [id, nodes[0]!.html])).toEqual([]);
    };
    await fits();
    await practise(page, 'Marsh Lamps');
    await fits();
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await begun(page);
    await fits();
  });
});

test('technique first: from a skill to a tune that uses it, to its drill, and back', async ({ page }) => {
  await page.goto('/practice');
  await page.getByRole('link', { name: 'begin with a technique' }).click();
  await page.getByRole('link', { name: /^One finger across/ }).click();
  await expect(page.getByRole('heading', { name: 'One finger across' })).toBeVisible();
  await expect(page.getByText('Plucked, a little at a time: longer by the day.')).toBeVisible();
  await page.getByRole('link', { name: 'Practise One finger across in the key of Pewter Sky' }).click();
  await begun(page);
  await expect(said(page)).toContainText('Stage 1 of');
  await page.goBack();
  await page.getByRole('link', { name: 'all of them in the book' }).click();
  await expect(page).toHaveURL(/technique=one-finger-across/);
  const rows = page.getByRole('table', { name: 'Tunes' }).getByRole('row');
  await expect(rows.filter({ hasText: 'Pewter Sky' })).toBeVisible();
  await expect(rows.filter({ hasText: 'The Heron on the Slipway' })).toHaveCount(0);
});

test('a bite whose hand and bowing another tune has taught says so, and leads there', async ({ page }) => {
  await practise(page, 'Tern over the Causeway');
  const known = page.locator('[data-known]');
  const bites = page.getByRole('button', { name: /^Bite / });
  for (let at = 0; (await known.count()) === 0 && at < (await bites.count()); at++) await bites.nth(at).click();
  await expect(known).toContainText('from Lanterns at the Boathouse: same fingers, same bowing');
  await known.click();
  await expect(page.getByRole('heading', { level: 1, name: 'Lanterns at the Boathouse' })).toBeVisible();
});

test('a course over days is told day by day and saved for a calendar', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  await page.getByText('A course over days').click();
  await page.getByLabel('How many days').selectOption('5 days');
  await expect(page.locator('[data-course] tbody tr')).toHaveCount(5);
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save for a calendar' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('Pewter Sky.ics');
  const text = readFileSync(await saved.path(), 'utf8');
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(5);
});

test('a bite is practised in a layer and a way, and the log says so', async ({ page }) => {
  await practise(page, 'Pewter Sky');
  const id = idOf(page);
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await begun(page);
  await page.getByRole('button', { name: 'How it is played' }).click();
  await page.getByLabel('layer').selectOption('melody');
  await page.getByLabel('clean in a row').selectOption('1');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'plucked', exact: true }).click();
  const start = await bpm(page);
  await page.getByRole('button', { name: /^Clean/ }).click();
  await expect.poll(() => bpm(page)).toBeGreaterThan(start);
  // What was clean in a way is ticked.
  await expect(page.getByRole('button', { name: 'clean before: plucked' })).toBeVisible();
  await expect
    .poll(async () => (await logged(page, id)).map(({ layer, way }) => `${layer} ${way}`))
    .toEqual(['melody plucked']);
});

test('the log is saved as JSON, and brought in again it is known already', async ({ page }) => {
  await page.goto('/log');
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'as JSON' }).click(),
  ]);
  await page.getByLabel('Bring a log in').setInputFiles(await saved.path());
  await expect(page.getByText(/^0 new attempts, \d+ known already\.$/)).toBeVisible();
  await page.getByLabel('Bring a log in').setInputFiles({
    name: 'log.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('a,b\n1,2\n'),
  });
  await expect(page.getByRole('alert')).toContainText('expected a column “At”');
});
